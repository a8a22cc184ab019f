// What somebody typed outlives every answer: none puts an older value over a newer one, in any form of any page.

import { tab } from "./memory.js";

const NOT_TYPED = "[type=hidden], [type=file], [type=submit], [type=button]";
// By form and name: the newest value, and the number of the request that sent it first (none yet: 0).
const typed = new Map();
const numbers = new WeakMap();
let count = 0, answering = 0;

const identity = (form) => form?.getAttribute("id") || form?.getAttribute("hx-post") || form?.getAttribute("action") || "";
const isTick = (control) => control.type === "checkbox";

function keyOf(control) {
  const form = control.closest("form");
  if (!form || !control.name || control.matches(NOT_TYPED)) return null;
  return JSON.stringify([identity(form), control.name, isTick(control) ? control.value : ""]);
}

for (const name of ["input", "change"]) {
  document.addEventListener(name, ({ target }) => {
    if (!target.matches?.("input, textarea, select")) return;
    const key = keyOf(target);
    const value = isTick(target) ? target.checked : target.value;
    if (key && typed.get(key)?.value !== value) typed.set(key, { value, sent: 0 });
  }, { capture: true });
}

document.addEventListener("htmx:beforeRequest", ({ detail }) => {
  numbers.set(detail.xhr, ++count);
  const form = detail.elt.closest("form");
  if (!form || ![...typed.values()].some((entry) => !entry.sent)) return;
  for (const control of form.querySelectorAll("[name]")) {
    const entry = typed.get(keyOf(control));
    if (entry && !entry.sent) entry.sent = count;
  }
});
document.addEventListener("htmx:beforeOnLoad", ({ detail }) => { answering = numbers.get(detail.xhr) ?? count; });

// A form's own field may be called "remove", and then that is what `form.remove` gives.
export const takeAway = (form) => Element.prototype.remove.call(form);

// Whoever leaves a form as it was doesn't find in it later what they thought better of.
export function forget(form) {
  const own = JSON.stringify([identity(form)]).slice(0, -1);
  for (const key of typed.keys()) if (key.startsWith(`${own},`)) typed.delete(key);
}

function put(control, value) {
  if (control.type === "radio") {
    if (control.value !== value || control.checked) return false;
    control.checked = true;
  } else if (isTick(control)) {
    if (control.checked === value) return false;
    control.checked = value;
  } else {
    if (control.value === value) return false;
    const before = control.value;
    control.value = value;
    // A list may no longer have it.
    if (control.matches("select") && control.value !== value) control.value = before;
    if (control.value === before) return false;
  }
  return true;
}

function restore() {
  for (const [key, { value, sent }] of typed) {
    if (sent && sent <= answering) continue;
    const [form, name, tick] = JSON.parse(key);
    for (const control of document.getElementsByName(name)) {
      if (control.matches(NOT_TYPED) || identity(control.closest("form")) !== form) continue;
      if (isTick(control) && control.value !== tick) continue;
      if (!put(control, value)) continue;
      // It goes with the form's next request, or when its control is left.
      control.closest("form").dispatchEvent(new Event("entries-changed"));
      const leave = () => control.dispatchEvent(new Event("change", { bubbles: true }));
      if (control === document.activeElement) control.addEventListener("blur", leave, { once: true });
    }
  }
}
for (const name of ["htmx:oobAfterSwap", "htmx:afterSwap", "htmx:afterSettle"]) document.addEventListener(name, restore);

// A form that the workshop keeps nothing of comes back from this tab's memory, until what it was for is done.
const MIRRORED = "input:not([type=hidden], [type=password], [type=file]), textarea, select";
const placeOf = (form) => `form ${form.dataset.mirror}`;

function mirrored(form) {
  return [...form.querySelectorAll(MIRRORED)].filter((control) => control.name);
}
for (const form of document.querySelectorAll("form[data-mirror]")) {
  const before = tab.recall(placeOf(form)) ?? {};
  for (const control of mirrored(form)) if (control.name in before) put(control, before[control.name]);
  form.addEventListener("input", () => {
    const values = mirrored(form).filter((one) => one.type !== "radio" || one.checked).map((one) => [one.name, isTick(one) ? one.checked : one.value]);
    tab.remember(placeOf(form), Object.fromEntries(values));
  });
}
for (const { dataset } of document.querySelectorAll("[data-done-with]")) tab.forget(`form ${dataset.doneWith}`);
