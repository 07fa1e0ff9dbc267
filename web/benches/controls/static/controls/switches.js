/* A switch on its scale: a handle dragged or moved by keys writes its pressure into its field, and the sum is asked for on letting go. */
(() => {
  const drawing = document.querySelector(".switch-drawing");
  const form = document.getElementById("switch-form");
  if (!drawing || !form) return;
  const svg = drawing.querySelector("svg");
  // Height and pressure in small steps, as the core worked them out.
  const table = drawing.dataset.table.split(" ").map((pair) => pair.split(":").map(Number));

  const near = (y) => table.reduce((best, one) => (Math.abs(one[0] - y) < Math.abs(best[0] - y) ? one : best));
  const set = (handle, y) => {
    const [height, figure] = near(y);
    handle.setAttribute("transform", `translate(0 ${height})`);
    handle.querySelector(".value").textContent = String(Math.round(figure * 10) / 10);
    form.elements[handle.dataset.end].value = String(Math.round(figure * 10) / 10);
    return height;
  };
  const at = (handle) => handle.transform.baseVal.consolidate().matrix.f;
  const inDrawing = (event) => {
    const point = new DOMPoint(event.clientX, event.clientY).matrixTransform(svg.getScreenCTM().inverse());
    return point.y;
  };

  for (const handle of svg.querySelectorAll(".handle")) {
    handle.addEventListener("pointerdown", (event) => {
      handle.setPointerCapture(event.pointerId);
      handle.dataset.dragged = "yes";
    });
    handle.addEventListener("pointermove", (event) => {
      if (handle.dataset.dragged) set(handle, inDrawing(event));
    });
    handle.addEventListener("pointerup", () => {
      if (!handle.dataset.dragged) return;
      delete handle.dataset.dragged;
      form.requestSubmit();
    });
    handle.addEventListener("keydown", (event) => {
      const step = {
        ArrowUp: -1,
        ArrowDown: 1,
        PageUp: -5,
        PageDown: 5
      } [event.key];
      if (!step) {
        if (event.key === "Enter") form.requestSubmit();
        return;
      }
      event.preventDefault();
      const heights = table.map((one) => one[0]).sort((one, other) => one - other);
      const place = heights.indexOf(near(at(handle))[0]);
      set(handle, heights[Math.min(Math.max(place + step, 0), heights.length - 1)]);
    });
  }
})();
