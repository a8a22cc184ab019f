// The bench: an area is drawn, moved and resized by the hand; its millimetres go to the server, which decides.

const LEAST_DRAG_PX = 4;
const NUDGE_MM = 1;
const FAR_NUDGE_MM = 10;
let drag = null;
let waiting = null;
let isSending = false;

const seen = () => ({ seen: document.getElementById("draft").dataset.version });

function pointOn(ground, event) {
  const point = new DOMPoint(event.clientX, event.clientY);
  const { x, y } = point.matrixTransform(ground.getScreenCTM().inverse());
  return { x, y };
}

function placeOf(area) {
  const [x, y, width, height] = area.dataset.place.split(" ").map(Number);
  return { x, y, width, height };
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

// One request is under way at a time; the newest place waits and goes with the version that came back.
async function send(address, place, selected) {
  waiting = { address, place, selected };
  if (isSending) return;
  isSending = true;
  while (waiting) {
    const { address: to, place: at, selected: picked } = waiting;
    waiting = null;
    const values = { ...seen(), selected: picked, x_mm: at.x, y_mm: at.y, width_mm: at.width, height_mm: at.height };
    await htmx.ajax("POST", to, { target: "#setup", swap: "innerHTML", values });
    // The hand may be further by now than the answer that was just shown.
    const area = waiting && document.querySelector(`#bench [data-imprint="${waiting.selected}"]`);
    if (area) hold(area, waiting.place);
  }
  isSending = false;
}

function pick(area) {
  htmx.ajax("GET", area.dataset.pickAddress, { target: "#setup", swap: "innerHTML" }).then(() => {
    document.getElementById(area.id)?.focus();
  });
}

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
  if (drag.handle) {
    const along = turned({ x: dx, y: dy }, -drag.turn);
    const place = resized(drag.place, drag.handle, along.x, along.y);
    // A turned frame turns about its middle: the corner that stays must stay where it shows.
    const off = { x: place.x + place.width / 2 - drag.place.x - drag.place.width / 2, y: place.y + place.height / 2 - drag.place.y - drag.place.height / 2 };
    const shown = turned(off, drag.turn);
    return { ...place, x: place.x + shown.x - off.x, y: place.y + shown.y - off.y };
  }
  if (drag.area) return { ...drag.place, x: drag.place.x + dx, y: drag.place.y + dy };
  return { x: Math.min(drag.from.x, at.x), y: Math.min(drag.from.y, at.y), width: Math.abs(dx), height: Math.abs(dy) };
}

function drawnRect(ground) {
  const rect = ground.querySelector(".area-drawn") ?? document.createElementNS("http://www.w3.org/2000/svg", "rect");
  rect.setAttribute("class", "area-drawn");
  ground.append(rect);
  return rect;
}

document.addEventListener("pointerdown", (event) => {
  const ground = event.target.closest?.("#bench [data-ground]");
  if (!ground || event.button !== 0) return;
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
  const rect = areaOf(drag)?.querySelector(".area-ground") ?? drawnRect(groundOf(drag));
  rect.classList.add("is-dragged");
  show(rect, moved(event));
});

document.addEventListener("pointerup", (event) => {
  if (!drag || !groundOf(drag)) return;
  const area = areaOf(drag), ground = groundOf(drag), place = moved(event), { isFar } = drag;
  drag = null;
  if (!isFar) {
    if (area) pick(area);
  } else if (area) {
    send(area.dataset.placeAddress, place, area.dataset.imprint);
  } else {
    send(ground.dataset.drawAddress, place, "");
  }
});

document.addEventListener("keydown", (event) => {
  const area = event.target.closest?.("#bench [data-imprint]");
  if (!area) return;
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
  send(area.dataset.placeAddress, place, area.dataset.imprint);
});
