// Changes of a draft, whether the hand makes them or a button: one after another, each of the draft that comes of the one
// before.

import { ask, isBusy, isSentAgain, takeTurn } from "./asking.js";
import { say } from "./page.js";

const LAID_OUT = { target: "#setup", swap: "innerHTML" };
const draft = () => document.getElementById("draft");

// --- By hand ---------------------------------------------------------------------------------------------------------

// What waits for its turn, by what it changes: where something was put twice, the newest counts.
const waiting = new Map();

// What `values` tells is told when it is sent: what came before may change it, or leave nothing to change.
export async function post(address, values, { selected = "", puts = null, shown = () => {} } = {}) {
  const key = puts === null ? Symbol(address) : `${address} ${puts}`, isWaiting = waiting.has(key);
  waiting.set(key, { values, selected, shown });
  if (isWaiting) return;
  await ask("POST", address, () => {
    const sent = waiting.get(key), told = sent.values();
    waiting.delete(key);
    return told && { ...LAID_OUT, values: { seen: draft().dataset.version, selected: sent.selected, ...told } };
  });
  // The hand may be further by now than the answer that was just shown.
  for (const one of waiting.values()) one.shown();
}

export const layOut = (address) => ask("GET", address, () => LAID_OUT);

// --- By buttons and forms ---------------------------------------------------------------------------------------------

let isItsTurn = false, answered = null, refused = 0;
const held = new Set();
const isChange = ({ elt, verb, requestConfig }) => (verb ?? requestConfig?.verb) === "post" && Boolean(elt.closest?.("#setup"));

document.addEventListener("htmx:confirm", (event) => {
  const { elt } = event.detail, address = elt.getAttribute?.("hx-post");
  if (!isBusy() || isItsTurn || !address || !isChange(event.detail)) return;
  event.preventDefault();
  const selector = `[hx-post="${CSS.escape(address)}"]`, refusedThen = refused;
  // Pressed twice, most is meant once; going back by steps is meant as often as it is pressed.
  if (held.has(selector) && !elt.matches("[data-each-press]")) return;
  held.add(selector);
  takeTurn(() => {
    held.delete(selector);
    const now = document.querySelector(selector);
    // What was refused may have been meant by what came after it.
    if (!now || refused !== refusedThen) return null;
    answered = null;
    isItsTurn = true;
    if (now.matches("form")) now.requestSubmit();
    else now.click();
    isItsTurn = false;
    return answered;
  });
});
const ofDraft = new WeakSet();
document.addEventListener("htmx:beforeRequest", ({ detail }) => {
  const { elt, target, xhr } = detail, isByHand = elt === document.body && target.id === "setup";
  if (isByHand || isChange(detail)) ofDraft.add(xhr);
  if (isByHand || !isChange(detail)) return;
  const own = new Promise((done) => { xhr.addEventListener("loadend", () => setTimeout(done)); });
  if (isItsTurn) answered = own;
  else takeTurn(() => own);
});
document.addEventListener("htmx:afterRequest", ({ detail: { elt, xhr } }) => {
  const isRefused = ofDraft.has(xhr) && (xhr.status < 200 || xhr.status >= 400);
  if (!isRefused || (elt === document.body && isSentAgain(xhr.status))) return;
  refused += 1;
  if (held.size) say(draft().dataset.held);
});
