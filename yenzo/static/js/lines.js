// Lines of the order form: moved by dragging or with Alt and the arrow keys; the server gives the new order.

let dragged = null;

function move(line, position) {
  const last = document.querySelectorAll("#sentences [data-line]").length - 1;
  if (position < 0 || position > last || position === Number(line.dataset.position)) return;
  const values = { position, seen: document.getElementById("draft").dataset.version };
  htmx.ajax("POST", line.dataset.moveAddress, { target: "#setup", swap: "innerHTML", values });
}

document.addEventListener("keydown", (event) => {
  const line = event.target.closest?.("#sentences [data-line]");
  if (!line || !event.altKey) return;
  const step = { ArrowUp: -1, ArrowDown: 1 }[event.key];
  if (!step) return;
  event.preventDefault();
  move(line, Number(line.dataset.position) + step);
});

document.addEventListener("dragstart", (event) => {
  dragged = event.target.closest?.(".grip")?.closest("[data-line]") ?? null;
  if (dragged) {
    event.dataTransfer.effectAllowed = "move";
    event.dataTransfer.setDragImage(dragged, 20, 20);
  }
});
document.addEventListener("dragover", (event) => {
  const over = event.target.closest?.("#sentences [data-line]");
  if (!dragged || !over) return;
  event.preventDefault();
  for (const line of document.querySelectorAll("#sentences .is-over")) line.classList.remove("is-over");
  over.classList.add("is-over");
});
document.addEventListener("drop", (event) => {
  const over = event.target.closest?.("#sentences [data-line]");
  if (dragged && over) {
    event.preventDefault();
    move(dragged, Number(over.dataset.position));
  }
  dragged = null;
});
document.addEventListener("dragend", () => { dragged = null; });
