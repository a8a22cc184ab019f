// What is asked without an element that asks. htmx keeps one such request waiting behind one that is under way, and drops
// all others: here each has its turn, and one that doesn't reach the workshop is sent again.

import { AWAY, MOST_TRIES, untilNextTry } from "./trying.js";

// There was no line, nobody at its end, or nobody had time.
const UNANSWERED = [0, 429, ...AWAY];
let last = Promise.resolve(), pending = 0, status = 0;

export const isBusy = () => pending > 0;
export const isSentAgain = (answered) => UNANSWERED.includes(answered);

// `work` is done once all is done that had its turn before.
export function takeTurn(work) {
  pending += 1;
  const own = last.then(work);
  last = own.catch(() => {}).finally(() => { pending -= 1; });
  return own;
}

document.addEventListener("htmx:afterRequest", ({ detail: { elt, xhr } }) => { if (elt === document.body) ({ status } = xhr); });

// What is sent is told by `options` once it has its turn; nothing is sent where they are nothing. It is sent again as it
// was: only so is it known as the same where its answer was lost.
export function ask(verb, address, options) {
  return takeTurn(async () => {
    const told = options();
    for (let failed = 0; told && failed < MOST_TRIES; failed += 1) {
      status = 0;
      await htmx.ajax(verb, address, told).catch(() => {});
      if (!isSentAgain(status)) return;
      await untilNextTry(failed);
    }
  });
}
