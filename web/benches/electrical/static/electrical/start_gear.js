/* Start gear: a wire is run by tapping both its ends; tapped again between the same ends it is pulled off. */
(() => {
  const SVG = "http://www.w3.org/2000/svg";

  const begin = (side) => {
    const field = side.querySelector("input[name=wires]");
    if (!field) return;
    const says = side.querySelector("[data-start-says]");
    const list = side.querySelector("[data-start-list]");
    const drawn = side.querySelector(".start-wires");
    const terminals = new Map([...side.querySelectorAll("[data-terminal]")].map((one) => [one.dataset.terminal, one]));
    let wires = field.value ? field.value.split(",").map((wire) => wire.split("-")) : [];
    let first = "";

    const label = (key) => terminals.get(key).getAttribute("aria-label");
    const at = (key) => {
      const {
        e,
        f
      } = terminals.get(key).transform.baseVal.consolidate().matrix;
      return [e, f];
    };

    const draw = () => {
      field.value = wires.map((wire) => wire.join("-")).join(",");
      drawn.replaceChildren(
        ...wires.map(([one, other]) => {
          const line = document.createElementNS(SVG, "line");
          const [
            [x1, y1],
            [x2, y2]
          ] = [at(one), at(other)];
          for (const [name, value] of Object.entries({
              x1,
              y1,
              x2,
              y2
            })) line.setAttribute(name, value);
          return line;
        }),
      );
      list.replaceChildren(
        ...wires.map((wire, place) => {
          const row = document.createElement("li");
          row.className = "row";
          const words = document.createElement("span");
          words.textContent = `${place + 1}: ${label(wire[0])} → ${label(wire[1])}`;
          const off = document.createElement("button");
          off.type = "button";
          off.className = "btn quiet";
          off.textContent = "Pull off";
          off.addEventListener("click", () => {
            wires = wires.filter((other) => other !== wire);
            draw();
          });
          row.append(words, off);
          return row;
        }),
      );
      for (const [key, one] of terminals) one.classList.toggle("on", key === first);
    };

    const tap = (key) => {
      if (!first) {
        first = key;
        says.textContent = `From ${label(key)} to …`;
      } else if (first === key) {
        first = "";
        says.textContent = "Tap two terminals to run a wire between them.";
      } else {
        const ends = [first, key].sort().join("-");
        const there = wires.find((wire) => [...wire].sort().join("-") === ends);
        wires = there ? wires.filter((wire) => wire !== there) : [...wires, [first, key]];
        says.textContent = `${label(first)} → ${label(key)}: ${there ? "pulled off" : "run"}. Keep them when all are there.`;
        first = "";
      }
      draw();
    };

    side.addEventListener("click", (event) => {
      const one = event.target.closest?.("[data-terminal]");
      if (one) tap(one.dataset.terminal);
    });
    side.addEventListener("keydown", (event) => {
      const one = event.target.closest?.("[data-terminal]");
      if (!one || (event.key !== "Enter" && event.key !== " ")) return;
      event.preventDefault();
      tap(one.dataset.terminal);
    });
    draw();
  };

  document.querySelectorAll("[data-start-side]").forEach(begin);
})();
