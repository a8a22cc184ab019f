// The checkout: the parts of an address that its country has are shown, and the total of the way that is picked.

function showParts(postal) {
  const country = postal.querySelector("[data-country]");
  const has = (country.selectedOptions[0]?.dataset.parts ?? "").split(" ");
  for (const row of postal.querySelectorAll("[data-part]")) {
    const { part } = row.dataset;
    row.hidden = !["country", "company"].includes(part) && !has.includes(part);
  }
}

const [to, invoice] = document.querySelectorAll("[data-postal]");

function showWay() {
  const picked = document.querySelector("[name=delivery]:checked");
  if (!picked) return;
  document.querySelector("[data-grand-total]").textContent = picked.dataset.wayTotal;
  // Whoever picks it up needs no address.
  to.hidden = picked.dataset.pickup === "yes";
}

function showInvoice() {
  const { checked } = document.querySelector("[name=invoice-elsewhere]");
  invoice.hidden = !checked;
  document.querySelector("[name=invoice-name]").closest(".form-row").hidden = !checked;
}

function show() {
  showParts(to);
  showParts(invoice);
  showWay();
  showInvoice();
}
document.getElementById("checkout-form").addEventListener("change", show);
// What a browser or this tab kept of the form is there a moment later.
window.addEventListener("pageshow", show);
show();
