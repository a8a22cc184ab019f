// Cutting a file to a part: a frame over its picture is moved by the hand, or its edges are typed; uploads.js sends them.

const LEAST_PERCENT = 2;
let drag = null;

const inputsOf = (crop) => Object.fromEntries(["left", "top", "right", "bottom"].map((edge) => [edge, crop.querySelector(`[name=crop_${edge}]`)]));
const valuesOf = (crop) => Object.fromEntries(Object.entries(inputsOf(crop)).map(([edge, input]) => [edge, Number(input.value)]));

function show(crop, { left, top, right, bottom }) {
  const frame = crop.querySelector("[data-crop-frame]");
  if (!frame) return;
  Object.assign(frame.style, { left: `${left}%`, top: `${top}%`, width: `${right - left}%`, height: `${bottom - top}%` });
}

function put(crop, values) {
  for (const [edge, input] of Object.entries(inputsOf(crop))) input.value = values[edge].toFixed(1);
  show(crop, values);
}
const send = (crop) => crop.querySelector("[name=crop_left]").dispatchEvent(new Event("change", { bubbles: true }));

document.addEventListener("toggle", ({ target }) => { if (target.matches?.("[data-crop]") && target.open) show(target, valuesOf(target)); }, { capture: true });

document.addEventListener("pointerdown", (event) => {
  const frame = event.target.closest?.("[data-crop-frame]");
  if (!frame) return;
  const crop = frame.closest("[data-crop]"), box = frame.parentElement.getBoundingClientRect();
  drag = { crop, box, corner: event.target.dataset.corner ?? "", from: [event.clientX, event.clientY], start: valuesOf(crop), now: null };
  frame.setPointerCapture(event.pointerId);
  event.preventDefault();
});
document.addEventListener("pointermove", (event) => {
  if (!drag) return;
  const dx = ((event.clientX - drag.from[0]) / drag.box.width) * 100, dy = ((event.clientY - drag.from[1]) / drag.box.height) * 100;
  const { left, top, right, bottom } = drag.start, { corner } = drag;
  const within = (value, least, most) => Math.min(Math.max(value, least), most);
  if (!corner) {
    const x = within(dx, -left, 100 - right), y = within(dy, -top, 100 - bottom);
    drag.now = { left: left + x, right: right + x, top: top + y, bottom: bottom + y };
  } else {
    drag.now = {
      left: corner.includes("w") ? within(left + dx, 0, right - LEAST_PERCENT) : left,
      right: corner.includes("e") ? within(right + dx, left + LEAST_PERCENT, 100) : right,
      top: corner.includes("n") ? within(top + dy, 0, bottom - LEAST_PERCENT) : top,
      bottom: corner.includes("s") ? within(bottom + dy, top + LEAST_PERCENT, 100) : bottom,
    };
  }
  show(drag.crop, drag.now);
});
document.addEventListener("pointerup", () => {
  const { crop, now } = drag ?? {};
  drag = null;
  if (!now) return;
  put(crop, now);
  send(crop);
});

document.addEventListener("click", ({ target }) => {
  const all = target.closest?.("[data-crop-all]"), ratio = target.closest?.("[data-crop-ratio]");
  const crop = (all ?? ratio)?.closest("[data-crop]");
  if (!crop) return;
  if (all) {
    put(crop, { left: 0, top: 0, right: 100, bottom: 100 });
  } else {
    // As much of the middle as has the shape of where it goes.
    const picture = crop.querySelector("img"), wanted = Number(crop.closest("[data-ratio]")?.dataset.ratio) || 1;
    const share = wanted / (picture.naturalWidth / picture.naturalHeight), wide = Math.min(1, share) * 50, high = Math.min(1, 1 / share) * 50;
    put(crop, { left: 50 - wide, top: 50 - high, right: 50 + wide, bottom: 50 + high });
  }
  send(crop);
});
