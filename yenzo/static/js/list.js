// The page of a list of names: what is said of a row shows at its cells, and what is pasted from a spreadsheet spreads.

// More rows are sent together.
const MOST_BY_ROW = 10;

function mark(row) {
  const said = row.querySelector("[data-says]");
  if (!said) return;
  row.dataset.verdict = said.dataset.says;
  const faulty = said.dataset.faulty.split(",");
  for (const cell of row.querySelectorAll("[data-column]")) {
    if (faulty.includes(cell.dataset.column)) cell.setAttribute("aria-invalid", "true");
    else cell.removeAttribute("aria-invalid");
  }
}

document.body.addEventListener("htmx:afterOnLoad", (event) => {
  if (event.detail.elt.matches("tr[data-row]")) mark(event.detail.elt);
});

document.addEventListener("change", (event) => {
  if (event.target.matches("[data-sends-columns]")) event.target.form.requestSubmit();
});

// From the cell that has the focus to the right and down, as far as there are cells.
document.addEventListener("paste", (event) => {
  const cell = event.target.closest?.("[data-column]");
  const lines = event.clipboardData.getData("text/plain").replace(/\r\n?/g, "\n").replace(/\n$/, "").split("\n");
  if (!cell || cell.readOnly || (lines.length === 1 && !lines[0].includes("\t"))) return;
  event.preventDefault();
  let row = cell.closest("tr");
  for (const line of lines) {
    if (!row) break;
    line.split("\t").forEach((text, at) => {
      const target = row.querySelector(`[data-column="${Number(cell.dataset.column) + at}"]`);
      if (target) target.value = text.trim();
    });
    if (lines.length <= MOST_BY_ROW) row.dispatchEvent(new Event("change", { bubbles: true }));
    row = row.nextElementSibling;
  }
  if (lines.length > MOST_BY_ROW) document.getElementById("rows").requestSubmit();
});
