/* Painting the ice map: a finger or the keyboard paints cells at once; the server reads the map after each stroke. */
(() => {
  const WORDS = {
    ".": "bare",
    l: "light frost",
    h: "heavy frost",
    i: "hard ice",
    s: "snow",
    o: "oil mark"
  };
  const KEYS = {
    b: ".",
    l: "l",
    h: "h",
    i: "i",
    s: "s",
    o: "o"
  };

  const prepare = (form) => {
    if (form.dataset.prepared) return;
    form.dataset.prepared = "yes";
    const svg = form.querySelector("svg[tabindex]");
    const cursor = svg.querySelector(".ice-cursor");
    const where = form.querySelector(".ice-where");
    const draft = `kettle-ice:${form.dataset.ice}`;
    const at = new Map([...svg.querySelectorAll("[data-row]")].map((cell) => [`${cell.dataset.row}-${cell.dataset.column}`, cell]));
    const brush = () => form.querySelector("[name=brush]:checked").value;
    let row = 0,
      column = 0,
      painting = false,
      last = null;

    const letter = (cell, value) => {
      cell.dataset.letter = value;
      if (value === ".") cell.removeAttribute("fill");
      else cell.setAttribute("fill", `url(#ice-${value})`);
    };
    const oil = (key, on) => svg.querySelector(`[data-oil="${key}"]`).setAttribute("visibility", on ? "visible" : "hidden");
    const oiled = (key) => svg.querySelector(`[data-oil="${key}"]`).getAttribute("visibility") !== "hidden";
    const place = (button, value) => {
      form.elements[`place-${button.dataset.place}`].value = value;
      button.classList.toggle("empty", value === "");
      button.querySelector("b").textContent = WORDS[value] ?? "not looked";
    };

    const paint = (cell) => {
      const key = `${cell.dataset.row}-${cell.dataset.column}`;
      if (brush() === "o") oil(key, !oiled(key));
      else letter(cell, brush());
      where.textContent = `row ${Number(cell.dataset.row) + 1}, cell ${Number(cell.dataset.column) + 1}: ${WORDS[brush()]}`;
    };
    const moveCursor = () => {
      const cell = at.get(`${row}-${column}`);
      cursor.setAttribute("x", cell.getAttribute("x"));
      cursor.setAttribute("y", cell.getAttribute("y"));
      where.textContent = `row ${row + 1}, cell ${column + 1}: ${WORDS[cell.dataset.letter]}`;
    };
    const write = () => {
      const lines = [];
      for (const [key, cell] of at)(lines[key.split("-")[0]] ??= []).push(cell.dataset.letter);
      form.elements.rows.value = lines.map((cells) => cells.join("")).join("/");
      form.elements.oil.value = [...at.keys()].filter(oiled).join(" ");
    };
    const done = () => {
      write();
      const places = Object.fromEntries([...form.querySelectorAll("[data-place]")].map((b) => [b.dataset.place, form.elements[
        `place-${b.dataset.place}`].value]));
      localStorage.setItem(draft, JSON.stringify({
        rows: form.elements.rows.value,
        oil: form.elements.oil.value,
        places
      }));
      form.dispatchEvent(new CustomEvent("ice-changed"));
    };

    const cellUnder = (event) => document.elementFromPoint(event.clientX, event.clientY)?.closest("[data-row]");
    svg.addEventListener("pointerdown", (event) => {
      const cell = cellUnder(event);
      if (!cell) return;
      event.preventDefault();
      svg.focus();
      svg.setPointerCapture(event.pointerId);
      painting = true;
      last = cell;
      row = Number(cell.dataset.row);
      column = Number(cell.dataset.column);
      moveCursor();
      paint(cell);
    });
    svg.addEventListener("pointermove", (event) => {
      const cell = painting ? cellUnder(event) : null;
      if (cell && cell !== last && svg.contains(cell)) {
        last = cell;
        paint(cell);
      }
    });
    const lift = () => {
      if (painting) {
        painting = false;
        done();
      }
    };
    svg.addEventListener("pointerup", lift);
    svg.addEventListener("pointercancel", lift);

    svg.addEventListener("keydown", (event) => {
      const steps = {
        ArrowLeft: [0, -1],
        ArrowRight: [0, 1],
        ArrowUp: [-1, 0],
        ArrowDown: [1, 0]
      };
      if (steps[event.key]) {
        const next = at.get(`${row + steps[event.key][0]}-${column + steps[event.key][1]}`);
        if (next) {
          row = Number(next.dataset.row);
          column = Number(next.dataset.column);
        }
        moveCursor();
      } else if (event.key === " " || event.key === "Enter") {
        paint(at.get(`${row}-${column}`));
        done();
      } else if (KEYS[event.key]) {
        form.querySelector(`[name=brush][value="${KEYS[event.key]}"]`).checked = true;
      } else return;
      event.preventDefault();
      event.stopPropagation();
    });

    for (const button of form.querySelectorAll("[data-place]")) {
      button.addEventListener("click", () => {
        if (brush() !== "o") {
          place(button, brush());
          done();
        }
      });
    }
    form.querySelector("[data-fill]").addEventListener("click", () => {
      for (const cell of at.values())
        if (brush() !== "o") letter(cell, brush());
      done();
    });
    form.querySelector("[data-rest]").addEventListener("click", () => {
      for (const button of form.querySelectorAll("[data-place].empty")) place(button, ".");
      done();
    });
    form.addEventListener("submit", () => localStorage.removeItem(draft));

    /* A map that was painted and not yet kept comes back. */
    const kept = JSON.parse(localStorage.getItem(draft) ?? "null");
    if (kept) {
      kept.rows.split("/").forEach((line, r) => [...line].forEach((value, c) => letter(at.get(`${r}-${c}`), value)));
      for (const key of at.keys()) oil(key, kept.oil.split(" ").includes(key));
      for (const button of form.querySelectorAll("[data-place]")) place(button, kept.places[button.dataset.place] ?? "");
      if (document.readyState === "complete") done();
      else window.addEventListener("load", done);
    }
    write();
  };

  for (const form of document.querySelectorAll("[data-ice]")) prepare(form);
  /* A painter may come later, on the sheet of the coil. */
  document.addEventListener("htmx:afterSettle", (event) => {
    for (const form of event.target.querySelectorAll("[data-ice]")) prepare(form);
  });
})();
