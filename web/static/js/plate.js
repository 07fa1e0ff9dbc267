/* The plate on its picture: a tapped part opens what can be said of it. */
(() => {
  const show = (part, away) => {
    for (const group of document.querySelectorAll(".plate-group")) {
      const said = [...group.querySelectorAll("input, select")].some((field) => field.value !== "") || group.querySelector(".error");
      group.hidden = group.id !== `plate-${part}` && !said;
    }
    const group = document.getElementById(`plate-${part}`);
    if (!group || !away) return;
    group.scrollIntoView({
      block: "nearest"
    });
    group.querySelector("input, select")?.focus();
  };

  document.addEventListener("click", (event) => {
    const part = event.target.closest?.("[data-plate]");
    if (!part) return;
    event.preventDefault();
    show(part.dataset.plate, true);
  });
  show("", false);
})();
