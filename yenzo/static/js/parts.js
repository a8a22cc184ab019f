// Parts of an answer that ask for nothing by themselves (words, ink, state: `data-part` says where they go) are put in
// their places at once. What htmx does for parts that do would take as long as the way to the server and back.

const PARTS = / data-part="([^"]+)"/g;
const whenReplaced = [], whenShown = [];

// `shown` is called with each place that shows something else, whichever way that came; `replaced` before it does.
export function followParts(shown, replaced = () => {}) {
  whenReplaced.push(replaced);
  whenShown.push(shown);
}
document.addEventListener("htmx:oobBeforeSwap", ({ detail: { target } }) => { for (const tell of whenReplaced) tell(target); });
document.addEventListener("htmx:oobAfterSwap", ({ detail: { target } }) => { for (const tell of whenShown) tell(target); });

function put(place, nodes) {
  for (const tell of whenReplaced) tell(place);
  place.replaceChildren(...nodes);
  for (const tell of whenShown) tell(place);
}

// A number in a box: what is half typed there stays.
function fill(box, number) {
  if (!box.dataset.isTyped) box.value = number;
  if (box.dataset.now !== undefined) box.dataset.now = number;
}

// Whoever is in a control goes on in the one that takes its place.
function goOnIn({ element, start, end }) {
  const again = !element.isConnected && element.id && document.getElementById(element.id);
  if (!again) return;
  again.focus({ preventScroll: true });
  if (start !== null && again.setSelectionRange) again.setSelectionRange(start, end);
}

function take(detail) {
  const { serverResponse, shouldSwap } = detail;
  if (!shouldSwap || !serverResponse.includes(" data-part=")) return;
  if (serverResponse.includes(" hx-swap-oob=")) {
    // Some of it isn't of this kind: then all goes the same way, in its order.
    detail.serverResponse = serverResponse.replaceAll(PARTS, ' hx-swap-oob="innerHTML:#$1"');
    return;
  }
  detail.shouldSwap = false;
  const answer = document.createElement("template");
  answer.innerHTML = serverResponse;
  const { activeElement: element } = document, { selectionStart: start = null, selectionEnd: end = null } = element;
  for (const part of answer.content.children) {
    const place = document.getElementById(part.dataset.part);
    if (place?.matches("input")) fill(place, part.value);
    else if (place) put(place, part.childNodes);
  }
  goOnIn({ element, start, end });
}
// As an extension (`hx-ext`) it also hears of answers to a form that was laid out anew meanwhile: the document doesn't.
htmx.defineExtension("parts", { onEvent(name, { detail }) { if (name === "htmx:beforeSwap") take(detail); } });
