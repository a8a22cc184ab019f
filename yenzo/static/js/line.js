// The line to the workshop: whether what shows is up to date, and forms that wait for it while it is lost.

const AGAIN_AFTER_MS = 3000, LONGEST_TRY_MS = 10_000, SURE_FOR_MS = 10_000;

// When the workshop was heard last; the page itself came from there.
let heard = performance.now();
document.addEventListener("htmx:beforeOnLoad", () => { heard = performance.now(); });
for (const name of ["htmx:sendError", "htmx:timeout"]) document.addEventListener(name, () => { heard = -Infinity; });
export const isSure = () => navigator.onLine && performance.now() - heard < SURE_FOR_MS;

// Say of a form that price and picture are not up to date: at once, or if that lasts longer.
export function isBehind(form, is, after_ms = 0) {
  clearTimeout(form.behind);
  const show = () => {
    form.classList.toggle("is-behind", is);
    const words = form.querySelector("[data-behind]");
    if (words) words.textContent = is ? words.dataset.behind : "";
  };
  if (is && after_ms) form.behind = setTimeout(show, after_ms);
  else show();
}

async function isReached(address) {
  try {
    const answer = await fetch(address, { cache: "no-store", signal: AbortSignal.timeout(LONGEST_TRY_MS) });
    return answer.ok;
  } catch {
    return false;
  }
}

// A form that is sent while the line is lost waits on a plain page, and goes once, as soon as the line is back. Where the
// workshop was heard a moment ago it goes at once.
export async function sendWhenReached(form, submitter, stop) {
  const waiting = document.getElementById("waiting");
  let isStopped = false, tryNow = null;
  // By its button, or by Escape.
  waiting.onclose = () => { isStopped = true; tryNow?.(); };
  waiting.querySelector("button").onclick = () => waiting.close();
  while (!isStopped && !(await isReached(waiting.dataset.reached))) {
    if (!waiting.open) waiting.showModal();
    await new Promise((resolve) => {
      tryNow = resolve;
      setTimeout(resolve, AGAIN_AFTER_MS);
      window.addEventListener("online", resolve, { once: true });
    });
  }
  waiting.onclose = null;
  waiting.close();
  if (isStopped) {
    stop();
    return;
  }
  form.dataset.reached = "yes";
  form.requestSubmit(submitter);
}
