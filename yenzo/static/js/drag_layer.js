// What the hand holds while it moves, kept apart from the page: with each step nothing else is laid out, painted or
// put together anew, which a slow machine feels.

const ROOM_PX = 120, MOST_STRETCHED = 1.4;
const still = (transform) => [{ transform }, { transform }];

// A paused animation keeps what it moves in a layer of its own, which each step moves and nothing else. (What is only
// said to change soon has such a layer as well, but each step of it puts all of the page's layers together anew.)
export class DragLayer {
  constructor(item, parts = [...item.querySelectorAll("[data-moves]")]) {
    this.item = item;
    this.parts = parts;
    this.animations = [];
    this.scale = 0;
    item.classList.add("on-drag-layer");
  }

  moveTo(map) {
    const keyframes = still(`matrix(${map.join(",")})`), scale = Math.hypot(map[0], map[1]);
    if (scale < MOST_STRETCHED * this.scale) {
      for (const animation of this.animations) animation.effect.setKeyframes(keyframes);
      return;
    }
    // A layer is stretched from how it was begun: what grows much is begun anew, to be sharp.
    this.scale = scale;
    this.#cancel();
    this.animations = this.parts.map((part) => part.animate(keyframes, { duration: 1, fill: "both" }));
    for (const animation of this.animations) animation.pause();
  }

  drop() {
    this.item.classList.remove("on-drag-layer");
    this.#cancel();
  }

  #cancel() {
    for (const animation of this.animations) animation.cancel();
  }
}

// Copies of some ink of a group, over the page, and the ink itself unseen: what stands in groups that have a place of
// their own can't be moved without all of these being painted anew.
export class Floating {
  constructor(item, inks, group) {
    const svg = group.ownerSVGElement, { a, b } = svg.getScreenCTM(), place = svg.getBoundingClientRect();
    this.item = item;
    this.inks = inks;
    this.pxPerMm = Math.hypot(a, b);
    this.copy = document.createElementNS(svg.namespaceURI, "svg");
    this.copy.setAttribute("viewBox", svg.getAttribute("viewBox"));
    this.copy.setAttribute("class", "hand-sheet");
    this.copy.setAttribute("aria-hidden", "true");
    for (const name of ["left", "top", "width", "height"]) this.copy.style[name] = `${place[name]}px`;
    const around = document.createElementNS(svg.namespaceURI, "g");
    around.setAttribute("transform", group.getAttribute("transform"));
    around.append(...inks.map((ink) => ink.cloneNode(true)));
    this.copy.append(around);
    document.body.append(this.copy);
    // Unseen, not hidden: their clips stand for those of the copies, which have the same names.
    for (const ink of inks) ink.style.opacity = "0";
    this.layer = new DragLayer(this.copy, [this.copy]);
  }

  moveBy(x, y) {
    this.layer.moveTo([1, 0, 0, 1, x * this.pxPerMm, y * this.pxPerMm]);
  }

  drop() {
    this.copy.remove();
    for (const ink of this.inks) ink.style.opacity = "";
  }
}

// A canvas over the goods that is drawn on in the mm of a group of theirs, and looks as what is drawn in that would: as
// the stylesheet says of the classes that it is asked for.
export class Sheet {
  constructor(group, classes) {
    this.group = group;
    this.looks = looksIn(group, classes);
    this.canvas = document.createElement("canvas");
    this.canvas.className = "hand-sheet";
    this.canvas.setAttribute("aria-hidden", "true");
    this.context = this.canvas.getContext("2d");
    this.rect = null;
    document.body.append(this.canvas);
  }

  // Clears it, and lays it where points in mm show, as far as the window goes: all of it is shown anew each time.
  begin(points) {
    const { a, b, c, d, e, f } = this.group.getScreenCTM(), density = devicePixelRatio, { canvas, context } = this;
    const xs = points.map(([x, y]) => a * x + c * y + e), ys = points.map(([x, y]) => b * x + d * y + f);
    const [left, right] = spanOf(xs, innerWidth), [top, bottom] = spanOf(ys, innerHeight), had = this.rect;
    if (!had || left < had.left || top < had.top || right > had.right || bottom > had.bottom) this.#lay({ left, top, right, bottom });
    context.resetTransform();
    context.clearRect(0, 0, canvas.width, canvas.height);
    context.setTransform(a * density, b * density, c * density, d * density, (e - this.rect.left) * density, (f - this.rect.top) * density);
    this.px = 1 / Math.hypot(a, b);
  }

  #lay(rect) {
    const { left, top } = rect, [width, height] = [rect.right - left, rect.bottom - top];
    for (const [name, value] of Object.entries({ left, top, width, height })) this.canvas.style[name] = `${value}px`;
    [this.canvas.width, this.canvas.height] = [width * devicePixelRatio, height * devicePixelRatio];
    this.rect = rect;
  }

  draw(name, attributes, words = null) {
    const { context } = this, look = this.looks[attributes.class];
    context.strokeStyle = look.stroke;
    context.fillStyle = look.fill;
    context.lineWidth = parseFloat(look.strokeWidth) * this.px;
    if (name === "text") {
      this.write(words, attributes, look);
      return;
    }
    const path = PATHS[name](attributes);
    if (look.fill !== "none") context.fill(path);
    context.stroke(path);
  }

  // In whole pixels, not in mm: letters less high than a few units are set unevenly.
  write(words, { x, y, "font-size": size }, look) {
    const { context, px } = this;
    context.save();
    context.translate(x, y);
    context.scale(px, px);
    context.font = `${size / px}px ${look.fontFamily}`;
    context.lineWidth = parseFloat(look.strokeWidth);
    context.strokeText(words, 0, 0);
    context.fillText(words, 0, 0);
    context.restore();
  }

  done() {}

  drop() {
    this.canvas.remove();
  }
}

// From where to where something must show, with room for handles and words, within the window.
function spanOf(values, most) {
  return [Math.min(...values) - ROOM_PX, Math.max(...values) + ROOM_PX].map((at) => Math.round(Math.min(Math.max(at, 0), most)));
}

const PATHS = {
  circle: ({ cx, cy, r }) => drawn((path) => path.arc(cx, cy, r, 0, 2 * Math.PI)),
  path: ({ d }) => new Path2D(d),
  polygon: ({ points }) => new Path2D(`M${points.replaceAll(" ", "L")}Z`),
  rect: ({ x, y, width, height }) => drawn((path) => path.rect(x, y, width, height)),
};

function drawn(draw) {
  const path = new Path2D();
  draw(path);
  return path;
}

// What the stylesheet says of each class, in colors that a canvas takes.
function looksIn(group, classes) {
  const probe = document.createElementNS(group.namespaceURI, "text");
  group.append(probe);
  const looks = {};
  for (const name of classes) {
    probe.setAttribute("class", name);
    const { stroke, fill, strokeWidth, fontFamily } = getComputedStyle(probe);
    looks[name] = { stroke, fill, strokeWidth, fontFamily };
  }
  probe.remove();
  return looks;
}
