/* A drawing that moves with the model: the frames were worked out by the core, here they are only shown one after the other. */
"use strict";

const told = JSON.parse(document.getElementById("frames").textContent);
const drawing = document.querySelector(".how-drawing");
const slider = document.querySelector("[data-at]");
const button = document.querySelector("[data-play]");
const FRAME_MS = 90;
let playing = 0;

slider.max = told.frames.length - 1;

const show = (place) => {
  const [minute, ...rest] = told.frames[place];
  const figures = rest.slice(0, told.figures);
  const [ice, running, fans, defrosting, opening] = rest.slice(told.figures);
  document.querySelector("[data-minute]").textContent =
    minute >= 180 ? `${(minute / 60).toFixed(1)} h` : `${Math.round(minute)} min`;
  figures.forEach((figure, n) => {
    document.querySelector(`[data-figure="${n}"]`).textContent = figure;
  });
  ice.forEach((share, n) => {
    drawing.querySelector(`[data-ice="${n}"]`).style.opacity = share;
  });
  drawing.classList.toggle("runs", running === 1);
  drawing.classList.toggle("blows", fans === 1);
  drawing
    .querySelector("[data-heat]")
    .setAttribute("visibility", defrosting ? "visible" : "hidden");
  drawing.querySelector("[data-state]").textContent = defrosting ?
    "in defrost" :
    running ?
    "runs" :
    "stands";
  const bar = drawing.querySelector("[data-opening]");
  bar.setAttribute("height", 40 * opening);
  bar.setAttribute("y", 172 + 40 * (1 - opening));
  const x = (600 * place) / (told.frames.length - 1);
  document
    .querySelectorAll("[data-now]")
    .forEach((line) => line.setAttribute("d", `M${x} 0V56`));
};

const stop = () => {
  clearInterval(playing);
  playing = 0;
  button.textContent = "Play";
};

button.addEventListener("click", () => {
  if (playing) {
    stop();
    return;
  }
  if (Number(slider.value) >= told.frames.length - 1) {
    slider.value = 0;
  }
  button.textContent = "Stop";
  playing = setInterval(() => {
    const next = Number(slider.value) + 1;
    slider.value = next;
    show(next);
    if (next >= told.frames.length - 1) {
      stop();
    }
  }, FRAME_MS);
});

slider.addEventListener("input", () => {
  stop();
  show(Number(slider.value));
});

show(0);
