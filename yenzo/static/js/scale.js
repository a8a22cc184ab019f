// Two marks on a picture, moved by the hand or the arrow keys; the numbers in the form say where they are.

function follow(picture) {
  const field = (mark, axis) => document.getElementById(`id_${picture.dataset.points}${mark}_${axis}`);
  const { width, height } = picture.viewBox.baseVal;
  let held = null;

  function draw() {
    const unit = width / picture.getBoundingClientRect().width;
    const at = {};
    for (const mark of picture.querySelectorAll("[data-mark]")) {
      const x = Number(field(mark.dataset.mark, "x").value), y = Number(field(mark.dataset.mark, "y").value);
      at[mark.dataset.mark] = { x, y };
      mark.querySelector("circle").setAttribute("r", 22 * unit);
      for (const path of mark.querySelectorAll("path")) {
        path.setAttribute("d", `M${-18 * unit} 0H${-4 * unit}M${4 * unit} 0H${18 * unit}M0 ${-18 * unit}V${-4 * unit}M0 ${4 * unit}V${18 * unit}`);
      }
      mark.setAttribute("transform", `translate(${x} ${y})`);
    }
    for (const line of picture.querySelectorAll("[data-scale-line]")) {
      for (const [name, value] of Object.entries({ x1: at.start.x, y1: at.start.y, x2: at.end.x, y2: at.end.y })) line.setAttribute(name, value);
    }
  }

  function put(mark, x, y) {
    field(mark, "x").value = Math.round(Math.min(Math.max(x, 0), width));
    field(mark, "y").value = Math.round(Math.min(Math.max(y, 0), height));
    draw();
  }

  picture.addEventListener("pointerdown", (event) => {
    held = event.target.closest("[data-mark]");
    if (!held) return;
    picture.setPointerCapture(event.pointerId);
    held.focus();
    event.preventDefault();
  });
  picture.addEventListener("pointermove", (event) => {
    if (!held) return;
    const { x, y } = new DOMPoint(event.clientX, event.clientY).matrixTransform(picture.getScreenCTM().inverse());
    put(held.dataset.mark, x, y);
  });
  picture.addEventListener("pointerup", () => { held = null; });
  picture.addEventListener("keydown", (event) => {
    const mark = event.target.closest("[data-mark]")?.dataset.mark;
    const step = event.shiftKey ? 10 : 1;
    const [dx, dy] = { ArrowLeft: [-step, 0], ArrowRight: [step, 0], ArrowUp: [0, -step], ArrowDown: [0, step] }[event.key] ?? [0, 0];
    if (!mark || (!dx && !dy)) return;
    event.preventDefault();
    put(mark, Number(field(mark, "x").value) + dx, Number(field(mark, "y").value) + dy);
  });
  field("start", "x").form.addEventListener("input", draw);
  window.addEventListener("resize", draw);
  draw();
}

for (const picture of document.querySelectorAll("[data-points]")) follow(picture);
