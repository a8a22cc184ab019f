// A club's page that shows a product of the workshop. Opened as ?shop=http://127.0.0.1:8480&product=slate-sign

const asked = new URLSearchParams(location.search);
const shop = new URL(asked.get("shop") ?? "http://127.0.0.1:8480").origin, product = asked.get("product") ?? "slate-sign";
const slip = document.getElementById("slip"), made = document.getElementById("made");

window.addEventListener("message", (event) => {
  // Anybody can send messages: only the shop's are read.
  if (event.origin !== shop || event.source !== slip.contentWindow || event.data?.source !== "yenzo") return;
  const said = event.data;
  if (said.event === "height") slip.style.height = `${said.px}px`;
  if (said.event === "in-basket") {
    const order = document.createElement("a");
    order.href = new URL(said.order).origin === shop ? said.order : shop;
    order.textContent = "order it now";
    made.replaceChildren(`In your basket: ${said.pieces.map((one) => `${one.pieces} × ${one.name}`).join(", ")}, ${said.total} ${said.currency}: `, order);
  }
});
slip.src = `${shop}/framed/goods/${encodeURIComponent(product)}/?site=${encodeURIComponent(location.origin)}`;
