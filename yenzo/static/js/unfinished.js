// What somebody enters for a product is kept: by the workshop, and in this tab for when the line is lost before that.

import { goOnWaiting } from "./uploads.js";

const KEEP_AFTER_MS = 500;
const NOT_ENTERED = new Set(["csrfmiddlewaretoken", "shown", "asked", "told", "missing", "sent-as"]);
const slip = () => document.getElementById("slip-form");
const place = `entries ${slip().dataset.keep} ${slip().querySelector("[name=design]")?.value ?? ""}`;
let timer = null, isKept = true, isSent = false;

function entered() {
  const pairs = [...new FormData(slip())].filter(([name, value]) => typeof value === "string" && !NOT_ENTERED.has(name));
  return new URLSearchParams(pairs).toString();
}

// Browsers may be told to store nothing; then the workshop's copy must do.
function store(entries) {
  try {
    sessionStorage.setItem(place, JSON.stringify({ entries, isKept }));
  } catch { /* as said */ }
}
function stored() {
  try {
    return JSON.parse(sessionStorage.getItem(place));
  } catch {
    return null;
  }
}

function noteKept(is) {
  isKept = is;
  slip().dataset.isKept = is ? "yes" : "no";
}

async function keep() {
  clearTimeout(timer);
  const entries = entered();
  const headers = {
    "X-CSRFToken": slip().querySelector("[name=csrfmiddlewaretoken]").value,
    "Content-Type": "application/x-www-form-urlencoded",
  };
  try {
    const answer = await fetch(slip().dataset.keep, { method: "POST", headers, body: entries, keepalive: true });
    if (!answer.ok || entered() !== entries) return;
  } catch {
    return;
  }
  noteKept(true);
  store(entries);
}

function changed() {
  noteKept(false);
  store(entered());
  clearTimeout(timer);
  timer = setTimeout(keep, KEEP_AFTER_MS);
}
for (const name of ["input", "change", "entries-changed", "file-arrived"]) {
  document.addEventListener(name, ({ target }) => { if (target.closest?.("#slip-form")) changed(); }, { capture: true });
}
// A piece that goes into the basket is finished; whatever else takes the page away is not.
document.addEventListener("submit", ({ defaultPrevented, submitter, target }) => {
  const isAnew = target.id === "anew";
  if (defaultPrevented || (!isAnew && target !== slip())) return;
  isSent = isAnew || !submitter?.hasAttribute("formaction");
  clearTimeout(timer);
  if (isAnew) sessionStorage.removeItem(place);
});
window.addEventListener("pagehide", () => { if (!isKept && !isSent) keep(); });
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

function comeBack() {
  const before = stored();
  const [{ type }] = performance.getEntriesByType("navigation");
  if (!before || (type === "navigate" && before.isKept) || before.entries === entered()) return;
  const values = {};
  for (const [name, value] of new URLSearchParams(before.entries)) (values[name] ??= []).push(value);
  const swap = { target: "#slip-form", select: "#slip-form", swap: "outerHTML", values };
  htmx.ajax("POST", slip().dataset.again, swap).then(() => {
    goOnWaiting();
    changed();
  });
}
comeBack();
