/* The ladder: what moves is sent, the answer is drawn, and the other fields follow it. Nothing is worked out here. */
(() => {
  const form = document.getElementById("ladder");
  if (!form) return;
  // The field typed into since the last question went out: an older answer leaves it alone.
  let typed = "";
  const ask = (moved) => {
    form.elements.moved.value = moved;
    htmx.trigger(form, "submit");
  };
  form.addEventListener("input", (event) => {
    if (event.target.type === "range") ask(event.target.name);
    else typed = event.target.name;
  });
  form.addEventListener("htmx:beforeRequest", () => (typed = ""));
  form.addEventListener("change", (event) => {
    const name = event.target.name;
    if (event.target.type === "range") return;
    if (name === "pressure" || name === "temperature") ask(name);
    else ask("pressure");
  });
  form.addEventListener("submit", (event) => {
    if (event.isTrusted) form.elements.moved.value ||= "pressure";
  });
  document.addEventListener("htmx:afterSwap", () => {
    const drawn = document.getElementById("ladder-drawn").dataset;
    const follow = (name, value) => {
      const field = form.elements[name];
      const held = name === typed || (field === document.activeElement && field.type === "range");
      if (!held) field.value = value;
    };
    for (const name of ["pressure_at", "temperature_at"]) Object.assign(form.elements[name], {
      min: drawn.low,
      max: drawn.high
    });
    follow("pressure", drawn.pressure);
    follow("temperature", drawn.temperature);
    follow("pressure_at", drawn.pressureAt);
    follow("temperature_at", drawn.temperatureAt);
    form.elements.pressure_at.setAttribute("aria-valuetext", drawn.pressure);
    form.elements.temperature_at.setAttribute("aria-valuetext", drawn.temperature);
  });
})();
