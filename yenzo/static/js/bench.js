// The bench: an area is drawn, moved and resized by the hand; its millimetres go to the server, which decides.

import { layOut, post } from "./changing.js";
import { Floating, Sheet } from "./drag_layer.js";
import { isMeasuring, NOTHING_MM } from "./marks.js";
import { snapped } from "./snapping.js";

const LEAST_DRAG_PX = 4, SNAP_PX = 6;
const NUDGE_MM = 1;
const FAR_NUDGE_MM = 10;
const DRAGGED = "area-ground is-dragged", DRAWN_CLASSES = [DRAGGED, "hand-snap", "hand-words"];
let drag = null;

function pointOn(ground, event) {
  const point = new DOMPoint(event.clientX, event.clientY);
  const { x, y } = point.matrixTransform(ground.getScreenCTM().inverse());
  return { x, y };
}

function placeOf(area) {
  const [x, y, width, height] = area.dataset.place.split(" ").map(Number);
  return { x, y, width, height };
}

// What lands in an area goes along when it is moved.
function inksOf(area) {
  const [, key] = area.dataset.imprint.split("/");
  return [...area.closest("[data-ground]").querySelectorAll(`.bench-ink [data-area="${CSS.escape(key)}"]`)];
}
const wayTo = (area, place) => [place.x - placeOf(area).x, place.y - placeOf(area).y];
function carry(area, place) {
  for (const ink of inksOf(area)) ink.setAttribute("transform", `translate(${wayTo(area, place).join(" ")})`);
}

function show(rect, place) {
  for (const name of ["x", "y", "width", "height"]) rect.setAttribute(name, place[name]);
  const area = rect.closest("[data-turn]");
  if (area) area.setAttribute("transform", `rotate(${area.dataset.turn} ${place.x + place.width / 2} ${place.y + place.height / 2})`);
}

// The hand's way in the directions of a turned frame, and back.
function turned({ x, y }, degrees) {
  const angle = (degrees * Math.PI) / 180;
  return { x: x * Math.cos(angle) - y * Math.sin(angle), y: x * Math.sin(angle) + y * Math.cos(angle) };
}

function hold(area, place) {
  area.dataset.place = `${place.x} ${place.y} ${place.width} ${place.height}`;
  show(area.querySelector(".area-ground"), place);
}

const valuesOf = (place) => () => ({ x_mm: place.x, y_mm: place.y, width_mm: place.width, height_mm: place.height });

function putArea({ dataset: { placeAddress, imprint: selected } }, place) {
  const shown = () => {
    const area = document.querySelector(`#bench [data-imprint="${selected}"]`);
    if (area) hold(area, place);
  };
  post(placeAddress, valuesOf(place), { selected, puts: "", shown });
}

const pick = ({ id, dataset }) => layOut(dataset.pickAddress).then(() => document.getElementById(id)?.focus());

function resized(place, handle, dx, dy) {
  const west = handle.includes("w"), north = handle.includes("n");
  const width = Math.max(1, place.width + (west ? -dx : dx));
  const height = Math.max(1, place.height + (north ? -dy : dy));
  return {
    x: west ? place.x + place.width - width : place.x,
    y: north ? place.y + place.height - height : place.y,
    width,
    height,
  };
}

// An answer may lay the bench out anew in the middle of a drag: elements are looked up by name each time.
const groundOf = ({ ground }) => document.querySelector(`#bench [data-ground="${ground}"]`);
const areaOf = ({ area }) => area && document.getElementById(area);

function moved(event) {
  const at = pointOn(groundOf(drag), event);
  const dx = at.x - drag.from.x, dy = at.y - drag.from.y;
  drag.lines = [];
  if (drag.handle) {
    const along = turned({ x: dx, y: dy }, -drag.turn);
    const place = resized(drag.place, drag.handle, along.x, along.y);
    // A turned frame turns about its middle: the corner that stays must stay where it shows.
    const off = { x: place.x + place.width / 2 - drag.place.x - drag.place.width / 2, y: place.y + place.height / 2 - drag.place.y - drag.place.height / 2 };
    const shown = turned(off, drag.turn);
    return { ...place, x: place.x + shown.x - off.x, y: place.y + shown.y - off.y };
  }
  if (drag.area) {
    const place = { ...drag.place, x: drag.place.x + dx, y: drag.place.y + dy };
    return event.altKey ? place : inLine(place);
  }
  return { x: Math.min(drag.from.x, at.x), y: Math.min(drag.from.y, at.y), width: Math.abs(dx), height: Math.abs(dy) };
}

const boxOf = ({ x, y, width, height }) => [x, y, x + width, y + height];

// Drawn to the middle of the side, and to the edges and gaps of its other areas; what draws it is shown.
function inLine(place) {
  const ground = groundOf(drag), image = ground.querySelector("image"), svg = ground.ownerSVGElement;
  drag.others ??= [...ground.querySelectorAll("[data-imprint]")].filter((one) => one.id !== drag.area).map((one) => boxOf(placeOf(one)));
  const [left, top, right, bottom] = boxOf(place), px = 1 / svg.getScreenCTM().a;
  const frame = { width: Number(image.getAttribute("width")), height: Number(image.getAttribute("height")), safe: 0 };
  const { by, lines } = snapped([[left, top], [right, bottom]], frame, drag.others, SNAP_PX * px);
  drag.lines = lines;
  return { ...place, x: place.x + by[0], y: place.y + by[1] };
}

function cornersOf({ x, y, width, height }, degrees) {
  const middle = { x: x + width / 2, y: y + height / 2 };
  return [[-1, -1], [1, -1], [1, 1], [-1, 1]].map(([right, down]) => {
    const off = turned({ x: (right * width) / 2, y: (down * height) / 2 }, degrees);
    return [middle.x + off.x, middle.y + off.y];
  });
}

// While the hand is down its frame and lines are drawn on a sheet over the bench, and ink that goes along is moved alone.
function follow() {
  if (!drag) return;
  drag.frame = null;
  const ground = groundOf(drag), area = areaOf(drag);
  if (!ground) return;
  const place = moved(drag.event), corners = cornersOf(place, drag.turn), { lines } = drag;
  if (drag.sheet?.group !== ground) {
    drag.sheet?.drop();
    drag.sheet = new Sheet(ground, DRAWN_CLASSES);
  }
  const { sheet } = drag;
  sheet.begin([...corners, ...lines.flatMap(({ line }) => line)]);
  sheet.draw("polygon", { points: corners.map((one) => one.join(",")).join(" "), class: DRAGGED });
  for (const { line: [from, to], words } of lines) {
    sheet.draw("path", { d: `M${from} L${to}`, class: "hand-snap" });
    sheet.draw("text", { x: from[0] + 5 * sheet.px, y: from[1] + 14 * sheet.px, "font-size": 12 * sheet.px, class: "hand-words" }, words);
  }
  if (!area || drag.handle) return;
  if (drag.ink?.item !== area) {
    drag.ink?.drop();
    drag.ink = new Floating(area, inksOf(area), ground);
  }
  drag.ink.moveBy(...wayTo(area, place));
}

function drawnRect(ground) {
  const rect = ground.querySelector(".area-drawn") ?? document.createElementNS("http://www.w3.org/2000/svg", "rect");
  rect.setAttribute("class", "area-drawn");
  ground.append(rect);
  return rect;
}

document.addEventListener("pointerdown", (event) => {
  const ground = event.target.closest?.("#bench [data-ground]");
  if (!ground || event.button !== 0 || event.target.closest(":is([data-mark], [data-holds])") || isMeasuring()) return;
  const area = event.target.closest("[data-imprint]");
  drag = {
    ground: ground.dataset.ground,
    area: area?.id,
    handle: event.target.dataset.handle,
    place: area ? placeOf(area) : null,
    turn: Number(area?.dataset.turn ?? 0),
    from: pointOn(ground, event),
    start: { x: event.clientX, y: event.clientY },
    isFar: false,
  };
  event.preventDefault();
});

document.addEventListener("pointermove", (event) => {
  if (!drag || !groundOf(drag)) return;
  drag.isFar ||= Math.hypot(event.clientX - drag.start.x, event.clientY - drag.start.y) >= LEAST_DRAG_PX;
  if (!drag.isFar) return;
  drag.event = event;
  drag.frame ??= requestAnimationFrame(follow);
});

function letGo() {
  cancelAnimationFrame(drag.frame);
  drag.ink?.drop();
  drag.sheet?.drop();
  drag = null;
}
document.addEventListener("pointercancel", () => { if (drag) letGo(); });

document.addEventListener("pointerup", (event) => {
  if (!drag) return;
  const area = areaOf(drag), ground = groundOf(drag), place = ground && moved(event), { isFar, handle, place: taken } = drag;
  letGo();
  if (!ground) return;
  if (!isFar) {
    if (area) pick(area);
    return;
  }
  // Whoever thinks better of it brings it back.
  if (area && Object.keys(taken).every((name) => Math.abs(place[name] - taken[name]) < NOTHING_MM)) return;
  // Until the answer is there, it shows where it was left.
  const rect = area?.querySelector(".area-ground") ?? drawnRect(ground);
  rect.classList.add("is-dragged");
  show(rect, place);
  if (area && !handle) carry(area, place);
  if (area) putArea(area, place);
  else post(ground.dataset.drawAddress, valuesOf(place));
});

document.addEventListener("keydown", (event) => {
  const area = event.target.closest?.("#bench [data-imprint]");
  if (!area || event.target.closest(":is([data-mark], [data-holds])")) return;
  if (event.key === "Enter" || event.key === " ") {
    event.preventDefault();
    pick(area);
    return;
  }
  const step = event.shiftKey ? FAR_NUDGE_MM : NUDGE_MM;
  const [dx, dy] = { ArrowLeft: [-step, 0], ArrowRight: [step, 0], ArrowUp: [0, -step], ArrowDown: [0, step] }[event.key] ?? [0, 0];
  if (!dx && !dy) return;
  event.preventDefault();
  const from = placeOf(area);
  const place = { ...from, x: from.x + dx, y: from.y + dy };
  hold(area, place);
  putArea(area, place);
});
