/* Nothing typed is lost: what was typed and not yet stored is kept on the device and sent again. */
(() => {
  const work = document.getElementById("work");
  if (!work || !work.dataset.call) return;
  const PREFIX = `kettle-draft:${work.dataset.call}:`;
  const RETRY_MS = 10000;
  const fields = () => [...work.querySelectorAll("[data-draft]")];
  const mark = (field, unsent) => field.closest(".reading, .look, .entry")?.classList.toggle("unsent", unsent);

  document.addEventListener("input", (event) => {
    if (event.target.matches("#work [data-draft]")) localStorage.setItem(PREFIX + event.target.name, event.target.value);
  });

  /* Left as it was found: nothing to send. */
  document.addEventListener("focusout", (event) => {
    if (event.target.matches("#work [data-draft]") && event.target.value === event.target.defaultValue) {
      localStorage.removeItem(PREFIX + event.target.name);
    }
  });

  /* The server answered for a key, stored or refused with a message: the draft has done its work. */
  document.addEventListener("htmx:afterRequest", (event) => {
    const key = event.detail.requestConfig?.elt?.name;
    if (!key) return;
    if (event.detail.successful) localStorage.removeItem(PREFIX + key);
    else mark(event.detail.requestConfig.elt, true);
  });

  const sendAgain = () => {
    for (const field of fields()) {
      const draft = localStorage.getItem(PREFIX + field.name);
      if (draft === null || draft.trim() === "" || field === document.activeElement) continue;
      field.value = draft;
      mark(field, true);
      htmx.trigger(field, "change");
    }
  };
  window.addEventListener("load", sendAgain);
  window.addEventListener("online", sendAgain);
  setInterval(sendAgain, RETRY_MS);
})();
