"""Invoices: a paid order comes in, its invoice as a PDF in the customer's language goes out."""

from decimal import Decimal
from pathlib import Path

from babel.numbers import get_currency_precision
from django.utils import timezone

import yenzo
from yenzo.apps.orders.models import Order
from yenzo.apps.orders.showing import ShownLine
from yenzo.apps.orders.to_core import invoice_address_of
from yenzo.apps.pages.addressing import written
from yenzo.apps.pages.languages import read_in
from yenzo.apps.workshop.current import current_workshop
from yenzo.apps.workshop.to_core import home_country
from yenzo.core.planning.invoice import Invoice, InvoiceLine, make_invoice, tax_within

# For names in scripts that the paper's own face lacks.
FALLBACKS = tuple((Path(yenzo.__file__).parent / "materials" / "typefaces").glob("levant*.ttf"))


def invoice_of(order: Order) -> bytes:
    """Return the invoice of a paid order."""
    paid = order.payments.filter(state="approved").latest("ended_at")
    assert paid.ended_at is not None
    paid_on = timezone.localtime(paid.ended_at).date()
    workshop = current_workshop()
    with read_in(order.language):
        to = f"{order.customer_name}\n{order.address}".strip()
        invoice_to = invoice_address_of(order)
        invoice = Invoice(
            number=str(order.number),
            day=paid_on,
            currency=order.currency,
            seller=f"{workshop.name}\n{workshop.address}".strip(),
            tax_number=workshop.tax_number,
            buyer=written(invoice_to, home_country(workshop)) if invoice_to else to,
            delivered_to="" if order.is_picked_up or not invoice_to else to,
            lines=_lines(order),
            purchase_number=order.purchase_number,
            paid_on=paid_on,
        )
        return make_invoice(invoice, fallbacks=FALLBACKS)


def _lines(order: Order) -> tuple[InvoiceLine, ...]:
    unit = Decimal(1).scaleb(-get_currency_precision(order.currency))
    shown = [ShownLine(line) for line in order.lines.select_related("order", "revision", "personalization__revision")]
    lines = [
        InvoiceLine(
            number=str(one.line),
            name=one.setup.offer.name,
            pieces=one.line.quantity,
            total=one.quote.total,
            tax=one.quote.tax,
            tax_percent=one.quote.tax_percent,
            notes=tuple(text.made.words for text in one.piece.in_words.texts) if not one.line.is_list else (),
        )
        for one in shown
    ]
    if order.delivery_name and order.delivery_price:
        percent = Decimal(str((order.delivery or {}).get("tax_percent", 0)))
        tax = tax_within(order.delivery_price, percent, unit)
        lines.append(InvoiceLine("", order.delivery_name, 1, order.delivery_price, tax, percent))
    return tuple(lines)
