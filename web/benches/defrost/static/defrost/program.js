/* The day dial: a hand or a key says what is done to which defrost; the server answers with the dial drawn anew. */
(() => {
  const MOVES = {
    ArrowRight: 1,
    ArrowUp: 1,
    ArrowLeft: -1,
    ArrowDown: -1,
    PageUp: 12,
    PageDown: -12
  };
  const STRETCHES = {
    "+": 1,
    "=": 1,
    "-": -1,
    _: -1
  };
  const box = () => document.getElementById("dial");
  const whole = () => document.querySelector("[name=whole_hours]")?.checked;
  let held = null;

  const send = (act, values) => {
    const dial = box();
    const form = Object.fromEntries(new FormData(document.getElementById("form-left")));
    htmx.ajax("POST", dial.dataset.url, {
      target: dial,
      swap: "outerHTML",
      values: {
        ...form,
        act,
        ...(whole() ? {
          whole_hours: "on"
        } : {}),
        ...values
      }
    });
  };
  const at = (event) => {
    const svg = box().querySelector("svg");
    const point = new DOMPoint(event.clientX, event.clientY).matrixTransform(svg.getScreenCTM().inverse());
    return {
      x: point.x,
      y: point.y
    };
  };
  /* How far the hand has turned round the middle, only to let the arc follow it. */
  const turned = (a, b, middle) => (Math.atan2(b.y - middle, b.x - middle) - Math.atan2(a.y - middle, a.x - middle)) * 180 / Math.PI;

  document.addEventListener("pointerdown", (event) => {
    const arc = event.target.closest?.(".arc[tabindex]");
    if (!arc) return;
    event.preventDefault();
    arc.focus();
    arc.setPointerCapture(event.pointerId);
    held = {
      arc,
      from: at(event),
      grip: Boolean(event.target.closest(".grip")),
      middle: box().querySelector("svg").viewBox.baseVal.width / 2
    };
  });
  document.addEventListener("pointermove", (event) => {
    if (!held) return;
    const what = held.grip ? held.arc.querySelector(".grip") : held.arc;
    what.setAttribute("transform", `rotate(${turned(held.from, at(event), held.middle)} ${held.middle} ${held.middle})`);
  });
  const drop = (event) => {
    if (!held) return;
    const {
      arc,
      from,
      grip
    } = held;
    const to = at(event);
    held = null;
    if (event.type === "pointercancel" || Math.hypot(to.x - from.x, to.y - from.y) < 3) {
      arc.removeAttribute("transform");
      arc.querySelector(".grip").removeAttribute("transform");
      return;
    }
    send(grip ? "stretch" : "move", {
      place: arc.dataset.place,
      from_x: from.x,
      from_y: from.y,
      to_x: to.x,
      to_y: to.y
    });
  };
  document.addEventListener("pointerup", drop);
  document.addEventListener("pointercancel", drop);

  document.addEventListener("keydown", (event) => {
    const arc = event.target.closest?.(".arc[tabindex]");
    if (!arc) return;
    const place = arc.dataset.place;
    if (event.key in MOVES) send("nudge", {
      place,
      by: MOVES[event.key]
    });
    else if (event.key in STRETCHES) send("longer", {
      place,
      by: STRETCHES[event.key]
    });
    else if (event.key === "Delete" || event.key === "Backspace") send("remove", {
      place
    });
    else return;
    event.preventDefault();
    event.stopPropagation();
  }, true);

  document.addEventListener("click", (event) => {
    if (event.target.closest("[data-act=add]")) send("add", {});
  });
  document.addEventListener("change", (event) => {
    if (event.target.form?.id === "form-left") htmx.trigger(box(), "program-changed");
  });

  /* What was done on the dial stands in the fields, and the arc keeps the focus. */
  document.addEventListener("htmx:afterSettle", () => {
    const moved = document.getElementById("moved-fields");
    if (moved?.dataset.starts !== undefined) {
      document.getElementById("left-starts").value = moved.dataset.starts;
      document.getElementById("left-fail_safe_min").value = moved.dataset.failSafe;
      for (const name of Object.keys(moved.dataset)) delete moved.dataset[name];
    }
    const dial = box();
    if (dial?.dataset.focusArc) {
      dial.querySelector(`.arc[data-place="${dial.dataset.focusArc}"]`)?.focus();
      delete dial.dataset.focusArc;
    }
  });
})();
