// The week: cards are dragged to another day of their station, or moved by the arrow keys. Python plans them.

import { ask } from "./asking.js";

const FAR_ENOUGH_PX = 5;
// What is dragged is held by its name: the board may be laid out anew meanwhile.
let held = null, wasDragged = false;
const stationOf = (element) => element.closest("tr").dataset.station;

function dayUnder(x, y) {
  const cell = document.elementFromPoint(x, y)?.closest("td[data-day]");
  // Another station's work can't be done here.
  return cell && stationOf(cell) === held.station ? cell : null;
}

// `dayOf` tells the day when it is sent: what was moved before it may have changed that.
async function plan({ id, dataset: { line, place } }, dayOf) {
  await ask("POST", document.getElementById("board").dataset.plans, () => {
    const day = dayOf(), { value: csrfmiddlewaretoken } = document.querySelector("[name=csrfmiddlewaretoken]");
    return day && { target: "#board", swap: "outerHTML", values: { line, place, day, csrfmiddlewaretoken } };
  });
  document.getElementById(id)?.focus();
}

function dayBeside(id, step) {
  const card = document.getElementById(id), cells = [...(card?.closest("tr").querySelectorAll("td[data-day]") ?? [])];
  return cells[cells.indexOf(card?.closest("td")) + step]?.dataset.day;
}

document.addEventListener("pointerdown", (event) => {
  const card = event.target.closest?.("[data-plans] .job-card");
  // Fingers scroll; who has no mouse plans on the job's own page.
  if (!card || event.button !== 0 || event.pointerType === "touch") return;
  held = { card, x: event.clientX, y: event.clientY, station: stationOf(card), cell: null, isMoving: false };
});

document.addEventListener("pointermove", (event) => {
  if (!held) return;
  const right = event.clientX - held.x, down = event.clientY - held.y;
  if (!held.isMoving && Math.hypot(right, down) < FAR_ENOUGH_PX) return;
  held.isMoving = true;
  held.card = document.getElementById(held.card.id) ?? held.card;
  held.card.classList.add("is-held");
  held.card.style.transform = `translate(${right}px, ${down}px)`;
  const cell = dayUnder(event.clientX, event.clientY);
  if (cell !== held.cell) {
    held.cell?.classList.remove("is-over-here");
    cell?.classList.add("is-over-here");
    held.cell = cell;
  }
});

function letGo(plans) {
  if (!held) return;
  const { card, cell, isMoving } = held;
  card.classList.remove("is-held");
  card.style.transform = "";
  cell?.classList.remove("is-over-here");
  held = null;
  if (!isMoving) return;
  wasDragged = true;
  setTimeout(() => { wasDragged = false; }, 0);
  if (plans && cell && cell !== card.closest("td")) {
    const { day } = cell.dataset;
    plan(card, () => day);
  }
}

// What was dragged isn't opened.
document.addEventListener("click", (event) => { if (wasDragged) event.preventDefault(); }, { capture: true });
document.addEventListener("pointerup", () => letGo(true));
document.addEventListener("pointercancel", () => letGo(false));
document.addEventListener("keydown", (event) => {
  if (event.key === "Escape") letGo(false);
  const card = event.target.closest?.("[data-plans] .job-card");
  const step = { ArrowLeft: -1, ArrowRight: 1 }[event.key];
  if (!card || !step || event.altKey || event.ctrlKey || event.metaKey) return;
  event.preventDefault();
  plan(card, () => dayBeside(card.id, step));
});
