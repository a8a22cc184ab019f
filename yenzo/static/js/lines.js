// The set-up: changes go one after another, opened forms outlive each other's answers, lines are moved by dragging or
// with Alt and the arrow keys. The server gives the new order.

import { post } from "./changing.js";
import { takeAway } from "./kept.js";
import { announce } from "./page.js";

let dragged = null;

// What the try-out shows goes along with a form that keeps it.
document.addEventListener("htmx:configRequest", ({ detail }) => {
  for (const { name, dataset } of detail.elt.querySelectorAll?.("[data-from-try-out]") ?? []) {
    detail.parameters.set(name, document.querySelector(`#try-out [name="${CSS.escape(dataset.fromTryOut)}"]`)?.value ?? "");
  }
});

// Several values may be open at once: saving one leaves the others as they are, with what was typed into them.
let kept = [];
document.addEventListener("htmx:beforeSwap", ({ detail }) => {
  if (detail.target.id !== "setup" || !detail.shouldSwap) return;
  const others = [...document.querySelectorAll("#setup .opened > .open-form")].filter((form) => form !== detail.requestConfig.elt);
  kept = others.map((form) => ({ form, place: form.parentElement.id }));
  for (const { form } of kept) takeAway(form);
});
document.addEventListener("htmx:afterSwap", ({ detail }) => {
  if (detail.target.id !== "setup") return;
  for (const { form, place } of kept) document.getElementById(place)?.append(form);
  kept = [];
});

// However much is laid out anew, the focus stays where the work was: on the same control, else on what is next to it.
const CAN_FOCUS = "button:not([disabled]), a[href], input:not([type=hidden], [disabled]), select, textarea, summary, [tabindex]";
let workedOn = [], isElsewhere = false;

function around(element) {
  const ids = [];
  for (let at = element; at && at.id !== "draft"; at = at.parentElement) if (at.id && at.id !== "sentences") ids.push(at.id);
  if (element.dataset?.else) ids.splice(1, 0, element.dataset.else);
  const row = element.closest("[data-line], [data-section]");
  for (const next of [row?.nextElementSibling, row?.previousElementSibling]) {
    const first = next?.querySelector("[id]");
    if (first) ids.push(first.id);
  }
  return ids;
}

function focusOn(ids) {
  for (const id of ids) {
    const found = document.getElementById(id);
    const target = found?.matches(CAN_FOCUS) ? found : found?.querySelector(CAN_FOCUS);
    if (!target) continue;
    target.focus();
    if (document.activeElement === target) return;
  }
  document.querySelector(".setup-said, .strip .plain-button, #sentences .value")?.focus();
}

document.addEventListener("htmx:beforeSwap", ({ detail }) => {
  if (detail.target.id !== "setup" || !detail.shouldSwap) return;
  const sender = detail.requestConfig.elt, focused = document.activeElement;
  const active = focused.closest("#setup") ? focused : sender;
  // Whoever has gone on to something else meanwhile stays there.
  const own = sender === document.body ? document.getElementById("bench") : sender;
  isElsewhere = Boolean(focused.closest("#setup, #try-out")) && !own?.contains(focused);
  // A question stands between a click and what comes of it.
  if (active.closest("#setup") && !active.closest(".question")) workedOn = around(active);
  const picked = document.querySelector("#bench .is-selected");
  if (picked && !workedOn.includes(picked.id)) workedOn.push(picked.id);
});
document.addEventListener("htmx:afterSwap", ({ detail }) => {
  if (detail.target.id !== "setup") return;
  const { refocus, done } = document.getElementById("draft").dataset;
  const asked = document.querySelector(".question [data-takes-focus]");
  if (asked) asked.focus();
  else if (!isElsewhere) focusOn(refocus ? [refocus, ...workedOn] : workedOn);
  else if (!document.activeElement.closest("#setup, #try-out")) focusOn(workedOn);
  if (done) announce(done);
});

// Where it goes is told when it is sent: what was moved before it may have changed that.
function move({ dataset: { line: key, moveAddress } }, positionOf) {
  post(moveAddress, () => {
    const lines = [...document.querySelectorAll("#sentences [data-line]")], now = lines.findIndex((one) => one.dataset.line === key);
    const position = positionOf(lines, now);
    return lines[position] && position !== now && { position };
  });
}

document.addEventListener("keydown", (event) => {
  const line = event.target.closest?.("#sentences [data-line]");
  if (!line || !event.altKey) return;
  const step = { ArrowUp: -1, ArrowDown: 1 }[event.key];
  if (!step) return;
  event.preventDefault();
  move(line, (lines, now) => now + step);
});

document.addEventListener("dragstart", (event) => {
  dragged = event.target.closest?.(".grip")?.closest("[data-line]") ?? null;
  if (dragged) {
    event.dataTransfer.effectAllowed = "move";
    event.dataTransfer.setDragImage(dragged, 20, 20);
  }
});
document.addEventListener("dragover", (event) => {
  const over = event.target.closest?.("#sentences [data-line]");
  if (!dragged || !over) return;
  event.preventDefault();
  for (const line of document.querySelectorAll("#sentences .is-over")) line.classList.remove("is-over");
  over.classList.add("is-over");
});
document.addEventListener("drop", (event) => {
  const over = event.target.closest?.("#sentences [data-line]");
  if (dragged && over) {
    event.preventDefault();
    const { line: there } = over.dataset;
    move(dragged, (lines) => lines.findIndex((one) => one.dataset.line === there));
  }
  dragged = null;
});
document.addEventListener("dragend", () => { dragged = null; });
