/* The chart of a log: tiles come from the server for what is in sight; drag, pinch and keys choose it. No number is worked out here. */
(() => {
  const COLOURS = ["--cold", "--warm", "--good", "--watch", "--ink", "--orange", "--soft"];
  const SPANS = {
    day: 86400,
    week: 604800
  };
  const LEAST_S = 300;
  const FONT = '15px "Atkinson Hyperlegible Mono", "Atkinson Hyperlegible Next", sans-serif';

  /* A canvas takes no `light-dark()`: the one of the two that is on. */
  const colour = (name) => {
    const root = document.documentElement;
    const night = root.dataset.look ? root.dataset.look === "night" : matchMedia("(prefers-color-scheme: dark)").matches;
    const [byDay, byNight] = getComputedStyle(root).getPropertyValue(name).match(/#\w+/g);
    return night ? byNight : byDay;
  };

  class Chart {
    constructor(root) {
      this.root = root;
      this.plotRoot = root.querySelector("[data-plot]");
      this.begins = Number(root.dataset.begins);
      this.ends = Number(root.dataset.ends);
      this.hidden = null;
      this.asked = 0;
      root.querySelectorAll("[data-move]").forEach((button) => button.addEventListener("click", () => this.move(button.dataset.move)));
      this.plotRoot.addEventListener("keydown", (event) => this.key(event));
      this.pinch();
      new ResizeObserver(() => this.resize()).observe(this.plotRoot);
      this.show(Number(root.dataset.from), Number(root.dataset.to));
    }

    key(event) {
      const moves = {
        ArrowLeft: "back",
        ArrowRight: "on",
        "+": "in",
        "=": "in",
        "-": "out",
        0: "all"
      };
      if (!(event.key in moves)) return;
      event.preventDefault();
      event.stopPropagation();
      this.move(moves[event.key]);
    }

    move(how) {
      const span = this.to - this.from;
      const middle = (this.to + this.from) / 2;
      if (how === "back") this.show(this.from - span / 2, this.to - span / 2);
      if (how === "on") this.show(this.from + span / 2, this.to + span / 2);
      if (how === "in") this.show(middle - span / 4, middle + span / 4);
      if (how === "out") this.show(middle - span, middle + span);
      if (how in SPANS) this.show(this.to - SPANS[how], this.to);
      if (how === "all") this.show(this.begins, this.ends);
    }

    show(from, to) {
      const whole = Math.max(this.ends - this.begins, LEAST_S);
      const span = Math.min(Math.max(to - from, LEAST_S), whole * 1.04);
      const middle = Math.min(Math.max((from + to) / 2, this.begins), this.ends);
      this.from = middle - span / 2;
      this.to = middle + span / 2;
      clearTimeout(this.soon);
      this.soon = setTimeout(() => this.fetch(), 60);
    }

    async fetch() {
      const number = ++this.asked;
      const pixels = Math.min(Math.max(Math.round(this.plotRoot.clientWidth), 50), 4000);
      const query = `from=${this.from.toFixed(0)}&to=${this.to.toFixed(0)}&pixels=${pixels}`;
      const told = this.root.querySelector("[data-told]");
      try {
        const answer = await fetch(`${this.root.dataset.url}?${query}`, {
          credentials: "same-origin"
        });
        if (!answer.ok) throw new Error(String(answer.status));
        const tile = await answer.json();
        if (number !== this.asked) return;
        this.tile = tile;
        if (!this.hidden) this.hidden = new Set(tile.columns.filter((column) => !column.code.endsWith("_f")).map((column) => column
          .code));
        if (tile.columns.every((column) => column.state || this.hidden.has(column.code))) this.hidden.clear();
        this.draw();
        told.textContent = `${this.words(this.from)} to ${this.words(this.to)}`;
      } catch {
        told.textContent = "No answer; move it to ask again.";
      }
    }

    words(seconds) {
      const at = new Date((seconds + this.tile.offset) * 1000);
      const time = at.toISOString().slice(11, 16);
      return `${at.getUTCDate()} ${at.toLocaleString("en", { month: "short", timeZone: "UTC" })} ${time}`;
    }

    chips(figures) {
      const box = this.root.querySelector("[data-columns]");
      box.replaceChildren(
        ...figures.map((column, n) => {
          const chip = document.createElement("button");
          chip.type = "button";
          chip.className = "btn chip";
          chip.setAttribute("aria-pressed", String(!this.hidden.has(column.code)));
          chip.style.setProperty("--own", `var(${COLOURS[n % COLOURS.length]})`);
          chip.textContent = column.unit ? `${column.label}, ${column.unit}` : column.label;
          chip.addEventListener("click", () => {
            if (!this.hidden.delete(column.code)) this.hidden.add(column.code);
            this.draw();
          });
          return chip;
        }),
      );
    }

    draw() {
      const figures = this.tile.columns.filter((column) => !column.state);
      this.chips(figures);
      const data = [this.tile.at];
      const series = [{}];
      const bands = [];
      figures.forEach((column, n) => {
        const stroke = colour(COLOURS[n % COLOURS.length]);
        const show = !this.hidden.has(column.code);
        const [least, mean, most] = column.bands;
        const scale = column.unit || "figure";
        const edge = {
          scale,
          show,
          width: 0,
          points: {
            show: false
          }
        };
        data.push(most, least, mean);
        series.push({
          ...edge
        }, {
          ...edge
        }, {
          label: column.label,
          scale,
          show,
          stroke,
          width: 2,
          points: {
            show: false
          }
        });
        bands.push({
          series: [data.length - 3, data.length - 2],
          fill: `${stroke}33`
        });
      });
      const scales = [...new Set(figures.filter((column) => !this.hidden.has(column.code)).map((column) => column.unit || "figure"))];
      const ink = colour("--soft");
      const line = colour("--line");
      const axis = {
        stroke: ink,
        font: FONT,
        grid: {
          stroke: line,
          width: 1
        },
        ticks: {
          stroke: line
        }
      };
      const options = {
        width: this.plotRoot.clientWidth,
        height: this.plotRoot.clientHeight,
        tzDate: (seconds) => new Date((seconds + this.tile.offset + new Date((seconds + this.tile.offset) * 1000)
          .getTimezoneOffset() * 60) * 1000),
        scales: {
          x: {
            time: true,
            range: () => [this.from, this.to]
          }
        },
        series,
        bands,
        legend: {
          show: false
        },
        cursor: {
          drag: {
            x: true,
            y: false,
            setScale: false
          }
        },
        axes: [{
            ...axis,
            values: "{HH}:{mm}",
            ...this.timeAxis()
          },
          ...scales.map((scale, n) => ({
            ...axis,
            scale,
            side: n ? 1 : 3,
            label: scale,
            labelSize: 22,
            labelFont: axis.font,
            size: 56,
            grid: n ? {
              show: false
            } : axis.grid
          })),
        ],
        hooks: {
          drawClear: [(plot) => this.marks(plot)],
          setSelect: [(plot) => this.selected(plot)]
        },
      };
      if (this.plot) this.plot.destroy();
      this.plot = new uPlot(options, data, this.plotRoot);
    }

    timeAxis() {
      return {
        values: (plot, splits) => splits.map((split) => {
          const words = this.words(split);
          return words.endsWith("00:00") || this.to - this.from > 6 * 86400 ? words.slice(0, -6) : words.slice(-5);
        }),
        space: 74
      };
    }

    selected(plot) {
      if (plot.select.width < 8) return;
      const from = plot.posToVal(plot.select.left, "x");
      const to = plot.posToVal(plot.select.left + plot.select.width, "x");
      plot.setSelect({
        left: 0,
        width: 0,
        top: 0,
        height: 0
      }, false);
      this.show(from, to);
    }

    marks(plot) {
      const {
        ctx
      } = plot;
      const {
        top,
        height,
        left,
        width
      } = plot.bbox;
      const tones = {
        defrost: ["--warm", "55"],
        recovery: ["--watch", "2e"],
        door: ["--stop", "66"],
        visit: ["--cold", "1f"],
        pull_down: ["--good", "1f"]
      };
      ctx.save();
      this.tile.marks.forEach(([begin, end, code]) => {
        const a = Math.max(plot.valToPos(begin, "x", true), left);
        const b = Math.min(plot.valToPos(end, "x", true), left + width);
        if (b < left || a > left + width) return;
        if (code === "run") {
          /* A strip along the foot: where it ran. */
          ctx.fillStyle = colour("--cold");
          ctx.fillRect(a, top + height - 8, Math.max(b - a, 1), 8);
        } else if (code in tones) {
          const [name, strength] = tones[code];
          ctx.fillStyle = colour(name) + strength;
          ctx.fillRect(a, top, Math.max(b - a, 2), height);
        } else {
          ctx.fillStyle = colour("--orange");
          ctx.fillRect(a - 1, top, 2, height);
        }
      });
      /* What was read by hand. */
      const scale = this.tile.columns.find((column) => column.code === "box_f")?.unit;
      if (scale && plot.scales[scale]) {
        ctx.fillStyle = colour("--orange");
        this.tile.hand.forEach(([at, value]) => {
          const x = plot.valToPos(at, "x", true);
          if (x < left || x > left + width) return;
          ctx.beginPath();
          ctx.arc(x, plot.valToPos(value, scale, true), 5 * devicePixelRatio, 0, 7);
          ctx.fill();
        });
      }
      ctx.restore();
    }

    resize() {
      if (!this.plot) return;
      clearTimeout(this.later);
      this.later = setTimeout(() => this.show(this.from, this.to), 150);
    }

    pinch() {
      const touches = new Map();
      let before = null;
      const spread = () => {
        const [a, b] = [...touches.values()];
        return Math.abs(a - b);
      };
      this.plotRoot.addEventListener("pointerdown", (event) => {
        if (event.pointerType !== "touch") return;
        touches.set(event.pointerId, event.clientX);
        if (touches.size === 2) before = {
          spread: Math.max(spread(), 10),
          from: this.from,
          to: this.to
        };
      });
      this.plotRoot.addEventListener("pointermove", (event) => {
        if (!touches.has(event.pointerId)) return;
        touches.set(event.pointerId, event.clientX);
        if (touches.size !== 2 || !before) return;
        const share = Math.max(spread(), 10) / before.spread;
        const middle = (before.from + before.to) / 2;
        const half = (before.to - before.from) / 2 / share;
        this.show(middle - half, middle + half);
      });
      ["pointerup", "pointercancel", "pointerleave"].forEach((name) =>
        this.plotRoot.addEventListener(name, (event) => {
          touches.delete(event.pointerId);
          before = null;
        }),
      );
    }
  }

  const charts = [];
  const begin = () => document.querySelectorAll("[data-trend]:not([data-drawn])").forEach((root) => {
    root.dataset.drawn = "yes";
    charts.push(new Chart(root));
  });
  document.addEventListener("DOMContentLoaded", begin);
  document.addEventListener("htmx:afterSettle", begin);
  document.addEventListener("click", (event) => {
    const link = event.target.closest("[data-show-from]");
    if (!link || !charts.length) return;
    event.preventDefault();
    const from = Number(link.dataset.showFrom);
    const to = Math.max(Number(link.dataset.showTo), from + 3600);
    const margin = (to - from) * 0.08;
    charts[0].show(from - margin, to + margin);
    charts[0].root.scrollIntoView({
      block: "center"
    });
  });
})();
