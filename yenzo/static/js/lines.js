// The set-up: changes go one after another, opened forms outlive each other's answers, lines are moved by dragging or
// with Alt and the arrow keys. The server gives the new order.

import { takeAway } from "./kept.js";
import { announce, say } from "./page.js";

let dragged = null;

// A change that is made while another one is under way waits for it: it is of the draft that comes of that.
let isChanging = false, waiting = [];
const changes = ({ elt, verb, requestConfig }) => (verb ?? requestConfig?.verb) === "post" && Boolean(elt.closest?.("#setup"));

document.addEventListener("htmx:confirm", (event) => {
  const { elt } = event.detail;
  const address = elt.getAttribute?.("hx-post");
  if (!isChanging || !address || !changes(event.detail)) return;
  event.preventDefault();
  const selector = `[hx-post="${CSS.escape(address)}"]`;
  if (!waiting.includes(selector)) waiting.push(selector);
});
document.addEventListener("htmx:beforeRequest", ({ detail }) => { if (changes(detail)) isChanging = true; });
document.addEventListener("htmx:afterRequest", ({ detail }) => {
  if (!isChanging || detail.requestConfig?.verb !== "post" || detail.requestConfig.target?.closest("#try-out")) return;
  isChanging = false;
  if (!waiting.length) return;
  // What was refused may have been meant by what came after it.
  if (!detail.successful) {
    waiting = [];
    say(document.getElementById("draft").dataset.held);
    return;
  }
  let next = null;
  while (waiting.length && !next) next = document.querySelector(waiting.shift());
  if (next) setTimeout(() => (next.matches("form") ? next.requestSubmit() : next.click()), 0);
});

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

function move(line, position) {
  const last = document.querySelectorAll("#sentences [data-line]").length - 1;
  if (position < 0 || position > last || position === Number(line.dataset.position)) return;
  const values = { position, seen: document.getElementById("draft").dataset.version };
  htmx.ajax("POST", line.dataset.moveAddress, { target: "#setup", swap: "innerHTML", values });
}

document.addEventListener("keydown", (event) => {
  const line = event.target.closest?.("#sentences [data-line]");
  if (!line || !event.altKey) return;
  const step = { ArrowUp: -1, ArrowDown: 1 }[event.key];
  if (!step) return;
  event.preventDefault();
  move(line, Number(line.dataset.position) + step);
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
    move(dragged, Number(over.dataset.position));
  }
  dragged = null;
});
document.addEventListener("dragend", () => { dragged = null; });
