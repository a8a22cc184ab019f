// The week: cards are dragged to another day of their station, or moved by the arrow keys. Python plans them.

const FAR_ENOUGH_PX = 5;
let held = null, wasDragged = false;

function dayUnder(x, y) {
  const cell = document.elementFromPoint(x, y)?.closest("td[data-day]");
  // Another station's work can't be done here.
  return cell && cell.parentElement === held.row ? cell : null;
}

function plan(card, day) {
  const board = document.getElementById("board"), { line, place } = card.dataset;
  const token = document.querySelector("[name=csrfmiddlewaretoken]").value;
  const values = { line, place, day, csrfmiddlewaretoken: token };
  htmx.ajax("POST", board.dataset.plans, { target: "#board", swap: "outerHTML", values }).then(() => document.getElementById(card.id)?.focus());
}

document.addEventListener("pointerdown", (event) => {
  const card = event.target.closest?.("[data-plans] .job-card");
  // Fingers scroll; who has no mouse plans on the job's own page.
  if (!card || event.button !== 0 || event.pointerType === "touch") return;
  held = { card, x: event.clientX, y: event.clientY, row: card.closest("tr"), cell: null, isMoving: false };
});

document.addEventListener("pointermove", (event) => {
  if (!held) return;
  const right = event.clientX - held.x, down = event.clientY - held.y;
  if (!held.isMoving && Math.hypot(right, down) < FAR_ENOUGH_PX) return;
  held.isMoving = true;
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
  if (plans && cell && cell !== card.closest("td")) plan(card, cell.dataset.day);
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
  const cells = [...card.closest("tr").querySelectorAll("td[data-day]")];
  const cell = cells[cells.indexOf(card.closest("td")) + step];
  event.preventDefault();
  if (cell) plan(card, cell.dataset.day);
});
