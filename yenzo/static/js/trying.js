// What found no line, or nobody at its end, is tried again: ever less often, and at once when the line is back.

const FIRST_TRY_MS = 500, LONGEST_TRY_MS = 8000;
export const MOST_TRIES = 60, AWAY = [502, 503, 504];

export function untilNextTry(failed) {
  return new Promise((done) => {
    setTimeout(done, Math.min(FIRST_TRY_MS * 1.5 ** failed, LONGEST_TRY_MS));
    window.addEventListener("online", done, { once: true });
  });
}
