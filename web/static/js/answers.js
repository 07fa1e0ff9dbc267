/* An answer takes nothing away that was tapped or typed while it was on its way: what has more to send stays as it is until that is
   answered, and so does a choice a finger is on. */
(() => {
  const waiting = new Set();
  let pressed = null;

  document.addEventListener("htmx:confirm", (event) => {
    if (event.detail.elt.matches("input, select, button, .chips")) waiting.add(event.detail.elt);
  });
  document.addEventListener("htmx:beforeRequest", (event) => waiting.delete(event.detail.elt));

  document.addEventListener("pointerdown", (event) => {
    pressed = event.target.closest("label, input, select");
  }, true);
  /* After the click that belongs to it. */
  for (const name of ["pointerup", "pointercancel"])
    document.addEventListener(name, () => setTimeout(() => {
      pressed = null;
    }), true);

  const typedOver = (field) => field?.matches("input[data-reading], textarea") && field.value !== field.defaultValue;
  const hasMore = (part, sent) => {
    for (const from of waiting)
      if (!from.isConnected) waiting.delete(from);
      else if (part.contains(from)) return true;
    const field = document.activeElement;
    return part.contains(pressed) || part.contains(field) && typedOver(field) && field.value !== sent?.[field.name];
  };

  document.addEventListener("htmx:beforeSwap", (event) => {
    if (hasMore(event.detail.target, event.detail.requestConfig.parameters)) event.detail.swapOverride = "none";
  });
  document.addEventListener("htmx:oobBeforeSwap", (event) => {
    if (hasMore(event.detail.target)) event.detail.shouldSwap = false;
  });
})();
