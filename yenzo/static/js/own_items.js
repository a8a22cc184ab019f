// Own items: buttons that add, order, lock, double and take off. Each is a gesture; Python says what comes of it.

import { did, formOf, hold, stateOf } from "./hand.js";

const DOES = {
  forward: (item) => ({ do: "level", item, by: 1 }),
  backward: (item) => ({ do: "level", item, by: -1 }),
  lock: (item) => ({ do: "put", item, locked: true }),
  unlock: (item) => ({ do: "put", item, locked: false }),
  copy: (item) => ({ do: "copy", item }),
  remove: (item) => ({ do: "remove", item }),
};
// Rows that were there before something was added, by form: the new one is taken up.
const before = new WeakMap();
const rowsOf = (form) => [...form.querySelectorAll("[data-own-row]")].map((row) => row.dataset.ownRow);

function add(form, field, item) {
  before.set(form, new Set(rowsOf(form)));
  did(form, { do: "add", field, item });
}

// Each effect is switched by itself; those that are on are told together.
document.addEventListener("click", ({ target }) => {
  const pressed = target.closest?.("[data-effect]");
  if (!pressed) return;
  const isOn = (one) => (one.getAttribute("aria-pressed") === "true") !== (one === pressed);
  const effects = [...pressed.parentElement.children].filter(isOn).map((one) => one.dataset.effect);
  did(formOf(pressed), { do: "put", item: pressed.closest("[data-strip]").dataset.strip, effects });
});

document.addEventListener("click", ({ target }) => {
  const button = target.closest?.("[data-own-add], [data-own-do], [data-own-begin], [data-closes], [data-drawing-tag]");
  if (!button) return;
  const form = formOf(button), { ownAdd, ownDo, ownBegin, ownField, itemId, drawingTag } = button.dataset;
  if (ownAdd) {
    button.closest("dialog")?.close();
    add(form, ownField ?? button.closest("[data-own]").dataset.own, JSON.parse(ownAdd));
  } else if (ownDo) {
    did(form, DOES[ownDo](itemId));
  } else if (ownBegin) {
    did(form, JSON.parse(ownBegin));
  } else if (drawingTag !== undefined) {
    const isPressed = button.getAttribute("aria-pressed") !== "true";
    for (const one of button.parentElement.children) one.setAttribute("aria-pressed", String(one === button && isPressed));
    find(button.closest("dialog"));
  } else {
    button.closest("dialog").close();
  }
});

// A file that was accepted goes on the goods; one that was made anew, in the place of what it was made from.
document.addEventListener("file-kept", ({ target, detail }) => {
  const field = target.dataset.ownDrop, file = target.querySelector(".one-file:last-child")?.dataset.file;
  if (!field || !file) return;
  if (detail.item) did(formOf(target), { do: "put", item: detail.item, file });
  else add(formOf(target), field, { kind: "picture", file });
});

// What was added is held, and its words can be typed at once.
document.addEventListener("htmx:afterRequest", ({ detail }) => {
  const form = detail.elt;
  if (!form.matches?.("#slip-form, #try-out")) return;
  takeUp(document.activeElement);
  const known = before.get(form);
  if (!known) return;
  const added = rowsOf(form).find((row) => !known.has(row));
  if (!added) return;
  before.delete(form);
  const box = form.querySelector(`[data-own-text="${CSS.escape(added)}"]`);
  if (box) box.focus();
  else if (form.querySelector(`[data-hold="${CSS.escape(added)}"]`)) hold(form, added, { focus: true });
});

// Whoever types in an item's box has it in hand.
function takeUp(target) {
  const item = target?.dataset?.ownText, form = item && formOf(target);
  if (form && stateOf(form).selected !== item && form.querySelector(`[data-hold="${CSS.escape(item)}"]`)) hold(form, item);
}
document.addEventListener("focusin", ({ target }) => takeUp(target));

function find(dialog) {
  const words = dialog.querySelector("[data-search-drawings]").value.trim().toLowerCase().split(/\s+/);
  const tag = dialog.querySelector("[data-drawing-tag][aria-pressed=true]")?.dataset.drawingTag;
  let count = 0;
  for (const one of dialog.querySelectorAll("[data-found-by]")) {
    const text = one.dataset.foundBy;
    one.hidden = !words.every((word) => text.includes(word)) || (tag && !text.includes(tag));
    count += one.hidden ? 0 : 1;
  }
  dialog.querySelector("[data-nothing-found]").hidden = count > 0;
}
document.addEventListener("input", (event) => {
  if (!event.target.matches?.("[data-search-drawings]")) return;
  event.stopPropagation();
  find(event.target.closest("dialog"));
}, { capture: true });
document.addEventListener("keydown", (event) => {
  // Enter in the search searches, and sends nothing.
  if (event.key === "Enter" && event.target.matches?.("[data-search-drawings]")) event.preventDefault();
});
