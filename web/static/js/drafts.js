/* Nothing typed is lost: what was typed and not yet stored is kept on the device, for this person, installation and call alone.
   It is sent again by itself while it is fresh; what lay longer is shown first, and sent or thrown away by hand. */
(() => {
  const ROOT = "kettle-draft:";
  const owner = document.body.dataset.drafts;
  const work = document.getElementById("work");
  const RETRY_MS = 10000;
  const FRESH_MS = 5 * 60 * 1000;

  const keys = () => Object.keys(localStorage).filter((key) => key.startsWith(ROOT));
  /* Drafts of an earlier form say neither whose nor how old they are: nobody's to send. */
  for (const key of keys())
    if (key.split(":").length !== 5) localStorage.removeItem(key);

  /* Leaving: one's own drafts go too, unless one keeps them on this device on purpose. */
  document.addEventListener("submit", (event) => {
    if (!event.target.matches("form[data-leaves]")) return;
    if (event.target.querySelector("[name=keep_drafts]")?.checked) return;
    for (const key of keys())
      if (key.startsWith(`${ROOT}${owner}:`)) localStorage.removeItem(key);
  });
  const kept = document.querySelector("[data-drafts-kept]");
  if (kept) kept.hidden = !keys().some((key) => key.startsWith(`${ROOT}${owner}:`));

  if (!owner || !work || !work.dataset.call) return;
  const PREFIX = `${ROOT}${owner}:${work.dataset.call}:`;
  const fields = () => [...work.querySelectorAll("[data-draft]")];
  const mark = (field, unsent) => field.closest(".reading, .look, .entry")?.classList.toggle("unsent", unsent);
  const read = (name) => {
    try {
      return JSON.parse(localStorage.getItem(PREFIX + name));
    } catch {
      return null;
    }
  };
  const drop = (name) => localStorage.removeItem(PREFIX + name);
  const isOld = (draft) => Date.now() - draft.at > FRESH_MS;

  document.addEventListener("input", (event) => {
    if (!event.target.matches("#work [data-draft]")) return;
    localStorage.setItem(PREFIX + event.target.name, JSON.stringify({
      value: event.target.value,
      at: Date.now()
    }));
  });

  /* Left as it was found: nothing to send. */
  document.addEventListener("focusout", (event) => {
    if (event.target.matches("#work [data-draft]") && event.target.value === event.target.defaultValue) drop(event.target.name);
  });

  /* The server answered for a key, stored or refused with a message: the draft has done its work, unless it was typed over meanwhile. */
  document.addEventListener("htmx:afterRequest", (event) => {
    const key = event.detail.requestConfig?.elt?.name;
    if (!key) return;
    if (event.detail.successful) {
      if (read(key)?.value === event.detail.requestConfig.parameters[key]) drop(key);
      showOld();
    } else mark(event.detail.requestConfig.elt, true);
  });

  const send = (field, draft) => {
    field.value = draft.value;
    mark(field, true);
    htmx.trigger(field, "change");
  };

  const sendAgain = () => {
    for (const field of fields()) {
      const draft = read(field.name);
      if (!draft || draft.value.trim() === "" || isOld(draft) || field === document.activeElement || field.disabled) continue;
      send(field, draft);
    }
    showOld();
  };

  /* What lay longer: said with when it was typed, and left to the person. */
  const bar = document.getElementById("old-drafts");

  function showOld() {
    if (!bar) return;
    const old = fields().map((field) => [field, read(field.name)]).filter(([, draft]) => draft && draft.value.trim() !== "" && isOld(
      draft));
    bar.hidden = old.length === 0;
    bar.querySelector("ul").replaceChildren(...old.map(([field, draft]) => {
      const row = document.createElement("li");
      const label = document.querySelector(`label[for="${field.id}"]`)?.textContent.trim() || field.name;
      const when = new Date(draft.at).toLocaleString([], {
        weekday: "short",
        hour: "2-digit",
        minute: "2-digit"
      });
      row.className = "line";
      row.append(`${label}: ${draft.value} (typed ${when}) `, button("Send", () => send(field, {
        value: draft.value
      })), button("Throw away", () => {
        drop(field.name);
        showOld();
      }));
      return row;
    }));
  }

  function button(words, act) {
    const made = document.createElement("button");
    made.type = "button";
    made.className = "btn";
    made.textContent = words;
    made.addEventListener("click", act);
    return made;
  }
  window.addEventListener("load", sendAgain);
  window.addEventListener("online", sendAgain);
  setInterval(sendAgain, RETRY_MS);
})();
