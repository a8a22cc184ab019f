// Marks of the bench: points of areas and base lines that are moved by the hand or by keys, a measure, the clipboard.
// The hand tells where a mark was put, in mm of its area; Python says what that makes of the area.

import { post } from "./changing.js";
import { announce, say } from "./page.js";

const STEP_MM = 1, FAR_STEP_MM = 10;
// What is moved by less lies where it was.
export const NOTHING_MM = 0.0005;
const SVG = "http://www.w3.org/2000/svg";
const ARROWS = { ArrowLeft: [-1, 0], ArrowRight: [1, 0], ArrowUp: [0, -1], ArrowDown: [0, 1] };
let taken = null;

export function drawn(parent, name, attributes) {
  const element = document.createElementNS(SVG, name);
  for (const [key, value] of Object.entries(attributes)) element.setAttribute(key, value);
  parent.append(element);
  return element;
}

// Where the pointer is in the frame of the area, which may be turned, and where a mark is now.
function pointIn(group, event) {
  const { x, y } = new DOMPoint(event.clientX, event.clientY).matrixTransform(group.getScreenCTM().inverse());
  return [x, y];
}
const placeOf = (mark) => [Number(mark.getAttribute("cx")), Number(mark.getAttribute("cy"))];
const groupOf = (mark) => mark.closest("[data-marks-of]");

function put(mark, [x, y]) {
  mark.setAttribute("cx", x);
  mark.setAttribute("cy", y);
}

function tell(mark, values = null) {
  const group = groupOf(mark), [x, y] = placeOf(mark), [left, top] = group.dataset.place.split(" ").map(Number);
  const { mark: name, markText: text, markAddress: address } = mark.dataset;
  const { id } = mark, at = [x, y];
  const shown = () => {
    const now = document.getElementById(id);
    if (now) put(now, at);
  };
  const told = { mark: name, text, x_mm: x - left, y_mm: y - top, ...values };
  post(address, () => told, { selected: group.dataset.marksOf, puts: values ? null : `${name} ${text}`, shown });
}

document.addEventListener("pointerdown", (event) => {
  // Whoever takes a text by its letters moves the mark that takes all of it along.
  const letters = event.target.closest?.("#bench [data-holds]");
  const mark = letters ? document.getElementById(letters.dataset.holds) : event.target.closest?.("#bench [data-mark]");
  if (!mark || event.button !== 0) return;
  const [x, y] = pointIn(groupOf(mark), event), [markX, markY] = placeOf(mark);
  taken = { id: mark.id, pointer: event.pointerId, off: letters ? [markX - x, markY - y] : [0, 0], letters };
  letters?.classList.add("is-taken");
  (letters ?? mark).setPointerCapture(event.pointerId);
  mark.focus();
  event.preventDefault();
});
document.addEventListener("pointermove", (event) => {
  const mark = taken && event.pointerId === taken.pointer && document.getElementById(taken.id);
  if (!mark) return;
  const [x, y] = pointIn(groupOf(mark), event), to = [x + taken.off[0], y + taken.off[1]];
  taken.from ??= placeOf(mark);
  put(mark, to);
  taken.letters?.setAttribute("transform", `translate(${1000 * (to[0] - taken.from[0])} ${1000 * (to[1] - taken.from[1])})`);
});
document.addEventListener("pointerup", (event) => {
  const mark = taken && event.pointerId === taken.pointer && document.getElementById(taken.id), from = taken?.from;
  taken?.letters?.classList.remove("is-taken");
  taken = null;
  if (mark && from && placeOf(mark).some((at, axis) => Math.abs(at - from[axis]) >= NOTHING_MM)) tell(mark);
});

document.addEventListener("keydown", (event) => {
  const mark = event.target.closest?.("#bench [data-mark]");
  if (!mark || event.ctrlKey || event.metaKey || event.altKey) return;
  const arrow = ARROWS[event.key];
  if (arrow) {
    const step = event.shiftKey ? FAR_STEP_MM : STEP_MM, [x, y] = placeOf(mark);
    put(mark, [x + arrow[0] * step, y + arrow[1] * step]);
    tell(mark);
  } else if (mark.dataset.isPoint !== undefined && ["Insert", "Delete"].includes(event.key)) {
    tell(mark, { do: event.key === "Insert" ? "add" : "remove" });
  } else return;
  event.preventDefault();
});
document.addEventListener("dblclick", (event) => {
  const mark = event.target.closest?.("#bench [data-is-point]");
  if (mark) tell(mark, { do: "add" });
});

// --- Measuring: a line on the goods, and how long it is --------------------------------------------------------------

const measure = () => document.querySelector("[data-measure]");
export const isMeasuring = () => measure()?.getAttribute("aria-pressed") === "true";
let from = null;

document.addEventListener("click", ({ target }) => {
  const button = target.closest?.("[data-measure]");
  if (!button) return;
  button.setAttribute("aria-pressed", String(!isMeasuring()));
  document.querySelector(".measured")?.remove();
});
document.addEventListener("pointerdown", (event) => {
  const ground = isMeasuring() && event.target.closest?.("#bench [data-ground]");
  if (!ground) return;
  from = { ground, at: pointIn(ground, event) };
  event.preventDefault();
});
document.addEventListener("pointermove", (event) => {
  if (!from) return;
  const [x, y] = pointIn(from.ground, event), [left, top] = from.at, px = 1 / from.ground.ownerSVGElement.getScreenCTM().a;
  document.querySelector(".measured")?.remove();
  const group = drawn(from.ground, "g", { class: "measured" });
  const words = `${Math.hypot(x - left, y - top).toFixed(1)} mm`;
  drawn(group, "path", { d: `M${left} ${top}L${x} ${y}`, class: "hand-edge" });
  drawn(group, "text", { x: x + 8 * px, y: y - 6 * px, "font-size": 13 * px, class: "hand-words" }).textContent = words;
  from.words = words;
});
document.addEventListener("pointerup", () => {
  if (from?.words) announce(from.words);
  from = null;
});

// --- The clipboard -----------------------------------------------------------------------------------------------------

const inText = (element) => element?.matches?.("input, textarea, select") || !getSelection().isCollapsed;
const copiedArea = () => document.querySelector("[data-copy-area]")?.dataset.copyArea;

function paste(button, clip) {
  post(button.dataset.pasteAddress, () => ({ clip }));
}

document.addEventListener("copy", (event) => {
  if (inText(document.activeElement) || !copiedArea()) return;
  event.clipboardData.setData("text/plain", copiedArea());
  event.preventDefault();
  announce("Copied");
});
document.addEventListener("paste", (event) => {
  if (inText(document.activeElement)) return;
  const clip = event.clipboardData.getData("text/plain"), side = document.querySelector("#bench [data-ground]:hover")?.dataset.ground;
  const button = document.querySelector(side ? `[data-paste-side="${side}"]` : "[data-paste-address]");
  if (!button || !clip.includes("yenzo-areas/")) return;
  event.preventDefault();
  paste(button, clip);
});
document.addEventListener("click", async ({ target }) => {
  const copy = target.closest?.("[data-copy-area]"), to = target.closest?.("[data-paste-address]");
  try {
    if (copy) {
      await navigator.clipboard.writeText(copy.dataset.copyArea);
      announce("Copied");
    } else if (to) {
      paste(to, await navigator.clipboard.readText());
    }
  } catch {
    // Some browsers give the clipboard to keys only.
    say("This browser gives the clipboard to keys only: press Ctrl+C, or Ctrl+V over the side.");
  }
});
