/* Behaviour of the frame: look switch, standing sheet, keys. No number is worked out here. */
document.addEventListener("alpine:init", () => {
  Alpine.data("look", () => ({
    flip() {
      const root = document.documentElement;
      const dark = matchMedia("(prefers-color-scheme: dark)").matches;
      const now = root.dataset.look || (dark ? "night" : "light");
      root.dataset.look = now === "night" ? "light" : "night";
      document.cookie = `look=${root.dataset.look}; path=/; max-age=31536000; SameSite=Lax`;
    },
  }));
  Alpine.data("help", () => ({
    show() {
      this.$refs.dialog.showModal();
    },
    hide() {
      this.$refs.dialog.close();
    },
  }));
});

/* What is chosen once for this device: contrast, and how large what is tapped is. */
document.addEventListener("click", (event) => {
  const button = event.target.closest("[data-chosen]");
  if (!button) return;
  const [name, value] = button.dataset.chosen.split(":");
  const on = document.documentElement.dataset[name] !== value;
  if (on) document.documentElement.dataset[name] = value;
  else delete document.documentElement.dataset[name];
  document.cookie = `${name}=${on ? value : ""}; path=/; max-age=${on ? 31536000 : 0}; SameSite=Lax`;
  button.setAttribute("aria-pressed", String(on));
});

/* The sheet is swapped often; being open is kept on the body so that it survives. */
document.addEventListener("click", (event) => {
  const handle = event.target.closest(".sheet-handle");
  if (!handle) return;
  const open = document.body.classList.toggle("sheet-open");
  markSheet(open);
});

function markSheet(open) {
  const sheet = document.getElementById("standing");
  if (!sheet) return;
  sheet.classList.toggle("open", open);
  sheet.querySelector(".sheet-handle").setAttribute("aria-expanded", String(open));
}

/* "Take it now": go to the entry field of the next check. */
document.addEventListener("click", (event) => {
  const link = event.target.closest("[data-focus]");
  if (!link) return;
  const target = document.querySelector(`#work [name="${link.dataset.focus}"], #work [data-key="${link.dataset.focus}"]`);
  if (!target) return;
  event.preventDefault();
  document.body.classList.remove("sheet-open");
  markSheet(false);
  target.scrollIntoView({
    block: "center"
  });
  target.focus();
});

/* The whole tag is the hit area of its field. */
document.addEventListener("click", (event) => {
  const tag = event.target.closest(".reading");
  if (tag && !event.target.closest("input, select, button")) tag.querySelector("input")?.focus();
});

/* While a reading is taken, a note says how it is taken, what spoils it and what is usual. */
function showHow(tag) {
  const how = document.getElementById("how");
  if (!how) return;
  how.hidden = !tag;
  how.textContent = tag ? tag.dataset.how : "";
  if (tag && matchMedia("(max-width: 899px)").matches) tag.after(how);
}
document.addEventListener("focusin", (event) => showHow(event.target.closest("[data-how]")));
document.addEventListener("focusout", (event) => {
  if (!event.relatedTarget?.closest?.("[data-how]")) showHow(null);
});

/* A file dropped on a form that takes one is the same as choosing it there. */
for (const form of document.querySelectorAll("form[data-drop]")) {
  const over = (event, on) => {
    event.preventDefault();
    form.classList.toggle("next", on);
  };
  form.addEventListener("dragover", (event) => over(event, true));
  form.addEventListener("dragleave", (event) => over(event, false));
  form.addEventListener("drop", (event) => {
    over(event, false);
    if (!event.dataTransfer.files.length) return;
    form.querySelector("input[type=file]").files = event.dataTransfer.files;
    form.requestSubmit();
  });
}

document.addEventListener("click", (event) => {
  if (event.target.closest("[data-print]")) window.print();
});

/* A match of what was typed, tapped: it goes into the field it belongs to. */
document.addEventListener("click", (event) => {
  const match = event.target.closest("[data-pick]");
  if (!match) return;
  const entry = match.closest(".entry");
  const field = entry.querySelector("input");
  field.value = match.dataset.pick;
  entry.querySelector(".matches").replaceChildren();
  field.dispatchEvent(new Event("change", {
    bubbles: true
  }));
  field.focus();
});

/* Enter where matches are shown takes the first; only then does it send the form. */
document.addEventListener("keydown", (event) => {
  if (event.key !== "Enter" || !event.target.matches(".entry input")) return;
  const first = event.target.closest(".entry").querySelector(".matches [data-pick]");
  if (!first || event.target.value.trim() === "") return;
  event.preventDefault();
  first.click();
});

/* What was wrong with a field is said until it is put right; its room stays, so that no button moves from under a finger. */
document.addEventListener("input", (event) => {
  const entry = event.target.closest(".entry");
  if (!entry || event.target.matches("[data-reading]")) return;
  for (const said of entry.querySelectorAll(".error")) said.style.visibility = "hidden";
  entry.classList.remove("wrong");
  event.target.removeAttribute("aria-invalid");
  event.target.removeAttribute("aria-describedby");
});

/* A choice that changes what the rest of its form asks for. */
document.addEventListener("change", (event) => {
  if (event.target.matches("select[data-send]")) {
    const value = event.target.form.elements.value;
    if (value) value.disabled = true;
    event.target.form.requestSubmit();
  }
});

/* What is sent is taken once: a fragment's key is its own until the answer came, and a lost answer is asked for again by the same key. */
const sending = new WeakMap();
document.addEventListener("htmx:configRequest", (event) => {
  if (event.detail.verb === "get") return;
  const from = event.detail.elt;
  if (!sending.has(from)) sending.set(from, crypto.getRandomValues(new Uint32Array(4)).join("-"));
  event.detail.headers["X-Once"] = sending.get(from);
});
document.addEventListener("htmx:afterRequest", (event) => {
  if (event.detail.successful) sending.delete(event.detail.requestConfig?.elt);
});

/* A button sleeps while what it sent is on its way; come back to by the browser's Back, it is awake. */
const SLEEP_MS = 8000;
const asleep = (form, sleeps) => {
  form.toggleAttribute("data-sleeps", sleeps);
  for (const button of form.querySelectorAll("button:not([type=button])")) button.disabled = sleeps;
};
for (const [name, sleeps] of [
    ["htmx:beforeRequest", true],
    ["htmx:afterRequest", false]
  ])
  document.addEventListener(name, (event) => {
    const from = event.detail.requestConfig?.elt || event.detail.elt;
    if (event.detail.requestConfig?.verb === "get") return;
    /* What a form sends by itself while it is filled in must not swallow the tap that keeps it. */
    const by = event.detail.requestConfig?.triggeringEvent?.type;
    if (from.matches("form") && (!by || by === "submit")) asleep(from, sleeps);
    else if (from.matches("button")) from.disabled = sleeps;
  });
document.addEventListener("submit", (event) => {
  const form = event.target;
  if (form.method !== "post" || form.target || event.defaultPrevented) return;
  if (form.hasAttribute("data-sleeps")) {
    event.preventDefault();
    return;
  }
  /* After this turn: a button that is disabled now would not be sent. */
  setTimeout(() => asleep(form, true));
  setTimeout(() => asleep(form, false), SLEEP_MS);
});
addEventListener("pageshow", () => {
  for (const form of document.querySelectorAll("form[data-sleeps]")) asleep(form, false);
});

/* Note it: what was kept leaves its field, what was typed meanwhile stays. */
document.addEventListener("htmx:configRequest", (event) => {
  if (event.target.closest(".note-it") && event.detail.verb === "post") document.getElementById("note-words").dataset.sent = event
    .detail.parameters.words;
});
document.addEventListener("noted", (event) => {
  const words = document.getElementById("note-words");
  const rest = event.detail?.rest ?? "";
  if (words && words.value === words.dataset.sent) words.value = rest;
  if (rest) sessionStorage.setItem(`note ${location.pathname}`, rest);
});
/* What was not kept of it stands in the field again once the page was made anew. */
{
  const words = document.getElementById("note-words");
  const rest = sessionStorage.getItem(`note ${location.pathname}`);
  sessionStorage.removeItem(`note ${location.pathname}`);
  if (words && rest) window.addEventListener("load", () => {
    words.value = rest;
    words.dispatchEvent(new Event("input", {
      bubbles: true
    }));
  });
}

/* A figure read again and found the same is a reading too: typed over and entered, it is sent though nothing changed. */
document.addEventListener("focusin", (event) => {
  if (event.target.matches("input[data-reading]")) event.target.dataset.stood = event.target.value;
});
document.addEventListener("input", (event) => {
  if (event.target.matches("input[data-reading]")) event.target.dataset.typed = "yes";
});
document.addEventListener("change", (event) => {
  if (event.target.matches("input[data-reading]")) delete event.target.dataset.typed;
});

/* Enter goes to the next reading, in the order a technician takes them. */
document.addEventListener("keydown", (event) => {
  if (event.key !== "Enter" || !event.target.matches("[data-reading]")) return;
  event.preventDefault();
  const field = event.target;
  if (field.dataset.typed && field.value && field.value === field.dataset.stood) field.dispatchEvent(new Event("change", {
    bubbles: true
  }));
  const fields = [...document.querySelectorAll("#work [data-reading]")];
  const next = fields[fields.indexOf(event.target) + 1];
  if (next) next.focus();
  else event.target.blur();
});

/* The ± key of a tag, for keypads without a minus: it changes the text, the server reads it. */
document.addEventListener("pointerdown", (event) => {
  const key = event.target.closest(".flip-sign");
  if (!key) return;
  event.preventDefault();
  const field = key.closest(".reading, .figure-entry").querySelector("input");
  field.value = field.value.startsWith("-") ? field.value.slice(1) : `-${field.value}`;
  field.dispatchEvent(new Event("input", {
    bubbles: true
  }));
});

/* Shortcuts: 1 to 9 stops, / find a unit, comma note it, n next reading, ? this list. */
document.addEventListener("keydown", (event) => {
  if (event.ctrlKey || event.metaKey || event.altKey || event.target.matches("input, select, textarea, dialog *")) return;
  const stop = document.querySelector(`.round a[data-number="${CSS.escape(event.key)}"]`);
  if (stop) {
    location.assign(stop.href);
    return;
  }
  if (event.key === "/") {
    const search = document.querySelector("[name=q]");
    if (search) {
      event.preventDefault();
      search.focus();
    } else location.assign("/?find");
  } else if (event.key === ",") {
    event.preventDefault();
    document.getElementById("note-words")?.focus();
  } else if (event.key === "n") {
    const next = document.querySelector("#work .reading.empty [data-reading]") || document.querySelector("#work [data-reading]");
    if (next) {
      event.preventDefault();
      next.focus();
    }
  } else if (event.key === "?") {
    document.querySelector("[data-help]")?.click();
  }
});
if (location.search === "?find") document.querySelector("[name=q]")?.focus();

document.addEventListener("htmx:afterSettle", () => markSheet(document.body.classList.contains("sheet-open")));

/* What will be wanted next is made ready; whoever goes on meanwhile misses nothing. */
{
  const ready = document.querySelector("[data-ready]")?.dataset.ready;
  if (ready) setTimeout(() => fetch(ready).catch(() => {}), 1000);
}

/* On a phone the round scrolls sideways: bring the stop on screen into sight. */
document.querySelector(".round [aria-current]")?.scrollIntoView({
  block: "nearest",
  inline: "center"
});

/* A reminder that is due is told by the browser too, where that is allowed; asked for when somebody wants to be reminded. */
const reminded = new Set();
document.addEventListener("reminder", (event) => {
  if (!("Notification" in window) || Notification.permission !== "granted") return;
  event.detail.words.filter((words) => !reminded.has(words)).forEach((words) => {
    reminded.add(words);
    new Notification("Orange Kettle", {
      body: words,
      tag: words
    });
  });
});
document.addEventListener("submit", (event) => {
  if (event.target.matches("[data-remind]") && "Notification" in window && Notification.permission === "default") {
    Notification.requestPermission();
  }
});
