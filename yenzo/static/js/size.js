// How large the goods are: a ruler along their edges, and the goods in true size on a screen that a bank card has measured.

const SVG = "http://www.w3.org/2000/svg";
// ISO/IEC 7810, ID-1. A hand is some 190 mm long and 85 mm wide.
const CARD_MM = [85.6, 53.98], HAND_MM = [85, 190], CSS_PX_PER_MM = 96 / 25.4;
const KEPT = "yenzo px per mm";
const tools = document.querySelector("[data-size-tools]");
const dialog = document.getElementById("true-size");
const slider = dialog?.querySelector("[data-px-per-mm]");

const made = (name, attributes, parent) => {
  const element = document.createElementNS(SVG, name);
  for (const [key, value] of Object.entries(attributes)) element.setAttribute(key, value);
  parent.append(element);
  return element;
};

// A mark each 10 mm on what is small and each 100 mm on what is large: twenty or so along an edge.
function stepFor(length) {
  return [1, 5, 10, 20, 50, 100, 200, 500].find((step) => length / step <= 24) ?? 1000;
}

function drawRuler(svg) {
  const [, , width, height] = svg.getAttribute("viewBox").split(" ").map(Number);
  const step = stepFor(Math.max(width, height)), tick = Math.max(width, height) / 60;
  const ruler = made("g", { class: "ruler", "aria-hidden": "true" }, svg);
  const marks = [];
  for (let at = 0; at <= width; at += step) marks.push([at, `M${at} 0v${tick}`, at + tick * 0.2, tick * 1.9]);
  for (let at = step; at <= height; at += step) marks.push([at, `M0 ${at}h${tick}`, tick * 1.2, at + tick * 0.4]);
  const path = `M0 0H${width}M0 0V${height}${marks.map(([, line]) => line).join("")}`;
  made("path", { d: path, class: "ruler-halo" }, ruler);
  made("path", { d: path, class: "ruler-line" }, ruler);
  for (const [at, , x, y] of marks) {
    if ((at / step) % 2) continue;
    made("text", { x, y, "font-size": tick * 0.95, class: "ruler-number" }, ruler).textContent = at;
  }
}

function toggleRuler(button) {
  const is = button.getAttribute("aria-pressed") !== "true";
  button.setAttribute("aria-pressed", is);
  document.querySelectorAll(".stage .ruler").forEach((ruler) => ruler.remove());
  if (is) document.querySelectorAll(".stage .goods > svg").forEach(drawRuler);
}

const pxPerMm = () => Number(slider.value);

function showGoods() {
  const shown = document.querySelector(".stage .goods:not([hidden])");
  const [, , width, height] = shown.querySelector("svg").getAttribute("viewBox").split(" ").map(Number);
  const { side } = shown.dataset;
  const goods = dialog.querySelector("[data-true-goods]");
  goods.replaceChildren();
  goods.setAttribute("viewBox", `0 0 ${width} ${height}`);
  goods.style.width = `${width * pxPerMm()}px`;
  goods.style.height = `${height * pxPerMm()}px`;
  made("use", { href: `#under-${side}` }, goods);
  for (const picture of shown.querySelectorAll("image[data-goods]")) {
    const href = picture.getAttribute("href") ?? picture.dataset.later;
    if (href) made("image", { href, width, height, preserveAspectRatio: "none" }, goods);
  }
  made("use", { href: `#ink-${side}` }, goods);
}

function showBeside() {
  const what = dialog.querySelector("[data-beside]").value, beside = dialog.querySelector("[data-true-beside]");
  const coin = Number(dialog.querySelector("[data-coin-mm]").value) || 23;
  dialog.querySelector("[data-coin]").hidden = what !== "coin";
  const [width, height] = { card: CARD_MM, hand: HAND_MM, coin: [coin, coin] }[what] ?? [0, 0];
  beside.replaceChildren();
  beside.toggleAttribute("hidden", !what);
  beside.setAttribute("viewBox", `0 0 ${width || 1} ${height || 1}`);
  beside.style.width = `${width * pxPerMm()}px`;
  beside.style.height = `${height * pxPerMm()}px`;
  if (what === "card") made("rect", { x: 0.3, y: 0.3, width: width - 0.6, height: height - 0.6, rx: 3.2, class: "beside-shape" }, beside);
  if (what === "coin") made("circle", { cx: coin / 2, cy: coin / 2, r: coin / 2 - 0.3, class: "beside-shape" }, beside);
  if (what === "hand") {
    const fingers = [[14, 62], [30, 20], [46, 8], [62, 26]].map(([x, y]) => `M${x} 110V${y}a7 7 0 0 1 14 0V110`).join("");
    made("path", { d: `M14 105${fingers.replaceAll("M", " M")}M14 100V150a30 36 0 0 0 62 0V100M14 120L4 92a6 6 0 0 0-2 12L14 150`, class: "beside-shape" }, beside);
  }
}

function showCard() {
  const card = dialog.querySelector(".bank-card");
  card.style.width = `${CARD_MM[0] * pxPerMm()}px`;
  card.style.height = `${CARD_MM[1] * pxPerMm()}px`;
}

function show() {
  showCard();
  showGoods();
  showBeside();
}

function kept() {
  try {
    return Number(localStorage.getItem(KEPT)) || 0;
  } catch {
    return 0;
  }
}

if (tools && dialog && document.querySelector(".stage .goods")) {
  tools.hidden = false;
  tools.querySelector("[data-ruler]").addEventListener("click", ({ currentTarget }) => toggleRuler(currentTarget));
  tools.querySelector("[data-true-size]").addEventListener("click", () => {
    slider.value = kept() || CSS_PX_PER_MM;
    // Nobody has measured this screen yet.
    dialog.querySelector("[data-calibrate]").open = !kept();
    show();
    dialog.showModal();
  });
  dialog.querySelector("[data-closes]").addEventListener("click", () => dialog.close());
  slider.addEventListener("input", () => {
    try {
      localStorage.setItem(KEPT, slider.value);
    } catch {
      // A browser that keeps nothing asks again the next time.
    }
    show();
  });
  for (const name of ["[data-beside]", "[data-coin-mm]"]) dialog.querySelector(name).addEventListener("input", showBeside);
}
