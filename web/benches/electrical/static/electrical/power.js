/* Leads on the drawing: the first point tapped takes one lead, the second the other, a third begins anew. */
(() => {
  const field = (id) => document.getElementById(id);
  let next = "one";

  const mark = () => {
    const on = [field("one")?.value, field("other")?.value];
    for (const dot of document.querySelectorAll("[data-point]")) {
      dot.classList.toggle("on", on.includes(dot.dataset.point));
    }
  };

  const put = (what, one, other) => {
    if (!field("measure")) return;
    field("what").value = what;
    field("one").value = one;
    field("other").value = other;
    mark();
    field("value").focus();
  };

  const tap = (point) => {
    if (!field("measure")) return;
    if (field("what").value === "amps") field("what").value = "volts";
    field(next).value = point;
    next = next === "one" ? "other" : "one";
    mark();
    if (next === "one") field("value").focus();
  };

  const pressed = (event) => {
    const lead = event.target.closest?.(".lead, .lead-short");
    if (lead) {
      put(lead.dataset.what, lead.dataset.one, lead.dataset.other);
      return;
    }
    const dot = event.target.closest?.("[data-point]");
    if (dot) tap(dot.dataset.point);
  };

  document.addEventListener("click", pressed);
  document.addEventListener("keydown", (event) => {
    if ((event.key === "Enter" || event.key === " ") && event.target.closest?.("[data-point]")) {
      event.preventDefault();
      tap(event.target.closest("[data-point]").dataset.point);
    }
  });
  document.addEventListener("change", mark);
  mark();
})();
