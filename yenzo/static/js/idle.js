// What needn't be done at once waits until the page has time, and no longer than told. Not every browser tells when it has.
export const whenIdle = (work, timeout) => (window.requestIdleCallback ? requestIdleCallback(work, { timeout }) : setTimeout(work, timeout));
