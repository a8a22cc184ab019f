// The slip in a frame on another site: its page is told how high it is, and what lies in the basket.
// docs/on-other-sites.md describes what is sent.

const site = document.querySelector("[data-framed]")?.dataset.framed;
const place = `framed in ${site}`;
const here = new URL(location.href), head = here.pathname.match(/^\/on\/[^/]+/)?.[0];

function tell(said) {
  if (site && window.parent !== window) window.parent.postMessage({ source: "yenzo", ...said }, site);
}

// What was begun in this frame before goes on: the browser keeps its address, apart for each site around it.
// Where it keeps nothing, the frame begins anew.
async function goOn() {
  const kept = localStorage.getItem(place);
  if (kept && kept !== head && here.searchParams.has("begun")) {
    const before = kept + here.pathname.slice(head.length);
    if ((await fetch(before)).ok) return location.replace(before);
  }
  localStorage.setItem(place, head);
}

if (site && head) {
  new ResizeObserver(() => tell({ event: "height", px: Math.ceil(document.body.getBoundingClientRect().height) })).observe(document.body);
  const bring = document.querySelector("[data-bring]");
  if (bring) {
    const total = document.querySelector(".basket-end [data-total]").dataset;
    const pieces = [...document.querySelectorAll(".piece")].map((one) => ({ name: one.dataset.name, pieces: Number(one.dataset.pieces) }));
    tell({ event: "in-basket", pieces, total: total.total, currency: total.currency, order: bring.href });
  }
  goOn().catch(() => {});
}
