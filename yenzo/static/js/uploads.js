// Files of customers: sent with progress, followed until they are accepted or refused. Python decides all the rest.

import { AWAY, MOST_TRIES, untilNextTry } from "./trying.js";

const FIRST_ASK_MS = 150, LONGEST_ASK_MS = 2000;
const formOf = (element) => element.closest("form");

document.addEventListener("click", ({ target }) => {
  const drop = target.closest?.("[data-drop-upload]");
  if (drop) {
    const form = formOf(drop);
    drop.closest(".one-file").remove();
    form.dispatchEvent(new Event("entries-changed"));
  }
});

// A file has arrived and is looked at: it is asked for until it is accepted or refused, ever less often.
function follow(address, tell, done) {
  let wait = FIRST_ASK_MS;
  const ask = async () => {
    let answer;
    try {
      answer = await fetch(address, { headers: { "X-Requested-With": "XMLHttpRequest" } });
    } catch {
      answer = null;
    }
    // Whoever is away for a moment, or asks too often, is asked again.
    if (answer && answer.status !== 202 && answer.status < 429) return done(answer.status, await answer.text(), answer.headers.get("Content-Type") ?? "");
    if (answer?.status === 202) tell(await answer.text());
    wait = Math.min(wait * 1.4, LONGEST_ASK_MS);
    setTimeout(ask, wait);
  };
  setTimeout(ask, wait);
}

// What is on its way, by field: its line may be laid out anew meanwhile, and shows it again then.
const underWay = new Map();
const dropOf = (key) => document.querySelector(`[data-upload="${key}"]`);

function showUnderWay(key) {
  const drop = dropOf(key), state = underWay.get(key);
  if (!drop) return;
  const progress = drop.querySelector("progress"), said = drop.querySelector("[data-looking]"), problem = drop.querySelector(".problem");
  progress.hidden = !state || Boolean(state.problem);
  if (state?.share === undefined) progress.removeAttribute("value");
  else progress.value = state.share;
  said.textContent = state?.words ?? "";
  said.hidden = !state?.words;
  problem.textContent = state?.problem ?? "";
  problem.hidden = !state?.problem;
  // A reload goes on waiting for what has arrived.
  drop.querySelector(`[name="waits-${key}"]`)?.remove();
  if (state?.waitsFor) drop.append(Object.assign(document.createElement("input"), { type: "hidden", name: `waits-${key}`, value: state.waitsFor }));
}
for (const name of ["htmx:oobAfterSwap", "htmx:afterSwap"]) {
  document.addEventListener(name, () => { for (const key of underWay.keys()) showUnderWay(key); });
}

// An answer knows nothing of files that came, or were taken off, since it was asked for: where it lays out their line,
// or the whole form, they stay as they are now.
const asked = new WeakMap(), whenAnswered = new WeakMap();
const fileRows = document.getElementsByClassName("one-file");
const files = () => new Map([...fileRows].map((row) => row.querySelector("[type=hidden][name^=upload-]")).filter(Boolean).map((own) => [own.value, own]));
document.addEventListener("htmx:beforeRequest", ({ detail: { xhr } }) => { asked.set(xhr, files()); });
document.addEventListener("htmx:beforeSwap", ({ detail: { xhr } }) => { whenAnswered.set(xhr, files()); });
// Not before what was laid out listens.
document.addEventListener("htmx:afterSettle", ({ detail: { xhr } }) => {
  const before = asked.get(xhr), then = whenAnswered.get(xhr);
  if (!before || !then) return;
  const changed = new Set();
  for (const [file, own] of then) {
    const key = own.name.slice("upload-".length), drop = dropOf(key);
    if (before.has(file) || files().has(file) || !drop) continue;
    keptIn(drop)(document.getElementById(`held-${key}`), own.closest(".one-file").outerHTML);
    changed.add(formOf(drop));
  }
  for (const [file, own] of files()) {
    if (!before.has(file) || then.has(file)) continue;
    changed.add(formOf(own));
    own.closest(".one-file").remove();
  }
  for (const form of changed) form.dispatchEvent(new Event("entries-changed"));
});

const isUnderWay = () => [...underWay.values()].some((state) => !state.problem);

// `keep` puts the row of the file in its place; `next` goes on with what else was picked; `item` is what it was made for.
function outcome(drop, keep, next, item = "") {
  const key = drop.dataset.upload, words = { ...drop.dataset };
  // It may be laid out anew meanwhile.
  const form = () => formOf(dropOf(key) ?? drop);
  const tell = (state) => { underWay.set(key, state); showUnderWay(key); };
  const finish = (problem) => {
    if (problem) underWay.set(key, { problem });
    else underWay.delete(key);
    showUnderWay(key);
    const picker = dropOf(key)?.querySelector("input[type=file]");
    if (picker) picker.value = "";
    if (!problem) next();
    goOn(form());
  };
  const done = (status, text, kind) => {
    if (status === 200) {
      keep(document.getElementById(`held-${key}`), text);
      dropOf(key)?.dispatchEvent(new CustomEvent("file-kept", { bubbles: true, detail: { item } }));
      form().dispatchEvent(new Event("entries-changed"));
      finish("");
    } else {
      finish(kind.startsWith("text/plain") ? text : status === 413 ? words.tooLarge : words.notTaken);
    }
  };
  const arrived = (said, address, waitsFor) => {
    tell({ words: said, waitsFor });
    form().dispatchEvent(new Event("file-arrived"));
    follow(address, (now) => tell({ words: now, waitsFor }), done);
  };
  return { tell, finish, done, arrived };
}

// A file that is larger goes part by part, so that a broken line costs one part only.
const PART_BYTES = 500_000;
const tokenOf = (drop) => formOf(drop).querySelector("[name=csrfmiddlewaretoken]").value;

// Sends a body; resolves with the request when it was answered, with nothing when the line broke or nobody was there.
function sent(drop, address, body, tell = () => {}) {
  return new Promise((done) => {
    const request = new XMLHttpRequest();
    request.upload.addEventListener("progress", (event) => tell(event.loaded));
    request.addEventListener("load", () => done(AWAY.includes(request.status) ? null : request));
    for (const name of ["error", "abort", "timeout"]) request.addEventListener(name, () => done(null));
    request.open("POST", address);
    request.setRequestHeader("X-CSRFToken", tokenOf(drop));
    request.send(body);
  });
}

// A name for this sending of a file, like any other UUID; browsers make them by themselves only on safe lines.
function newKey() {
  const bytes = crypto.getRandomValues(new Uint8Array(16));
  return [...bytes].map((byte) => byte.toString(16).padStart(2, "0")).join("");
}

async function postInParts(drop, file, keep, next) {
  const { tell, finish, done, arrived } = outcome(drop, keep, next), words = { ...drop.dataset }, key = newKey();
  const end = (answer) => (answer.status === 202
    ? arrived(answer.responseText, answer.getResponseHeader("Location"), answer.getResponseHeader("Upload-Id"))
    : done(answer.status, answer.responseText, answer.getResponseHeader("Content-Type") ?? ""));
  const goesOn = (answer) => answer?.status === 200;
  const begin = new URL(words.begin, location.href), share = (bytes) => (100 * bytes) / file.size;
  begin.search = new URL(words.address, location.href).search;
  let arrivedBytes = 0;
  tell({ share: 0 });
  for (let failed = 0; failed < MOST_TRIES; failed += 1) {
    const body = new FormData();
    for (const [name, value] of Object.entries({ key, name: file.name, size: file.size, modified: file.lastModified })) body.append(name, value);
    let answer = await sent(drop, begin, body);
    while (goesOn(answer)) {
      const at = Number(answer.getResponseHeader("Upload-Offset"));
      if (at > arrivedBytes) failed = 0;
      arrivedBytes = at;
      const address = `${answer.getResponseHeader("Location")}&at=${at}`;
      answer = await sent(drop, address, file.slice(at, at + PART_BYTES), (bytes) => tell({ share: share(at + bytes) }));
    }
    if (answer) return end(answer);
    tell({ share: share(arrivedBytes), words: words.lineBroke });
    await untilNextTry(failed);
  }
  return finish(words.notArrived);
}

function post(drop, address, body, keep, { next = () => {}, isNew = false, item = "", again = null } = {}) {
  const { tell, finish, done, arrived } = outcome(drop, keep, next, item);
  const request = new XMLHttpRequest();
  request.upload.addEventListener("progress", (event) => {
    if (event.lengthComputable) tell({ share: (100 * event.loaded) / event.total });
  });
  // All has arrived: how long it takes to be looked at can't be told.
  request.upload.addEventListener("load", () => tell({}));
  request.addEventListener("load", () => {
    if (request.status === 202) {
      arrived(request.responseText, request.getResponseHeader("Location"), isNew && request.getResponseHeader("Upload-Id"));
    } else {
      done(request.status, request.responseText, request.getResponseHeader("Content-Type") ?? "");
    }
  });
  request.addEventListener("error", () => (again ? again() : finish(drop.dataset.notArrived)));
  tell({ share: 0 });
  request.open("POST", address);
  request.setRequestHeader("X-CSRFToken", tokenOf(drop));
  request.send(body);
}

// Whoever sends the form while a file is on its way is told, and it goes by itself as soon as the file is there.
document.addEventListener("submit", (event) => {
  const form = event.target;
  if (!form.matches("#slip-form") || !isUnderWay()) return;
  event.preventDefault();
  event.stopImmediatePropagation();
  form.sendsWith = event.submitter;
  form.querySelector("[data-waits-for-files]").hidden = false;
}, { capture: true });

function goOn(form) {
  if (!form.sendsWith || isUnderWay()) return;
  const submitter = form.sendsWith;
  delete form.sendsWith;
  form.querySelector("[data-waits-for-files]").hidden = true;
  const refused = [...underWay.keys()].map(dropOf).find((drop) => drop);
  if (refused) refused.querySelector("input[type=file]").focus();
  else form.requestSubmit(submitter);
}

// Nobody waits for a file to be sent that its name or size shows to be refused. What has no kind by its name may be any.
function canBeTaken(drop, file) {
  const taken = drop.querySelector("input[type=file]").accept.split(","), name = file.name.toLowerCase();
  const isOfKind = !file.type || taken.includes(file.type) || taken.some((end) => end.startsWith(".") && name.endsWith(end));
  return isOfKind && file.size <= Number(drop.dataset.mostBytes);
}

const isMany = (drop) => drop.dataset.many !== undefined;
const keptIn = (drop) => (held, row) => {
  if (!isMany(drop)) held.replaceChildren();
  held.insertAdjacentHTML("beforeend", row);
};

function send(sentFrom, [file, ...more]) {
  if (!file) return;
  const drop = dropOf(sentFrom.dataset.upload) ?? sentFrom;
  if (!canBeTaken(drop, file)) {
    underWay.set(drop.dataset.upload, { problem: drop.dataset.notHere });
    showUnderWay(drop.dataset.upload);
    drop.querySelector("input[type=file]").value = "";
    return;
  }
  // One after another: what is refused stops those behind it, and says why.
  const next = () => { if (isMany(drop)) send(drop, more); };
  const inParts = () => postInParts(drop, file, keptIn(drop), next);
  if (file.size > PART_BYTES) {
    inParts();
    return;
  }
  const body = new FormData();
  body.append("file", file);
  post(drop, drop.dataset.address, body, keptIn(drop), { next, isNew: true, again: inParts });
}

// A picture that the server fetches itself arrives as one that was sent.
export function fetchInto(drop, address, body) {
  post(drop, address, body, keptIn(drop), { isNew: true });
}

function prepare(controls) {
  const body = new FormData();
  for (const control of controls.querySelectorAll("[name]")) {
    if (control.type !== "checkbox" || control.checked) body.append(control.name, control.value);
  }
  const item = controls.dataset.preparedFor;
  if (item) {
    // What it was made from stays: the hand may go back to it.
    const drop = dropOf(controls.closest("[data-own]").dataset.own);
    post(drop, controls.dataset.prepare, body, keptIn(drop), { item });
    return;
  }
  const drop = controls.closest("[data-upload]");
  const own = controls.closest(".one-file").querySelector("[type=hidden][name^=upload]").value;
  const keep = (held, row) => {
    const file = held.querySelector(`[type=hidden][value="${own}"]`)?.closest(".one-file");
    if (file) file.outerHTML = row;
  };
  post(drop, controls.dataset.prepare, body, keep);
}

document.addEventListener("change", (event) => {
  const drop = event.target.closest?.("[data-upload]");
  const controls = event.target.closest?.("[data-prepare]");
  if (controls) prepare(controls);
  if (!drop || event.target.type !== "file") return;
  event.stopPropagation();
  send(drop, [...event.target.files]);
});
for (const name of ["dragover", "dragleave", "drop"]) {
  document.addEventListener(name, (event) => {
    const drop = event.target.closest?.("[data-upload]");
    if (!drop) return;
    event.preventDefault();
    drop.classList.toggle("is-over", name === "dragover");
    if (name === "drop") send(drop, [...event.dataTransfer.files]);
  });
}

// A page that was left while a file was looked at goes on waiting for it.
export function goOnWaiting() {
  for (const row of document.querySelectorAll("[data-waits]")) {
    const drop = row.closest("[data-upload]");
    outcome(drop, keptIn(drop), () => {}).arrived(row.textContent.trim(), row.dataset.waits, row.dataset.waitsFor);
    row.remove();
  }
}
