// Changes of a draft that the hand makes: with the version that was seen, one after another.

// By what they change: of the same thing only the newest waits.
const waiting = new Map();
let isSending = false;
const seen = () => ({ seen: document.getElementById("draft").dataset.version });

export async function post(address, values, selected, shown = () => {}) {
  waiting.set(`${address} ${values.mark ?? ""} ${values.text ?? ""}`, { address, values, selected, shown });
  if (isSending) return;
  isSending = true;
  while (waiting.size) {
    const [[key, next]] = waiting;
    waiting.delete(key);
    await htmx.ajax("POST", next.address, { target: "#setup", swap: "innerHTML", values: { ...seen(), selected: next.selected, ...next.values } });
    // The hand may be further by now than the answer that was just shown.
    for (const one of waiting.values()) one.shown();
  }
  isSending = false;
}
