/* A signature drawn by finger, pen or mouse: strokes as a path, in whole points of the field. All lines of an option at one tap.
   Heard by the document and loaded before anything is shown, so that no tap falls on a button that does not hear yet. */
(() => {
  const kept = () => document.querySelector("input[name=signature]");
  let field = null;

  const point = (event) => {
    const box = field.getBoundingClientRect();
    const x = Math.round(((event.clientX - box.left) / box.width) * 600);
    const y = Math.round(((event.clientY - box.top) / box.height) * 180);
    return `${Math.min(Math.max(x, 0), 600)} ${Math.min(Math.max(y, 0), 180)}`;
  };
  const show = (strokes) => {
    kept().value = strokes;
    document.querySelector("[data-sign] path").setAttribute("d", strokes);
  };
  const add = (stroke) => {
    if (kept().value.length <= 18000) show(`${kept().value} ${stroke}`.trim());
  };
  document.addEventListener("pointerdown", (event) => {
    field = event.target.closest("[data-sign]");
    if (!field) return;
    field.setPointerCapture(event.pointerId);
    add(`M${point(event)}`);
  });
  document.addEventListener("pointermove", (event) => {
    if (field) add(`L${point(event)}`);
  });
  ["pointerup", "pointercancel"].forEach((name) => document.addEventListener(name, () => {
    field = null;
  }));
  document.addEventListener("click", (event) => {
    if (event.target.closest("[data-unsign]")) show("");
    const named = event.target.closest("[data-name]");
    if (named) document.querySelector("input[name=name]").value = named.dataset.name;
    const all = event.target.closest("[data-all]");
    if (!all) return;
    all.closest("[data-option]").querySelectorAll(`input[value=${all.dataset.all}]`).forEach((input) => {
      input.checked = true;
    });
  });
})();
