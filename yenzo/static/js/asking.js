// What is asked without an element that asks. htmx keeps one such request waiting behind one that is under way, and drops
// all others: here each has its turn, and one that doesn't reach the workshop is sent again.

const FIRST_TRY_MS = 500, LONGEST_TRY_MS = 8000, GIVEN_UP_AFTER = 60;
// Nobody was there, or nobody had time.
const UNANSWERED = new Set([0, 429, 502, 503, 504]);
let last = Promise.resolve(), pending = 0, status = 0;
const later = (ms) => new Promise((done) => { setTimeout(done, ms); });

export const isBusy = () => pending > 0;
export const isSentAgain = (answered) => UNANSWERED.has(answered);

// `work` is done once all is done that had its turn before.
export function takeTurn(work) {
  pending += 1;
  const own = last.then(work);
  last = own.catch(() => {}).finally(() => { pending -= 1; });
  return own;
}

document.addEventListener("htmx:afterRequest", ({ detail: { elt, xhr } }) => { if (elt === document.body) ({ status } = xhr); });

// What is sent is told by `options` when it is; nothing is sent where they are nothing.
export function ask(verb, address, options) {
  return takeTurn(async () => {
    for (let failed = 0; failed < GIVEN_UP_AFTER; failed += 1) {
      const told = options();
      if (!told) return;
      status = 0;
      await htmx.ajax(verb, address, told).catch(() => {});
      if (!isSentAgain(status)) return;
      await later(Math.min(FIRST_TRY_MS * 1.5 ** failed, LONGEST_TRY_MS));
    }
  });
}
