// The slip: which side is in view, goods' pictures of variants, what is not up to date. Python decides all the rest.

import { isBehind } from "./line.js";
import { announce } from "./page.js";
import { followParts } from "./parts.js";
import "./thumbs.js";
import { goOnWaiting } from "./uploads.js";

const AGAIN_AFTER_MS = 1500, BEHIND_AFTER_MS = 800, SAY_AFTER_MS = 1500;
const CONTROL = ":is(input:not([type=hidden]), textarea, select)";
let isTurning = false;
const formOf = (element) => element.closest("form");

function showSide(form, key) {
  for (const goods of form.querySelectorAll("figure[data-side]")) goods.hidden = goods.dataset.side !== key;
  for (const thumb of form.querySelectorAll("[data-show-side]")) {
    thumb.setAttribute("aria-pressed", String(thumb.dataset.showSide === key));
  }
  showLarge(form);
}

function sideInView(form) {
  return form.querySelector("figure[data-side]:not([hidden])")?.dataset.side ?? "";
}

document.addEventListener("click", ({ target }) => {
  const thumb = target.closest?.("[data-show-side]");
  if (thumb) showSide(formOf(thumb), thumb.dataset.showSide);
  const turn = target.closest?.("[data-go]");
  if (turn) {
    // It goes with the form's next request, whichever that is: a request of its own could be overtaken and lost.
    formOf(turn).go = turn.dataset.go;
    formOf(turn).dispatchEvent(new Event("entries-changed"));
  }
});

// Answers to questions: what is right so goes with the form from now on; a mend is typed as if by hand.
document.addEventListener("click", (event) => {
  const button = event.target.closest?.("#slip-form [data-means], #slip-form [data-takes], #try-out [data-means], #try-out [data-takes]");
  if (!button) return;
  event.preventDefault();
  const form = formOf(button), { means, takes } = button.dataset;
  if (means) {
    form.querySelector("[data-meant]").append(Object.assign(document.createElement("input"), { type: "hidden", name: "means", value: means }));
    form.dispatchEvent(new Event("entries-changed"));
    return;
  }
  const [field, item, text] = JSON.parse(takes);
  const box = form.querySelector(item ? `[data-own-text="${CSS.escape(`${field}--${item}`)}"]` : `#entry-${CSS.escape(field)}`);
  box.value = text;
  box.focus();
  box.dispatchEvent(new Event("input", { bubbles: true }));
}, { capture: true });

// The enter key shows what is typed, which it does by itself.
document.addEventListener("submit", (event) => {
  if (!event.submitter?.matches("[data-enter]")) return;
  event.preventDefault();
  event.stopImmediatePropagation();
}, { capture: true });

// Whoever begins to type sees the side that it goes on.
document.addEventListener("focusin", ({ target }) => {
  const side = target.closest?.(".line[data-goes-to]")?.dataset.goesTo;
  if (side && formOf(target)?.querySelector(`figure[data-side="${side}"][hidden]`)) showSide(formOf(target), side);
});

document.addEventListener("htmx:configRequest", ({ detail }) => {
  const form = detail.elt;
  if (!form.matches("#slip-form, #try-out")) return;
  detail.parameters.set("view", sideInView(form));
  if (form.go === undefined) return;
  detail.parameters.set("go", form.go);
  isTurning = true;
  delete form.go;
});

// Until an answer is there, price and picture are those of before: whoever waits is told.
const isSlip = (element) => element.matches?.("#slip-form, #try-out");
document.addEventListener("htmx:beforeRequest", ({ detail }) => { if (isSlip(detail.elt)) isBehind(detail.elt, true, BEHIND_AFTER_MS); });
document.addEventListener("htmx:afterRequest", ({ detail }) => { if (isSlip(detail.elt)) isBehind(detail.elt, !detail.successful); });

// What was typed is never left without its answer: a refresh that fails or hangs is asked for again.
for (const failure of ["htmx:sendError", "htmx:timeout", "htmx:responseError"]) {
  document.addEventListener(failure, ({ detail }) => {
    const form = detail.elt;
    if (!form.matches("#slip-form, #try-out")) return;
    clearTimeout(form.again);
    form.again = setTimeout(() => form.dispatchEvent(new Event("entries-changed")), AGAIN_AFTER_MS);
  });
}

// An answer that lays the form out anew knows nothing of what was done there since it was asked for, nor of what the
// hand is doing: then it is asked for once more, with all of it.
const changes = new WeakMap(), changesWhenAsked = new WeakMap();
for (const name of ["input", "change", "entries-changed", "file-arrived"]) {
  document.addEventListener(name, ({ target }) => {
    const form = target.closest?.("#try-out");
    if (form) changes.set(form, (changes.get(form) ?? 0) + 1);
  }, { capture: true });
}
document.addEventListener("htmx:beforeRequest", ({ detail: { xhr, target } }) => { changesWhenAsked.set(xhr, changes.get(target)); });
document.addEventListener("htmx:beforeSwap", ({ detail }) => {
  const { xhr, target, requestConfig: { elt, triggeringEvent } } = detail;
  if (elt === target || !target.matches("#try-out")) return;
  const isHeld = target.querySelector(".is-dragged"), askAgain = () => htmx.trigger(elt, triggeringEvent.type);
  if (!isHeld && changesWhenAsked.get(xhr) === changes.get(target)) return;
  detail.shouldSwap = false;
  if (isHeld) document.addEventListener("lostpointercapture", askAgain, { once: true });
  else askAgain();
});

// The ink says which picture of the goods it belongs on, and how large they are: a variant may bring its own, and an
// entry may say it.
followParts((place) => {
  const ink = place.querySelector("[data-ink]");
  if (!ink) return;
  for (const image of document.querySelectorAll(`[data-goods="${ink.dataset.ink}"]`)) {
    const address = image.dataset.isSmall === undefined ? ink.dataset.picture : ink.dataset.small;
    if (image.getAttribute("href") !== address) image.setAttribute("href", address);
    const [width, height] = ink.dataset.size.split(" ");
    if (image.getAttribute("width") === width && image.getAttribute("height") === height) continue;
    image.setAttribute("width", width);
    image.setAttribute("height", height);
    image.closest("svg").setAttribute("viewBox", `0 0 ${width} ${height}`);
  }
});

// How high the pinned parts are, so that the focus keeps clear of them; none where they aren't pinned.
const pinned = { "--pinned-top": ".product .stage", "--pinned-bottom": ".product .slip-foot" };
function tellPinned() {
  const isWide = matchMedia("(min-width: 1000px)").matches;
  for (const [name, selector] of Object.entries(pinned)) {
    const part = document.querySelector(selector);
    const isPinned = part && getComputedStyle(part).position === "sticky" && !(isWide && name === "--pinned-top");
    document.documentElement.style.setProperty(name, `${isPinned ? Math.ceil(part.getBoundingClientRect().height) : 0}px`);
  }
}
if (document.querySelector(".product")) {
  const watcher = new ResizeObserver(tellPinned);
  for (const selector of Object.values(pinned)) watcher.observe(document.querySelector(selector));
  // A keyboard on the screen leaves less room than before.
  window.addEventListener("resize", () => {
    tellPinned();
    if (document.activeElement.closest(".product-slip")) document.activeElement.scrollIntoView({ block: "nearest" });
  });
  tellPinned();
}

// The small picture of the goods is there first, and the large ones of other sides last. Once a large one is there, the
// small one's soft edge would show round it.
function showLarge(form) {
  for (const image of form.querySelectorAll("image[data-is-large]:not([data-awaited])")) {
    const { later } = image.dataset;
    if (later && document.readyState !== "complete" && image.closest("figure").hidden) continue;
    image.dataset.awaited = "yes";
    if (later && !image.hasAttribute("href")) image.setAttribute("href", later);
    const large = new Image();
    large.src = image.getAttribute("href");
    large.decode().then(() => image.previousElementSibling.setAttribute("visibility", "hidden"), () => {});
  }
}
const showAllLarge = () => { for (const form of document.querySelectorAll("#slip-form, #try-out")) showLarge(form); };
showAllLarge();
window.addEventListener("load", showAllLarge);
document.addEventListener("htmx:afterSettle", showAllLarge);

// A control is marked as wrong as long as something wrong is said of it.
followParts((place) => {
  const key = place.id.startsWith("said-") ? place.id.slice("said-".length) : null;
  if (key === null) return;
  const isWrong = Boolean(place.querySelector(".problem"));
  for (const control of document.querySelectorAll(`#entry-${CSS.escape(key)}`)) {
    if (isWrong) control.setAttribute("aria-invalid", "true");
    else control.removeAttribute("aria-invalid");
  }
});

// Whoever doesn't see the page hears what has changed, together, once they pause: not each key, and nothing twice.
const said = new Map();
function tellings() {
  const found = new Map();
  for (const one of document.querySelectorAll("#slip-form .said, #slip-form .total, #slip-form figure:not([hidden]) figcaption")) {
    const label = one.closest(".line")?.querySelector("bdi")?.textContent ?? "";
    const words = (one.matches("tr") ? [...one.children].map((cell) => cell.textContent).join(" ") : one.textContent).trim().replace(/\s+/g, " ");
    found.set(one.id || one.className, words && label ? `${label}: ${words}` : words);
  }
  return found;
}
for (const [key, words] of tellings()) said.set(key, words);
let pause = null;
document.addEventListener("htmx:afterRequest", ({ detail }) => {
  if (!detail.elt.matches?.("#slip-form")) return;
  clearTimeout(pause);
  pause = setTimeout(() => {
    const changed = [];
    for (const [key, words] of tellings()) {
      if (words && said.get(key) !== words) changed.push(words);
      said.set(key, words);
    }
    if (changed.length) announce(changed.join(". "));
  }, SAY_AFTER_MS);
});

// Which sections are shown is Python's to say; it comes with the state of the slip.
followParts((place) => {
  if (place.id !== "slip-state") return;
  const page = place.querySelector("[data-hidden-sections]");
  const hidden = new Set(page.dataset.hiddenSections.split(" "));
  let turned = null;
  for (const section of document.querySelectorAll(".slip-section")) {
    const isNew = section.hidden && !hidden.has(section.id);
    section.hidden = hidden.has(section.id);
    if (isNew && section.id === `section-${page.value}`) turned = section;
  }
  const isPaged = document.querySelector("#page-turns > *");
  if (turned && isPaged) turned.querySelector(`.line:not([hidden]) ${CONTROL}`)?.focus();
  // A page that must be finished first shows where.
  if (isTurning && !turned) document.querySelector(".slip-section:not([hidden]) .line:has(.problem) " + CONTROL)?.focus();
  isTurning = false;
});

// A color that is mixed is picked by that. Before the form hears of it.
document.addEventListener("input", ({ target }) => {
  if (!target.matches("[data-own-color]")) return;
  const own = target.closest(".own-color").querySelector("[type=radio]");
  own.value = target.value;
  own.checked = true;
}, { capture: true });

goOnWaiting();
