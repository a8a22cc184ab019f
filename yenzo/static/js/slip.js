// The slip: which side is in view, goods' pictures of variants, uploads with progress. Python decides all the rest.

const AGAIN_AFTER_MS = 1500;
const FIRST_ASK_MS = 150, LONGEST_ASK_MS = 2000;
const CONTROL = ":is(input:not([type=hidden]), textarea, select)";
let isTurning = false;
const formOf = (element) => element.closest("form");

function showSide(form, key) {
  for (const goods of form.querySelectorAll("figure[data-side]")) goods.hidden = goods.dataset.side !== key;
  for (const thumb of form.querySelectorAll("[data-show-side]")) {
    thumb.setAttribute("aria-pressed", String(thumb.dataset.showSide === key));
  }
}

function sideInView(form) {
  return form.querySelector("figure[data-side]:not([hidden])")?.dataset.side ?? "";
}

document.addEventListener("click", ({ target }) => {
  const thumb = target.closest?.("[data-show-side]");
  if (thumb) showSide(formOf(thumb), thumb.dataset.showSide);
  const turn = target.closest?.("[data-go]");
  if (turn) {
    // It goes with the form's next request, whichever that is: a request of its own could be overtaken and lost.
    formOf(turn).go = turn.dataset.go;
    formOf(turn).dispatchEvent(new Event("entries-changed"));
  }
  const drop = target.closest?.("[data-drop-upload]");
  if (drop) {
    const form = formOf(drop);
    drop.closest(".one-file").remove();
    form.dispatchEvent(new Event("entries-changed"));
  }
});

// Whoever begins to type sees the side that it goes on.
document.addEventListener("focusin", ({ target }) => {
  const side = target.closest?.(".line[data-goes-to]")?.dataset.goesTo;
  if (side && formOf(target)?.querySelector(`figure[data-side="${side}"][hidden]`)) showSide(formOf(target), side);
});

document.addEventListener("htmx:configRequest", ({ detail }) => {
  const form = detail.elt;
  if (!form.matches("#slip-form, #try-out")) return;
  detail.parameters.set("view", sideInView(form));
  if (form.go === undefined) return;
  detail.parameters.set("go", form.go);
  isTurning = true;
  delete form.go;
});

// What was typed is never left without its answer: a refresh that fails or hangs is asked for again.
for (const failure of ["htmx:sendError", "htmx:timeout", "htmx:responseError"]) {
  document.addEventListener(failure, ({ detail }) => {
    const form = detail.elt;
    if (!form.matches("#slip-form, #try-out")) return;
    clearTimeout(form.again);
    form.again = setTimeout(() => form.dispatchEvent(new Event("entries-changed")), AGAIN_AFTER_MS);
  });
}

// The ink says which picture of the goods it belongs on, and how large they are: a variant may bring its own, and an
// entry may say it.
document.addEventListener("htmx:oobAfterSwap", ({ detail }) => {
  const ink = detail.target.querySelector?.("[data-ink]");
  if (!ink) return;
  for (const image of document.querySelectorAll(`[data-goods="${ink.dataset.ink}"]`)) {
    if (image.getAttribute("href") !== ink.dataset.picture) image.setAttribute("href", ink.dataset.picture);
    const [width, height] = ink.dataset.size.split(" ");
    if (image.getAttribute("width") === width && image.getAttribute("height") === height) continue;
    image.setAttribute("width", width);
    image.setAttribute("height", height);
    image.closest("svg").setAttribute("viewBox", `0 0 ${width} ${height}`);
  }
});

// A control is marked as wrong as long as something wrong is said of it.
document.addEventListener("htmx:oobAfterSwap", ({ detail }) => {
  const key = detail.target.id?.startsWith("said-") ? detail.target.id.slice("said-".length) : null;
  if (key === null) return;
  const isWrong = Boolean(detail.target.querySelector(".problem"));
  for (const control of document.querySelectorAll(`#entry-${CSS.escape(key)}`)) {
    if (isWrong) control.setAttribute("aria-invalid", "true");
    else control.removeAttribute("aria-invalid");
  }
});

// Which sections are shown is Python's to say; it comes with the state of the slip.
document.addEventListener("htmx:oobAfterSwap", ({ detail }) => {
  if (detail.target.id !== "slip-state") return;
  const page = detail.target.querySelector("[data-hidden-sections]");
  const hidden = new Set(page.dataset.hiddenSections.split(" "));
  let turned = null;
  for (const section of document.querySelectorAll(".slip-section")) {
    const isNew = section.hidden && !hidden.has(section.id);
    section.hidden = hidden.has(section.id);
    if (isNew && section.id === `section-${page.value}`) turned = section;
  }
  const isPaged = document.querySelector("#page-turns > *");
  if (turned && isPaged) turned.querySelector(`.line:not([hidden]) ${CONTROL}`)?.focus();
  // A page that must be finished first shows where.
  if (isTurning && !turned) document.querySelector(".slip-section:not([hidden]) .line:has(.problem) " + CONTROL)?.focus();
  isTurning = false;
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
}
document.addEventListener("htmx:oobAfterSwap", () => { for (const key of underWay.keys()) showUnderWay(key); });

const isUnderWay = () => [...underWay.values()].some((state) => !state.problem);

// `keep` puts the row of the file in its place; `next` goes on with what else was picked.
function post(drop, address, body, keep, next = () => {}) {
  const form = formOf(drop), key = drop.dataset.upload, words = { ...drop.dataset };
  const request = new XMLHttpRequest();
  const tell = (state) => { underWay.set(key, state); showUnderWay(key); };
  const finish = (problem) => {
    if (problem) underWay.set(key, { problem });
    else underWay.delete(key);
    showUnderWay(key);
    const picker = dropOf(key)?.querySelector("input[type=file]");
    if (picker) picker.value = "";
    if (!problem) next();
    goOn(form);
  };
  const done = (status, text, kind) => {
    if (status === 200) {
      keep(document.getElementById(`held-${key}`), text);
      form.dispatchEvent(new Event("entries-changed"));
      finish("");
    } else {
      finish(kind.startsWith("text/plain") ? text : status === 413 ? words.tooLarge : words.notTaken);
    }
  };
  request.upload.addEventListener("progress", (event) => {
    if (event.lengthComputable) tell({ share: (100 * event.loaded) / event.total });
  });
  // All has arrived: how long it takes to be looked at can't be told.
  request.upload.addEventListener("load", () => tell({}));
  request.addEventListener("load", () => {
    if (request.status === 202) {
      tell({ words: request.responseText });
      follow(request.getResponseHeader("Location"), (said) => tell({ words: said }), done);
    } else {
      done(request.status, request.responseText, request.getResponseHeader("Content-Type") ?? "");
    }
  });
  request.addEventListener("error", () => finish(words.notArrived));
  tell({ share: 0 });
  request.open("POST", address);
  request.setRequestHeader("X-CSRFToken", form.querySelector("[name=csrfmiddlewaretoken]").value);
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

function send(sentFrom, [file, ...more]) {
  if (!file) return;
  const drop = dropOf(sentFrom.dataset.upload) ?? sentFrom;
  if (!canBeTaken(drop, file)) {
    underWay.set(drop.dataset.upload, { problem: drop.dataset.notHere });
    showUnderWay(drop.dataset.upload);
    drop.querySelector("input[type=file]").value = "";
    return;
  }
  const isMany = drop.dataset.many !== undefined;
  const body = new FormData();
  body.append("file", file);
  const keep = (held, row) => {
    if (!isMany) held.replaceChildren();
    held.insertAdjacentHTML("beforeend", row);
  };
  // One after another: what is refused stops those behind it, and says why.
  post(drop, drop.dataset.address, body, keep, () => { if (isMany) send(drop, more); });
}

function prepare(controls) {
  const body = new FormData();
  for (const control of controls.querySelectorAll("[name]")) {
    if (control.type !== "checkbox" || control.checked) body.append(control.name, control.value);
  }
  const drop = controls.closest("[data-upload]");
  const own = controls.closest(".one-file").querySelector("[type=hidden][name^=upload]").value;
  const keep = (held, row) => {
    const file = held.querySelector(`[type=hidden][value="${own}"]`)?.closest(".one-file");
    if (file) file.outerHTML = row;
  };
  post(drop, controls.dataset.prepare, body, keep);
}

// A color that is mixed is picked by that. Before the form hears of it.
document.addEventListener("input", ({ target }) => {
  if (!target.matches("[data-own-color]")) return;
  const own = target.closest(".own-color").querySelector("[type=radio]");
  own.value = target.value;
  own.checked = true;
}, { capture: true });

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
