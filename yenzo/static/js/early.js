// What is entered and pressed before a page's scripts have come is heard once they have. No module, as those come late
// themselves: it is there before anything shows.
{
  const early = [];
  // Without scripts such a form would be sent to nowhere.
  const needsScripts = (form) => form.matches("[hx-post]:not([action])");

  const hear = (event) => {
    const { type, target, submitter } = event;
    if (type === "submit") {
      if (!needsScripts(target)) return;
      event.preventDefault();
      early.push(() => target.requestSubmit(submitter));
    } else if (type === "click") {
      const button = target.closest("button");
      if (button?.type === "button") early.push(() => button.click());
    } else {
      early.push(() => target.dispatchEvent(new Event(type, { bubbles: true })));
    }
  };
  const kinds = ["input", "change", "click", "submit"];
  for (const kind of kinds) document.addEventListener(kind, hear, { capture: true });
  document.addEventListener("DOMContentLoaded", () => {
    for (const kind of kinds) document.removeEventListener(kind, hear, { capture: true });
    // All that waits for the page, as this does, comes first.
    setTimeout(() => { for (const again of early) again(); });
  });
}
