// What every page does: says what went wrong, keeps the focus, blocks second clicks, listens to two shortcuts.

import { forget, takeAway } from "./kept.js";

const trouble = document.getElementById("trouble");

export function say(words) {
  trouble.textContent = words;
  trouble.hidden = false;
  clearTimeout(say.timer);
  say.timer = setTimeout(() => { trouble.hidden = true; }, 8000);
}

document.addEventListener("htmx:responseError", ({ detail: { xhr } }) => {
  const isWords = (xhr.getResponseHeader("Content-Type") || "").startsWith("text/plain");
  say(isWords ? xhr.responseText : trouble.dataset.failed);
});
document.addEventListener("htmx:sendError", () => {
  say(trouble.dataset.unreachable);
});

document.addEventListener("htmx:afterSettle", ({ detail: { elt } }) => {
  const wanted = document.getElementById("draft")?.dataset.refocus;
  if (elt.id === "draft" && wanted) document.getElementById(wanted)?.focus();
  // One that was open before, and stays, keeps the focus that it has or hasn't.
  const opened = elt.matches(".open-form") ? elt : elt.matches(".opened") ? elt.querySelector(".open-form") : null;
  opened?.querySelector("input:not([type=hidden]), select, textarea, button")?.focus();
});

// Answers may overtake each other: one that tells of an older draft than the page shows is passed over.
document.addEventListener("htmx:beforeSwap", ({ detail }) => {
  const told = detail.xhr.getResponseHeader("Draft-Version");
  const shown = document.getElementById("draft")?.dataset.version;
  if (told && Number(told) < Number(shown)) detail.shouldSwap = false;
});

// The set-up is laid out anew with every change; whoever works far below stays there.
let workedAt = 0;
document.addEventListener("htmx:beforeSwap", ({ detail: { target } }) => {
  if (target.id === "setup") workedAt = target.querySelector(".setup-work")?.scrollTop ?? 0;
});
document.addEventListener("htmx:afterSwap", ({ detail: { target } }) => {
  const work = target.id === "setup" && target.querySelector(".setup-work");
  if (work) work.scrollTop = workedAt;
});

// A part that keeps itself in place may do so only while it is still the one that asked.
document.addEventListener("htmx:beforeSwap", ({ detail }) => {
  if (!detail.requestConfig.elt.isConnected) {
    detail.serverResponse = detail.serverResponse.replace('hx-preserve="true"', "");
  }
});

// Whoever had just come into a number finds it picked whole again, as the keyboard left it.
document.addEventListener("htmx:afterSettle", () => {
  const entered = document.activeElement;
  if (entered.matches(".strip-form input") && entered.value === entered.defaultValue) entered.select();
});

// A form that opened in place closes again on Escape or by its own button; the focus goes back to what opened it.
function closeForm(form) {
  const opener = document.getElementById(form.dataset.opener);
  forget(form);
  takeAway(form);
  opener?.focus();
}
document.addEventListener("click", ({ target }) => {
  if (target.closest?.("[data-close-form]")) closeForm(target.closest("form"));
});

document.addEventListener("keydown", (event) => {
  const opened = event.target.closest?.(".open-form");
  if (event.key === "Escape" && opened) {
    event.preventDefault();
    closeForm(opened);
  }
  if (event.key === "Enter" && (event.ctrlKey || event.metaKey)) {
    const action = document.querySelector("[data-main-action]:not([disabled])");
    if (action) { event.preventDefault(); action.click(); }
  }
  const isTyping = event.target.closest?.("input, textarea, select, [contenteditable]");
  if (event.key === "/" && !isTyping) {
    const search = document.getElementById("search");
    if (search) { event.preventDefault(); search.focus(); }
  }
});

// A form that is on its way isn't sent a second time. Coming back to the page by the history frees it.
document.addEventListener("submit", (event) => {
  const form = event.target;
  if (form.hasAttribute("hx-post") && !form.hasAttribute("action")) return;
  if (form.dataset.sent) event.preventDefault();
  form.dataset.sent = "yes";
  if (event.submitter) event.submitter.dataset.pressed = "yes";
});
window.addEventListener("pageshow", () => {
  for (const form of document.querySelectorAll("form[data-sent]")) {
    delete form.dataset.sent;
    for (const button of form.querySelectorAll("[data-pressed]")) delete button.dataset.pressed;
  }
});

// What is missing is named together; the first of it is where the customer goes on.
const summary = document.querySelector("[data-focus-first]");
if (summary) {
  const line = document.querySelector(summary.querySelector("a[href^='#line-']")?.getAttribute("href") ?? "#nothing");
  (line?.querySelector("input:not([type=hidden]), textarea, select, button") ?? summary.querySelector(".summary"))?.focus();
}
