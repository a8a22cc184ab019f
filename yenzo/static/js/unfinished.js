// What somebody enters for a product is kept: by the workshop, and in this tab for when the line is lost before that.

import { ask } from "./asking.js";
import { whenIdle } from "./idle.js";
import { tab } from "./memory.js";
import { goOnWaiting } from "./uploads.js";

// Browsers send no more than 64 kB for a page that is left.
const NOTED_AFTER_MS = 300, KEEP_AFTER_MS = 500, MOST_WHEN_LEFT = 60_000;
const NOT_ENTERED = new Set(["csrfmiddlewaretoken", "shown", "asked", "messages-shown", "missing", "sent-as", "selected-item", "gestures-to"]);
const slip = () => document.getElementById("slip-form");
const place = `entries ${slip().dataset.keep} ${slip().querySelector("[name=design]")?.value ?? ""}`;
let timer = null, isNoting = false, isKept = true, isSent = false;

function entered() {
  const pairs = [...new FormData(slip())].filter(([name, value]) => typeof value === "string" && !NOT_ENTERED.has(name));
  return new URLSearchParams(pairs).toString();
}

function noteKept(is, entries) {
  isNoting = false;
  isKept = is;
  slip().dataset.isKept = is ? "yes" : "no";
  tab.remember(place, { entries, isKept });
}

async function keep() {
  clearTimeout(timer);
  // What the rows of a list share is kept with the list.
  if (!slip().dataset.keep) return;
  const entries = entered();
  const headers = {
    "X-CSRFToken": slip().querySelector("[name=csrfmiddlewaretoken]").value,
    "Content-Type": "application/x-www-form-urlencoded",
  };
  try {
    const keepalive = entries.length < MOST_WHEN_LEFT;
    const answer = await fetch(slip().dataset.keep, { method: "POST", headers, body: entries, keepalive });
    if (!answer.ok || entered() !== entries) return;
  } catch {
    return;
  }
  noteKept(true, entries);
}

const noteNow = () => noteKept(false, entered());
function noteLater() {
  if (isNoting) return;
  isNoting = true;
  whenIdle(() => { if (isNoting) noteNow(); }, NOTED_AFTER_MS);
}

function changed() {
  // What comes back is not to be forgotten for what was there before it.
  if (slip().comesBack) return;
  isKept = false;
  slip().dataset.isKept = "no";
  // The request for what it looks like goes first, and what comes of it.
  noteLater();
  clearTimeout(timer);
  timer = setTimeout(keep, KEEP_AFTER_MS);
}
for (const name of ["input", "change", "entries-changed", "file-arrived"]) {
  document.addEventListener(name, ({ target }) => { if (target.closest?.("#slip-form")) changed(); }, { capture: true });
}
// A piece that goes into the basket or is put away is finished; whatever else takes the page away is not.
document.addEventListener("submit", ({ defaultPrevented, submitter, target }) => {
  const isAnew = target.id === "anew";
  if (defaultPrevented || (!isAnew && target !== slip())) return;
  isSent = isAnew || !submitter?.hasAttribute("formaction") || submitter.hasAttribute("data-finishes");
  clearTimeout(timer);
  // Whoever comes back by Back or a reload finds it; whoever opens the product another time doesn't.
  if (isAnew) tab.forget(place);
  else if (isSent) noteKept(true, entered());
});
window.addEventListener("pagehide", () => {
  if (isNoting) noteNow();
  if (!isKept && !isSent) keep();
});
window.addEventListener("online", () => { if (!isKept) keep(); });

// The page as a browser's history kept it may be an old one.
window.addEventListener("pageshow", ({ persisted }) => {
  isSent = false;
  const isBack = persisted || performance.getEntriesByType("navigation")[0].type === "back_forward";
  // What is sent from here now is another piece than the one that was sent before.
  const sentAs = isBack && slip().querySelector("[name=sent-as]");
  if (sentAs) sentAs.value = Array.from(crypto.getRandomValues(new Uint8Array(16)), (byte) => byte.toString(16).padStart(2, "0")).join("");
  if (persisted) slip().dispatchEvent(new Event("entries-changed"));
});

// What is sent meanwhile is sent with what comes back.
document.addEventListener("submit", (event) => {
  const { target, submitter } = event;
  if (!target.comesBack) return;
  event.preventDefault();
  event.stopImmediatePropagation();
  const address = submitter?.getAttribute("formaction");
  target.comesBack.then(() => slip().requestSubmit(address ? slip().querySelector(`[formaction="${CSS.escape(address)}"]`) : null));
}, { capture: true });

function comeBack() {
  const before = tab.recall(place);
  const [{ type }] = performance.getEntriesByType("navigation");
  // A piece that was refused is begun, and not finished.
  if (slip().querySelector("[name=missing]")) return changed();
  if (!before || (type === "navigate" && before.isKept) || before.entries === entered()) return;
  const values = {};
  for (const [name, value] of new URLSearchParams(before.entries)) (values[name] ??= []).push(value);
  const blank = slip(), swap = { target: "#slip-form", select: "#slip-form", swap: "outerHTML", values };
  blank.comesBack = ask("POST", blank.dataset.again, () => swap);
  blank.comesBack.then(() => {
    delete blank.comesBack;
    goOnWaiting();
    changed();
  });
}
comeBack();
