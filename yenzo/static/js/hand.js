// By hand: what lies on the goods is held, moved, turned and sized. While the hand is down only what it holds is
// transformed; when it comes up its gesture goes to the server in mm of the area, and what that says is shown.

import { DragLayer, Sheet } from "./drag_layer.js";
import { announce } from "./page.js";
import { followParts } from "./parts.js";
import { about, apply, compose, inverse, isNear, nearest, parse, written } from "./plane.js";
import { snapped } from "./snapping.js";

const LEAST_DRAG_PX = 4, SNAP_PX = 7, KNOB_PX = 26, HANDLE_PX = 7;
const STEP_MM = 1, FAR_STEP_MM = 10, STEP_DEG = 1, FAR_STEP_DEG = 15, STEP_SCALE = 1.05;
const FITS_ALL = 1000, LONGEST_REST_MS = 400;
const SVG = "http://www.w3.org/2000/svg";
const IDENTITY = [1, 0, 0, 1, 0, 0];
const DRAWN_CLASSES = ["hand-edge", "hand-handle", "hand-snap", "hand-words"];

export const formOf = (element) => element.closest("#slip-form, #try-out");
const states = new WeakMap();
// Of gestures: a number is that of one only, also when its form is laid out anew.
let count = 0;
// Of each form: what is held, gestures that no answer has shown yet, what shows moved for them, and what could be gone
// back to.
export function stateOf(form) {
  if (!states.has(form)) states.set(form, { selected: null, waiting: [], moved: new Set(), undo: [], redo: [], hands: handsOf(form), isBack: false });
  return states.get(form);
}
const handsOf = (form) => form.querySelector("[name=hands]")?.value ?? "{}";

// --- What lies where -------------------------------------------------------------------------------------------

const itemOf = (form, key) => form.querySelector(`.goods [data-item="${CSS.escape(key)}"]`);

const pairs = (words) => (words ? words.split(" ").map((pair) => pair.split(",").map(Number)) : []);

function geometry(item) {
  const area = item.closest("[data-area]");
  const box = parse(item.dataset.box), at = parse(item.dataset.at), place = parse(area.dataset.place);
  const [width, height, safe] = parse(area.dataset.frame);
  const [turn, mostTurn] = parse(item.dataset.turn);
  return {
    at, box, place, mostTurn, turn,
    can: new Set(item.dataset.can.split(" ")),
    edge: pairs(item.dataset.edge),
    frame: { width, height, safe },
    middle: apply(at, (box[0] + box[2]) / 2, (box[1] + box[3]) / 2),
    shift: parse(item.dataset.shift),
    shifts: pairs(item.dataset.shifts),
  };
}

// The map in mm of the side that a gesture makes of what lies there now.
function mapOf(own, gesture) {
  const inArea = compose(about(...own.middle, gesture.turn_deg, gesture.scale), [1, 0, 0, 1, ...gesture.shift_mm]);
  return compose(compose(inverse(own.place), inArea), own.place);
}

function cornersOf(own, gesture) {
  const map = compose(compose(own.at, own.place), mapOf(own, gesture));
  const [left, top, right, bottom] = own.box;
  return [[left, top], [right, top], [right, bottom], [left, bottom]].map(([x, y]) => apply(map, x, y));
}

// The frame as it shows on the goods: on a surface that bends it, its edges are bent as well.
function edgeOf(own, gesture) {
  const map = mapOf(own, gesture);
  return own.edge.length ? own.edge.map(([x, y]) => apply(map, x, y)) : cornersOf(own, gesture);
}

const nothing = () => ({ shift_mm: [0, 0], turn_deg: 0, scale: 1 });

function together(gestures) {
  const all = nothing();
  for (const one of gestures) {
    all.shift_mm = [all.shift_mm[0] + one.shift_mm[0], all.shift_mm[1] + one.shift_mm[1]];
    all.turn_deg += one.turn_deg;
    all.scale *= one.scale;
  }
  return all;
}

// What no answer has shown yet, and with it what the hand is doing just now.
const waitingOf = (form, key) => together(stateOf(form).waiting.filter((one) => one.do === "move" && one.item === key));
function pendingOf(form, key) {
  const waiting = waitingOf(form, key);
  return isDragged(form, key) ? together([waiting, drag.gesture]) : waiting;
}

// A shift, as far as the edge lets it go: what else the server makes of it shows with its answer.
function stopped(form, key, own, [x, y]) {
  const waiting = waitingOf(form, key);
  if (!own.shifts.length || waiting.turn_deg || waiting.scale !== 1) return [x, y];
  const from = [own.shift[0] + waiting.shift_mm[0], own.shift[1] + waiting.shift_mm[1]];
  const to = nearest(own.shifts, [from[0] + x, from[1] + y]);
  return [to[0] - from[0], to[1] - from[1]];
}

function show(form, key) {
  const item = itemOf(form, key);
  if (!item || (rest?.key === key && rest.form === form)) return;
  const own = geometry(item), gesture = pendingOf(form, key), map = mapOf(own, gesture), px = mmPerPx(item.ownerSVGElement);
  const isMoved = !isNear(map, IDENTITY), { moved: keys } = stateOf(form);
  if (isMoved) keys.add(key);
  else keys.delete(key);
  if (isDragged(form, key)) {
    lift(item).moveTo(map);
  } else {
    for (const part of item.querySelectorAll("[data-moves]")) {
      if (isMoved) part.setAttribute("transform", written(map));
      else part.removeAttribute("transform");
    }
  }
  if (stateOf(form).selected === key) drawFrame(item, own, gesture, px);
}

const isDragged = (form, key) => Boolean(drag?.key === key && drag.form === form && drag.gesture);

// What is dragged, kept apart; anew where an answer put something else into its place.
function lift(item) {
  if (drag.layer?.item !== item) {
    drag.layer?.drop();
    drag.layer = new DragLayer(item);
  }
  return drag.layer;
}

// --- The frame round what is held -------------------------------------------------------------------------------

// Draws into a group again and again: what it drew before is changed, not made anew, which a slow machine feels.
class Pencil {
  constructor(group) {
    this.group = group;
  }

  begin() {
    this.at = 0;
  }

  draw(name, attributes, words = null) {
    let element = this.group.children[this.at];
    if (element?.localName !== name) {
      const made = document.createElementNS(SVG, name);
      if (element) element.replaceWith(made);
      else this.group.append(made);
      element = made;
    }
    this.at += 1;
    for (const { name: had } of [...element.attributes]) if (!(had in attributes)) element.removeAttribute(had);
    for (const [key, value] of Object.entries(attributes)) if (element.getAttribute(key) !== String(value)) element.setAttribute(key, value);
    // Its letters are changed, not replaced: what is put into the page anew lets all of its styles be looked up again.
    if (words !== null && element.firstChild) element.firstChild.data = words;
    else if (words !== null) element.append(words);
  }

  // What was drawn before and isn't any more goes.
  done() {
    while (this.group.children.length > this.at) this.group.lastElementChild.remove();
  }
}

// How large a pixel is, by side: asked for anew with each answer, the page would be laid out for it again and again.
const pixels = new WeakMap();
const pixelWatcher = new ResizeObserver((entries) => {
  for (const { target } of entries.filter((entry) => entry.target.isConnected)) {
    const before = pixels.get(target), form = formOf(target), { selected: held } = stateOf(form);
    pixels.set(target, pixelOf(target));
    if (before !== pixels.get(target) && held && itemOf(form, held)?.ownerSVGElement === target) show(form, held);
  }
});
const pixelOf = (svg) => 1 / svg.getScreenCTM().a;
function mmPerPx(svg) {
  if (!pixels.has(svg)) {
    pixels.set(svg, pixelOf(svg));
    pixelWatcher.observe(svg);
  }
  return pixels.get(svg);
}

function frameOf(svg) {
  const found = svg.querySelector(":scope > .hand-frame");
  if (found) return found;
  const made = document.createElementNS(SVG, "g");
  made.setAttribute("class", "hand-frame");
  made.setAttribute("aria-hidden", "true");
  svg.append(made);
  return made;
}

function drawFrame(item, own, gesture, px) {
  const edge = edgeOf(own, gesture), corners = [0, 1, 2, 3].map((at) => edge[(at * edge.length) / 4]);
  const isFollowing = drag?.layer?.item === item;
  const pencil = isFollowing ? (drag.sheet ??= new Sheet(item.ownerSVGElement, DRAWN_CLASSES)) : new Pencil(frameOf(item.ownerSVGElement));
  pencil.begin([...edge, ...cornersOfArea(own)]);
  pencil.draw("polygon", { points: edge.map((one) => one.join(",")).join(" "), class: "hand-edge" });
  if (own.can.has("turn")) {
    const [[ax, ay], [bx, by]] = corners, length = Math.hypot(bx - ax, by - ay) || 1;
    const from = [(ax + bx) / 2, (ay + by) / 2];
    const to = [from[0] + ((by - ay) / length) * KNOB_PX * px, from[1] - ((bx - ax) / length) * KNOB_PX * px];
    pencil.draw("path", { d: `M${from} L${to}`, class: "hand-edge" });
    pencil.draw("circle", { cx: to[0], cy: to[1], r: HANDLE_PX * px, class: "hand-handle", "data-handle": "turn" });
  }
  for (const [x, y] of own.can.has("size") ? corners : []) {
    const half = HANDLE_PX * px * 0.85;
    pencil.draw("rect", { x: x - half, y: y - half, width: 2 * half, height: 2 * half, class: "hand-handle", "data-handle": "size" });
  }
  if (isFollowing) drawSnaps(pencil, own, px, corners);
  pencil.done();
}

function cornersOfArea({ frame: { width, height }, place }) {
  return [[0, 0], [width, 0], [width, height], [0, height]].map(([x, y]) => apply(place, x, y));
}

function drawSnaps(pencil, own, px, corners) {
  const xs = corners.map((one) => one[0]), ys = corners.map((one) => one[1]), size = { "font-size": 12 * px, class: "hand-words" };
  pencil.draw("text", { x: Math.min(...xs), y: Math.max(...ys) + 16 * px, ...size }, drag.words(own));
  for (const { line, words } of drag.snaps) {
    const [from, to] = line.map(([x, y]) => apply(own.place, x, y));
    pencil.draw("path", { d: `M${from} L${to}`, class: "hand-snap" });
    if (words) pencil.draw("text", { x: from[0] + 5 * px, y: from[1] + 14 * px, ...size }, words);
  }
}

function clearFrames(form, except) {
  for (const frame of form.querySelectorAll(".hand-frame")) if (frame.parentElement !== except) frame.replaceChildren();
}

// --- Holding and letting go ---------------------------------------------------------------------------------------

export function hold(form, key, { focus = false } = {}) {
  goFromRest();
  const state = stateOf(form);
  state.selected = key;
  const button = key !== null && form.querySelector(`[data-hold="${CSS.escape(key)}"]`), goods = key !== null && itemOf(form, key)?.ownerSVGElement;
  for (const other of form.querySelectorAll("[data-hold][aria-pressed=true]")) if (other !== button) other.setAttribute("aria-pressed", "false");
  if (button && button.getAttribute("aria-pressed") !== "true") button.setAttribute("aria-pressed", "true");
  for (const strip of form.querySelectorAll("[data-strip]")) strip.hidden = strip.dataset.strip !== key;
  for (const svg of form.querySelectorAll(".goods svg")) svg.classList.toggle("has-held", svg === goods);
  clearFrames(form, goods);
  tellBack(form);
  form.querySelector(".product-goods")?.classList.toggle("has-hands", Boolean(form.querySelector("[data-hold]")));
  form.querySelector("[name=selected-item]").value = key ?? "";
  if (key === null) return;
  askForStrip(form);
  const side = button?.dataset.onSide;
  if (side && form.querySelector(`figure[data-side="${side}"][hidden]`)) form.querySelector(`[data-show-side="${side}"]`)?.click();
  if (focus && button) button.focus({ preventScroll: true });
  show(form, key);
}

// Its strip comes with an answer: of many things only one is held. Nothing is asked while the hand is down.
function askForStrip(form) {
  const state = stateOf(form), { selected: held } = state;
  if (held === null || isDown || state.asked === held || form.querySelector(`[data-strip="${CSS.escape(held)}"]`)) return;
  state.asked = held;
  form.dispatchEvent(new Event("entries-changed", { bubbles: true }));
}

function tellBack(form) {
  const state = stateOf(form);
  const undo = form.querySelector("[data-hand=undo]"), redo = form.querySelector("[data-hand=redo]");
  if (undo) undo.disabled = !state.undo.length;
  if (redo) redo.disabled = !state.redo.length;
}

// --- Sending ---------------------------------------------------------------------------------------------------------

function write(form) {
  const state = stateOf(form);
  form.querySelector("[name=gestures]").value = state.waiting.length ? JSON.stringify(state.waiting.map(({ n, isSent, ...one }) => one)) : "";
  form.querySelector("[name=gestures-to]").value = count;
}

export function did(form, gesture) {
  goFromRest();
  tell(form, gesture);
}

function tell(form, gesture) {
  if (form.comesBack) {
    form.comesBack.then(() => tell(document.getElementById(form.id), gesture));
    return;
  }
  const state = stateOf(form), last = state.waiting.at(-1);
  if (last && !last.isSent && last.do === "move" && gesture.do === "move" && last.item === gesture.item) {
    Object.assign(last, together([last, gesture]));
  } else {
    state.waiting.push({ ...gesture, n: ++count, isSent: false });
  }
  write(form);
  if (gesture.item) show(form, gesture.item);
  // What is held goes along, and so its strip comes with the answer.
  state.asked = state.selected;
  form.dispatchEvent(new Event("entries-changed", { bubbles: true }));
}

const move = (key, gesture) => ({ do: "move", item: key, ...nothing(), ...gesture });
const moved = (form, key, gesture) => did(form, move(key, gesture));

document.addEventListener("htmx:configRequest", ({ detail }) => {
  if (!detail.elt.matches?.("#slip-form, #try-out")) return;
  for (const one of stateOf(detail.elt).waiting) one.isSent = true;
});

// What a request was sent with that failed goes with the next one.
document.addEventListener("htmx:afterRequest", ({ detail }) => {
  const form = detail.elt;
  if (!form.matches?.("#slip-form, #try-out") || !form.querySelector("[data-items]")) return;
  const rested = dropRest();
  const state = stateOf(form), told = form.querySelector("[data-gestures-done]");
  if (detail.successful && told) {
    const done = Number(told.dataset.gesturesDone), before = state.waiting.length;
    state.waiting = state.waiting.filter((one) => one.n > done);
    state.asked = null;
    if (before !== state.waiting.length) write(form);
    remember(form);
  }
  const { selected: held } = state;
  // What is held is shown once, with its frame.
  for (const key of new Set([rested?.key, ...state.moved, ...state.waiting.map((one) => one.item)])) {
    if (key && key !== held) show(form, key);
  }
  if (held && !itemOf(form, held)) hold(form, null);
  else hold(form, held);
});

function remember(form) {
  const state = stateOf(form), hands = handsOf(form);
  if (hands === state.hands) {
    // Going back to what is there already changes nothing, and what comes next is a step of its own.
    if (!state.waiting.length) state.isBack = false;
    return;
  }
  if (!state.isBack) {
    state.undo.push(state.hands);
    state.redo = [];
  }
  state.isBack = false;
  state.hands = hands;
}

function back(form, from, to) {
  const state = stateOf(form);
  if (!state[from].length || state.waiting.length) return;
  state[to].push(state.hands);
  state.isBack = true;
  const hands = JSON.parse(state[from].pop());
  // What stands in the boxes of own items goes back as well.
  for (const [field, items] of Object.entries(hands.items ?? {})) {
    for (const { key, text } of items) {
      const box = text !== undefined && form.querySelector(`[data-own-text="${CSS.escape(`${field}--${key}`)}"]`);
      if (!box) continue;
      box.value = text;
      box.dispatchEvent(new Event("input", { bubbles: true }));
    }
  }
  did(form, { do: "restore", hands });
  tellBack(form);
}

// --- The pointer ------------------------------------------------------------------------------------------------------

let drag = null, isDown = false, rest = null;
const pointers = new Map();

function pointOn(svg, place, event) {
  const { x, y } = new DOMPoint(event.clientX, event.clientY).matrixTransform(svg.getScreenCTM().inverse());
  return apply(inverse(place), x, y);
}

function begin(form, item, event, way) {
  const own = geometry(item), svg = item.ownerSVGElement;
  drag = {
    form, svg, way, key: item.dataset.item, id: event.pointerId, gesture: null, snaps: [], frame: null,
    from: pointOn(svg, own.place, event), start: [event.clientX, event.clientY], isFar: false, event,
    words: (now) => wordsOf(now),
  };
  svg.setPointerCapture(event.pointerId);
}

function wordsOf(own) {
  const { gesture, way } = drag;
  if (way === "turn") return `${Math.round(own.turn + gesture.turn_deg)}°`;
  if (way === "size") return `${Math.round(gesture.scale * 100)} %`;
  const inArea = cornersOf({ ...own, place: IDENTITY }, gesture);
  const left = Math.min(...inArea.map((one) => one[0])), top = Math.min(...inArea.map((one) => one[1]));
  return `${left.toFixed(1)} | ${top.toFixed(1)} mm`;
}

document.addEventListener("pointerdown", (event) => {
  const svg = event.target.closest?.(".stage .goods > svg");
  const form = svg && formOf(svg);
  goFromRest();
  if (!form) return;
  if (event.pointerType === "touch") pointers.set(event.pointerId, event);
  isDown = true;
  const state = stateOf(form);
  const handle = event.target.dataset.handle;
  const item = handle ? itemOf(form, state.selected) : event.target.closest("[data-item]");
  if (pointers.size === 2 && state.selected && itemOf(form, state.selected)?.ownerSVGElement === svg) {
    beginTwo(form, itemOf(form, state.selected));
    return;
  }
  if (!item || event.button !== 0) {
    if (state.selected && !item) hold(form, null);
    return;
  }
  const wasHeld = state.selected === item.dataset.item;
  // A finger that passes over the goods scrolls the page: it holds something first, and moves it then.
  if (event.pointerType === "touch" && !wasHeld) {
    hold(form, item.dataset.item);
    return;
  }
  if (!wasHeld) hold(form, item.dataset.item, { focus: true });
  event.preventDefault();
  begin(form, itemOf(form, state.selected), event, handle ?? "move");
});

function beginTwo(form, item) {
  const own = geometry(item), svg = item.ownerSVGElement;
  const [one, two] = [...pointers.values()];
  drag = {
    form, svg, way: "two", key: item.dataset.item, id: null, gesture: nothing(), snaps: [], isFar: true, frame: null,
    from: [pointOn(svg, own.place, one), pointOn(svg, own.place, two)], words: () => "",
  };
}

function gestureOfTwo(own) {
  const [a, b] = drag.from, [p, q] = [...pointers.values()].map((event) => pointOn(drag.svg, own.place, event));
  const between = ([ax, ay], [bx, by]) => [bx - ax, by - ay];
  const [ux, uy] = between(a, b), [vx, vy] = between(p, q);
  const scale = own.can.has("size") ? Math.hypot(vx, vy) / (Math.hypot(ux, uy) || 1) : 1;
  const turn = own.can.has("turn") ? ((Math.atan2(vy, vx) - Math.atan2(uy, ux)) * 180) / Math.PI : 0;
  const middle = (one, other) => [(one[0] + other[0]) / 2, (one[1] + other[1]) / 2];
  const [x, y] = middle(a, b), to = middle(p, q), c = own.middle;
  // Where the middle of what is held comes to when the middle between the fingers goes along with them.
  const [mx, my] = apply(about(x, y, turn, scale), ...c);
  const shift = own.can.has("move") ? [mx + to[0] - x - c[0], my + to[1] - y - c[1]] : [0, 0];
  return { shift_mm: shift, turn_deg: turn, scale };
}

function gestureOf(own, event) {
  const at = pointOn(drag.svg, own.place, event), [cx, cy] = own.middle, px = mmPerPx(drag.svg);
  if (drag.way === "turn") {
    const angle = ([x, y]) => (Math.atan2(y - cy, x - cx) * 180) / Math.PI;
    let turn = angle(at) - angle(drag.from);
    turn -= 360 * Math.round(turn / 360);
    const whole = Math.round((own.turn + turn) / FAR_STEP_DEG) * FAR_STEP_DEG;
    if (!event.altKey && Math.abs(whole - own.turn - turn) < 2) turn = whole - own.turn;
    const most = own.mostTurn >= 180 ? 720 : own.mostTurn;
    return { ...nothing(), turn_deg: Math.min(Math.max(turn, -most - own.turn), most - own.turn) };
  }
  if (drag.way === "size") {
    const far = ([x, y]) => Math.hypot(x - cx, y - cy);
    return { ...nothing(), scale: Math.max(far(at) / (far(drag.from) || 1), 0.01) };
  }
  if (!own.can.has("move")) return nothing();
  let shift = [at[0] - drag.from[0], at[1] - drag.from[1]];
  drag.snaps = [];
  if (!event.altKey) {
    const inArea = cornersOf({ ...own, place: IDENTITY }, { ...nothing(), shift_mm: shift });
    const found = snapped(inArea, own.frame, othersOf(own), SNAP_PX * px);
    shift = [shift[0] + found.by[0], shift[1] + found.by[1]];
    drag.snaps = found.lines;
  }
  return { ...nothing(), shift_mm: stopped(drag.form, drag.key, own, shift) };
}

// The boxes of what else lies in the area, in its mm.
function othersOf() {
  if (drag.others) return drag.others;
  const item = itemOf(drag.form, drag.key);
  const others = [...item.closest("[data-area]").querySelectorAll("[data-item]")].filter((one) => one !== item);
  drag.others = others.map((one) => {
    const own = geometry(one), corners = cornersOf({ ...own, place: IDENTITY }, nothing());
    const xs = corners.map((corner) => corner[0]), ys = corners.map((corner) => corner[1]);
    return [Math.min(...xs), Math.min(...ys), Math.max(...xs), Math.max(...ys)];
  });
  return drag.others;
}

document.addEventListener("pointermove", (event) => {
  if (pointers.has(event.pointerId)) pointers.set(event.pointerId, event);
  if (!drag || (drag.way !== "two" && event.pointerId !== drag.id)) return;
  drag.isFar ||= Math.hypot(event.clientX - drag.start[0], event.clientY - drag.start[1]) >= LEAST_DRAG_PX;
  if (!drag.isFar) return;
  drag.svg.classList.add("is-dragged");
  drag.event = event;
  drag.frame ??= requestAnimationFrame(follow);
});

function follow() {
  if (!drag) return;
  drag.frame = null;
  const item = itemOf(drag.form, drag.key);
  if (!item) return;
  const own = geometry(item);
  drag.gesture = drag.way === "two" ? gestureOfTwo(own) : gestureOf(own, drag.event);
  show(drag.form, drag.key);
}

function end(event, isDone) {
  pointers.delete(event.pointerId);
  isDown = pointers.size > 0;
  if (!drag) for (const form of document.querySelectorAll("#slip-form, #try-out")) askForStrip(form);
  if (!drag || (drag.way !== "two" && event.pointerId !== drag.id)) return;
  if (drag.frame) {
    cancelAnimationFrame(drag.frame);
    follow();
  }
  const { form, key, gesture, isFar, svg, layer, sheet } = drag;
  svg.classList.remove("is-dragged");
  drag = null;
  if (isDone && isFar && gesture) {
    restWith({ form, key, svg, layer, sheet });
    tell(form, move(key, gesture));
  } else {
    layer?.drop();
    sheet?.drop();
    show(form, key);
  }
  askForStrip(form);
}

// What was let go shows as the hand left it until the answer is there: a slow machine would paint the page twice.
function restWith(left) {
  rest = { ...left, timer: setTimeout(goFromRest, LONGEST_REST_MS) };
  left.svg.classList.add("has-rest");
}

function dropRest() {
  const had = rest;
  rest = null;
  if (!had) return null;
  clearTimeout(had.timer);
  had.svg.classList.remove("has-rest");
  had.layer?.drop();
  had.sheet?.drop();
  return had;
}

function goFromRest() {
  const had = dropRest();
  if (had) show(had.form, had.key);
}
document.addEventListener("pointerup", (event) => end(event, true));
document.addEventListener("pointercancel", (event) => end(event, false));

// --- Keys, typed numbers, buttons -------------------------------------------------------------------------------------

// Items of customers' own are called by their field and their key.
const isOwn = (key) => key.includes("--");
const ARROWS = { ArrowLeft: [-1, 0], ArrowRight: [1, 0], ArrowUp: [0, -1], ArrowDown: [0, 1] };

document.addEventListener("keydown", (event) => {
  const form = event.target.closest?.("[data-items]") && formOf(event.target);
  if (!form || event.target.matches("input, select")) return;
  const state = stateOf(form);
  if ((event.ctrlKey || event.metaKey) && ["z", "y"].includes(event.key.toLowerCase())) {
    const isRedo = event.shiftKey || event.key.toLowerCase() === "y";
    event.preventDefault();
    back(form, isRedo ? "redo" : "undo", isRedo ? "undo" : "redo");
    return;
  }
  if ((event.ctrlKey || event.metaKey) && event.key.toLowerCase() === "d" && isOwn(state.selected ?? "")) {
    event.preventDefault();
    did(form, { do: "copy", item: state.selected });
    return;
  }
  if (event.ctrlKey || event.metaKey || event.altKey) return;
  const key = event.target.dataset.hold ?? state.selected;
  if (!key || !itemOf(form, key)) return;
  const can = geometry(itemOf(form, key)).can, [x, y] = ARROWS[event.key] ?? [0, 0];
  const step = event.shiftKey ? FAR_STEP_MM : STEP_MM;
  if ((x || y) && can.has("move")) moved(form, key, { shift_mm: [x * step, y * step] });
  else if ("<>".includes(event.key) && can.has("turn")) moved(form, key, { turn_deg: event.key === "<" ? -STEP_DEG : STEP_DEG });
  else if ("+-".includes(event.key) && can.has("size")) moved(form, key, { scale: event.key === "+" ? STEP_SCALE : 1 / STEP_SCALE });
  else if ("[]".includes(event.key)) did(form, { do: "level", item: key, by: event.key === "]" ? 1 : -1 });
  else if (event.key === "Home") did(form, { do: "again", item: key });
  else if (event.key === "Delete" && isOwn(key)) did(form, { do: "remove", item: key });
  else if (event.key === "Escape") hold(form, null);
  else return;
  event.preventDefault();
  if (state.selected !== key && event.key !== "Escape") hold(form, key);
});

document.addEventListener("focusin", ({ target }) => {
  const key = target.dataset?.hold;
  if (key && stateOf(formOf(target)).selected !== key) hold(formOf(target), key);
});

const ACTIONS = {
  undo: (form) => back(form, "undo", "redo"),
  redo: (form) => back(form, "redo", "undo"),
  again: (form, key) => did(form, { do: "again", item: key }),
  copy: (form, key) => did(form, { do: "copy", item: key }),
  remove: (form, key) => did(form, { do: "remove", item: key }),
  forward: (form, key) => did(form, { do: "level", item: key, by: 1 }),
  backward: (form, key) => did(form, { do: "level", item: key, by: -1 }),
  fit: (form, key) => {
    const own = geometry(itemOf(form, key)), isFilled = own.box[2] - own.box[0] >= own.frame.width - 0.01 || own.box[3] - own.box[1] >= own.frame.height - 0.01;
    moved(form, key, { ...toMiddle(own), scale: isFilled ? 1 / FITS_ALL : FITS_ALL });
  },
  center: (form, key) => moved(form, key, toMiddle(geometry(itemOf(form, key)))),
};
const toMiddle = ({ frame, middle }) => ({ shift_mm: [frame.width / 2 - middle[0], frame.height / 2 - middle[1]] });

document.addEventListener("click", ({ target }) => {
  const button = target.closest?.("[data-hold], [data-hand]");
  const form = button && formOf(button);
  if (!form) return;
  if (button.dataset.hold) hold(form, button.dataset.hold);
  else ACTIONS[button.dataset.hand](form, stateOf(form).selected);
});

// Numbers that are typed, and what is picked, are gestures like any other. They aren't entries of the form.
const isTyped = (target) => target.matches?.("[data-put], [data-typed]");
document.addEventListener("input", (event) => {
  if (!isTyped(event.target)) return;
  event.stopPropagation();
  event.target.dataset.isTyped = "yes";
}, { capture: true });
document.addEventListener("change", ({ target }) => {
  const form = isTyped(target) && formOf(target);
  // Enter has told of it already.
  if (!form || !target.dataset.isTyped) return;
  const key = target.closest("[data-strip]").dataset.strip, value = target.type === "number" ? target.valueAsNumber : target.value;
  delete target.dataset.isTyped;
  if (Number.isNaN(value)) return;
  if (target.dataset.put) {
    did(form, { do: "put", item: key, [target.dataset.put]: value });
    return;
  }
  const by = value - Number(target.dataset.now);
  if (target.dataset.typed === "left") moved(form, key, { shift_mm: [by, 0] });
  else if (target.dataset.typed === "top") moved(form, key, { shift_mm: [0, by] });
  else if (value > 0) moved(form, key, { scale: value / Number(target.dataset.now) });
});
document.addEventListener("keydown", (event) => {
  if (!isTyped(event.target) || event.key !== "Enter") return;
  event.preventDefault();
  event.target.dispatchEvent(new Event("change", { bubbles: true }));
});

// What is half typed outlives an answer.
let typed = null;
const isOfHands = (place) => ["hands", "strip"].includes(place.id);
followParts((place) => {
  if (!isOfHands(place)) return;
  const input = typed && document.getElementById(typed.id);
  if (input) {
    input.value = typed.value;
    input.dataset.isTyped = "yes";
  }
  const form = formOf(place), held = stateOf(form).selected;
  hold(form, held && form.querySelector(`[data-hold="${CSS.escape(held)}"]`) ? held : null);
  const words = form.querySelector("[data-strip]:not([hidden]) .strip-stopped")?.textContent;
  if (words) announce(words);
}, (place) => {
  const input = isOfHands(place) ? document.activeElement : null;
  typed = input?.dataset.isTyped && place.contains(input) ? { id: input.id, value: input.value } : null;
});

for (const input of document.querySelectorAll("[name=gestures], [name=gestures-to], [name=selected-item]")) input.value = "";
