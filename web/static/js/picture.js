/* The picture of the unit: a tapped part opens its sheet, which closes by its button, by Escape, or by the next part. */
(() => {
  const sheet = () => document.getElementById("part-sheet");

  const mark = (code) => {
    for (const part of document.querySelectorAll(".picture-part")) {
      if (code && part.dataset.part === code) part.setAttribute("aria-current", "true");
      else part.removeAttribute("aria-current");
    }
  };

  const close = () => {
    const open = sheet();
    if (!open || open.hidden) return;
    const code = open.dataset.part;
    open.hidden = true;
    open.dataset.part = "";
    open.replaceChildren();
    mark("");
    document.querySelector(`.picture-part[data-part="${code}"]`)?.focus();
  };

  document.addEventListener("click", (event) => {
    const part = event.target.closest?.(".picture-part");
    if (part) {
      sheet().dataset.part = part.dataset.part;
      mark(part.dataset.part);
    } else if (event.target.closest?.("[data-close-sheet]")) close();
  });
  document.addEventListener("keydown", (event) => {
    if (event.key === "Escape") close();
  });
  document.addEventListener("htmx:afterSwap", (event) => {
    if (event.detail.target.id !== "part-sheet") return;
    sheet().hidden = false;
    sheet().scrollTop = 0;
    document.getElementById("sheet-title")?.focus();
  });
  /* The answer to an entry may come when its sheet was closed, or another opened: what belongs only on that sheet is left out.
     Heard at the target itself, which is no longer in the page then. */
  const leaveOutLate = (event) => {
    const answer = document.createElement("template");
    answer.innerHTML = event.detail.serverResponse;
    const late = [...answer.content.querySelectorAll("[data-while-open]")].filter((part) => !document.getElementById(part.id));
    late.forEach((part) => part.remove());
    if (late.length) event.detail.serverResponse = answer.innerHTML;
  };
  document.addEventListener("htmx:beforeRequest", (event) => {
    event.detail.target.addEventListener("htmx:beforeSwap", leaveOutLate);
  });
  /* The picture is drawn anew after each entry: what is open stays marked. */
  document.addEventListener("htmx:oobAfterSwap", () => {
    if (sheet()?.dataset.part) mark(sheet().dataset.part);
  });
})();
