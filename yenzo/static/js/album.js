// Pictures from an album elsewhere: shown page by page in a window; the one that is chosen is fetched by the server.

import { fetchInto } from "./uploads.js";

let pane = null, drop = null;

function showButtons() {
  for (const button of document.querySelectorAll("[data-album]")) button.hidden = false;
}

function open(button) {
  if (!pane) {
    pane = document.createElement("dialog");
    pane.className = "album";
    document.body.append(pane);
    pane.addEventListener("close", () => drop?.querySelector("[data-album]")?.focus());
  }
  drop = button.closest("[data-upload]");
  pane.setAttribute("aria-label", button.textContent.trim());
  pane.dataset.address = button.dataset.album;
  pane.dataset.tryAgain = button.dataset.tryAgain;
  pane.innerHTML = `<form method="dialog"><h2></h2><button class="plain-button" >${button.dataset.close}</button></form><div data-album-pages></div>`;
  pane.querySelector("h2").textContent = button.textContent.trim();
  pane.showModal();
  load(button.dataset.album);
}

// Pages follow each other; what stands in the place of a page (a fault, how to open it) gives way to it.
async function load(address) {
  const pages = pane.querySelector("[data-album-pages]");
  pages.setAttribute("aria-busy", "true");
  let words = "";
  try {
    const answer = await fetch(address);
    if (answer.ok) words = await answer.text();
  } catch {
    words = "";
  }
  pages.removeAttribute("aria-busy");
  for (const gone of pages.querySelectorAll(".album-said, [data-album-more]")) gone.remove();
  pages.insertAdjacentHTML("beforeend", words || `<div class="album-said"><p class="problem" role="alert">${document.getElementById("trouble").dataset.failed}</p><button type="button" class="second-action" data-album-again="${address}">${pane.dataset.tryAgain}</button></div>`);
}

document.addEventListener("click", ({ target }) => {
  const button = target.closest?.("[data-album]");
  if (button) open(button);
  const again = target.closest?.("[data-album-again], [data-album-more]");
  if (again) {
    again.disabled = true;
    load(again.dataset.albumAgain ?? again.dataset.albumMore);
  }
  const picture = target.closest?.("[data-album-picture]");
  if (!picture) return;
  const body = new FormData();
  body.append("picture", picture.dataset.albumPicture);
  const query = drop.dataset.address.slice(drop.dataset.address.indexOf("?"));
  // The line may have been laid out anew meanwhile.
  const now = document.querySelector(`[data-upload="${drop.dataset.upload}"]`) ?? drop;
  fetchInto(now, `${pane.dataset.address}take/${query}`, body);
  pane.close();
});

new BroadcastChannel("yenzo-album").addEventListener("message", () => { if (pane?.open) load(pane.dataset.address); });
document.addEventListener("htmx:oobAfterSwap", showButtons);
showButtons();
