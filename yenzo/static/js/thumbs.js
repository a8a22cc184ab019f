// Small pictures of the sides: copies of the ink, made anew once the page has time. What merely refers to the ink would
// be laid out anew at once, with each key and each move of a hand.

import { whenIdle } from "./idle.js";

const SVG = "http://www.w3.org/2000/svg", AT_LATEST_MS = 400, PLACE = "g[id]";
// Of each place in the ink, whose content comes alone, its copy.
const copies = new WeakMap(), stale = new Set();
let isAwaited = false;

function copy(source) {
  const made = source.cloneNode(true), copied = made.querySelectorAll(PLACE);
  for (const [at, place] of source.querySelectorAll(PLACE).entries()) copies.set(place, copied[at]);
  for (const one of made.querySelectorAll("*")) {
    // Its clips and gradients are found under the same names where they were copied from, and their copies here.
    const isNamed = one.matches("clipPath, linearGradient");
    for (const { name } of [...one.attributes]) if (name.startsWith("data-") || (name === "id" && !isNamed)) one.removeAttribute(name);
  }
  copies.get(source).replaceChildren(...made.childNodes);
}

function copyStale() {
  isAwaited = false;
  if (document.querySelector(".is-dragged")) {
    copyLater();
    return;
  }
  for (const place of stale) if (place.isConnected && copies.get(place)?.isConnected) copy(place);
  stale.clear();
}

function copyLater() {
  if (isAwaited) return;
  isAwaited = true;
  whenIdle(copyStale, AT_LATEST_MS);
}

function follow(use) {
  const source = document.querySelector(use.getAttribute("href"));
  const group = document.createElementNS(SVG, "g");
  copies.set(source, group);
  copy(source);
  use.replaceWith(group);
  new MutationObserver((records) => {
    for (const { target } of records) stale.add(target.closest(PLACE));
    // What was changed in something that was replaced since has no place any more.
    stale.delete(null);
    copyLater();
  }).observe(source, { childList: true, subtree: true });
}

const followAll = () => { for (const use of document.querySelectorAll(".thumb use")) follow(use); };
followAll();
document.addEventListener("htmx:afterSettle", followAll);
