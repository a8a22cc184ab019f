// What every page does: says what went wrong and what was done, blocks second clicks, listens to a few keys.

import { forget, takeAway } from "./kept.js";
import { isSure, sendWhenReached } from "./line.js";
import { browser } from "./memory.js";

const trouble = document.getElementById("trouble");

// What went wrong stays until it is closed, or until the next thing goes well.
export function say(words) {
  if (!trouble.hidden && trouble.firstElementChild.textContent === words) return;
  trouble.firstElementChild.textContent = words;
  trouble.hidden = false;
}
document.addEventListener("click", ({ target }) => { if (target.closest?.("[data-close-trouble]")) trouble.hidden = true; });
document.addEventListener("htmx:afterRequest", ({ detail }) => { if (detail.successful) trouble.hidden = true; });

// What was done is told once, to whoever doesn't see it.
export function announce(words) {
  document.getElementById("announced").textContent = words;
}

document.addEventListener("htmx:responseError", ({ detail: { xhr } }) => {
  const isWords = (xhr.getResponseHeader("Content-Type") || "").startsWith("text/plain");
  say(isWords ? xhr.responseText : trouble.dataset.failed);
});
for (const name of ["htmx:sendError", "htmx:timeout"]) document.addEventListener(name, () => say(trouble.dataset.unreachable));

document.addEventListener("htmx:afterSettle", ({ detail: { elt } }) => {
  // One that was open before, and stays, keeps the focus that it has or hasn't.
  const opened = elt.matches(".open-form") ? elt : elt.matches(".opened") ? elt.querySelector(".open-form") : null;
  const first = opened?.querySelector("[aria-invalid=true]") ?? opened?.querySelector("input:not([type=hidden]), select, textarea, button");
  first?.focus();
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
  const isTyping = event.target.closest?.("input, textarea, select, [contenteditable], dialog[open]");
  if (isTyping || event.ctrlKey || event.metaKey || event.altKey || !singleKeys()) return;
  const search = document.getElementById("search"), keys = document.getElementById("keys");
  if (event.key === "/" && search) { event.preventDefault(); search.focus(); }
  if (event.key === "?" && keys) { event.preventDefault(); keys.showModal(); }
});

// Keys that are pressed alone can be switched off: who speaks to a browser, or trembles, presses them unmeant.
const SWITCH = "single keys";
const singleKeys = () => browser.recall(SWITCH) !== false;
const keysSwitch = document.getElementById("single-keys");
if (keysSwitch) {
  keysSwitch.checked = singleKeys();
  keysSwitch.addEventListener("change", () => browser.remember(SWITCH, keysSwitch.checked));
}
document.addEventListener("click", ({ target }) => {
  const named = target.closest?.("[data-opens]");
  if (named) document.getElementById(named.dataset.opens).showModal();
});

// A form that is on its way isn't sent a second time. Coming back to the page by the history frees it.
function free(form) {
  delete form.dataset.sent;
  for (const button of form.querySelectorAll("[data-pressed]")) delete button.dataset.pressed;
}
document.addEventListener("submit", (event) => {
  const form = event.target;
  if (form.hasAttribute("hx-post") && !form.hasAttribute("action")) return;
  if (form.dataset.reached) {
    delete form.dataset.reached;
    return;
  }
  if (form.dataset.sent) event.preventDefault();
  if (event.defaultPrevented) return;
  form.dataset.sent = "yes";
  if (event.submitter) event.submitter.dataset.pressed = "yes";
  if (!form.matches("[data-waits-for-line]") || isSure()) return;
  event.preventDefault();
  sendWhenReached(form, event.submitter, () => free(form));
});
window.addEventListener("pageshow", () => {
  for (const form of document.querySelectorAll("form[data-sent]")) free(form);
});

// What is wrong is named together, with a way to each of it: whoever sent it begins there.
document.querySelector(".summary")?.focus();

// What is folded on the screen is wanted on paper.
let folded = [];
window.addEventListener("beforeprint", () => {
  folded = [...document.querySelectorAll("main details:not([open])")];
  for (const one of folded) one.open = true;
});
window.addEventListener("afterprint", () => { for (const one of folded) one.open = false; });
