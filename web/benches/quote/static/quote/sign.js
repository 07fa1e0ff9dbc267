/* A signature drawn by finger, pen or mouse: strokes as a path, in whole points of the field. All lines of an option at one tap. */
(() => {
  const field = document.querySelector("[data-sign]");
  if (!field) return;
  const path = field.querySelector("path");
  const kept = document.querySelector("input[name=signature]");
  let drawing = false;

  const point = (event) => {
    const box = field.getBoundingClientRect();
    const x = Math.round(((event.clientX - box.left) / box.width) * 600);
    const y = Math.round(((event.clientY - box.top) / box.height) * 180);
    return `${Math.min(Math.max(x, 0), 600)} ${Math.min(Math.max(y, 0), 180)}`;
  };
  const add = (stroke) => {
    if (kept.value.length > 18000) return;
    kept.value = `${kept.value} ${stroke}`.trim();
    path.setAttribute("d", kept.value);
  };
  field.addEventListener("pointerdown", (event) => {
    drawing = true;
    field.setPointerCapture(event.pointerId);
    add(`M${point(event)}`);
  });
  field.addEventListener("pointermove", (event) => {
    if (drawing) add(`L${point(event)}`);
  });
  ["pointerup", "pointercancel"].forEach((name) => field.addEventListener(name, () => {
    drawing = false;
  }));
  document.querySelector("[data-unsign]").addEventListener("click", () => {
    kept.value = "";
    path.setAttribute("d", "");
  });
  document.addEventListener("click", (event) => {
    const named = event.target.closest("[data-name]");
    if (named) document.querySelector("input[name=name]").value = named.dataset.name;
    const button = event.target.closest("[data-all]");
    if (!button) return;
    button.closest("[data-option]").querySelectorAll(`input[value=${button.dataset.all}]`).forEach((input) => {
      input.checked = true;
    });
  });
})();
