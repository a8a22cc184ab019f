"""The list of orders as a table: orders and who asks come in, heads and rows go out."""

from collections.abc import Iterable

from django.utils import timezone

from yenzo.apps.accounts.rights import SEES_ADDRESSES, SEES_PRICES
from yenzo.apps.orders.models import Order
from yenzo.core.lists.exported import Value

HEADS = ("Order", "Placed", "State", "Waits for", "Waits since", "Leaves by", "Arrives by", "Wished for", "Pieces")
MORE_HEADS = ("Made", "Products", "Words on the goods", "Purchase number", "Delivery", "Customer")


def heads_for(role: str) -> tuple[str, ...]:
    """Return the heads of the table as a role sees it: addresses and prices are not for everybody."""
    own = ("Mail", "Address") if role in SEES_ADDRESSES else ()
    return (*HEADS, *MORE_HEADS, *own, *(("Total", "Currency") if role in SEES_PRICES else ()))


def rows_for(role: str, orders: Iterable[Order]) -> list[tuple[Value, ...]]:
    """Return a row for each order as a role sees it."""
    return [_row(role, order) for order in orders]


def _row(role: str, order: Order) -> tuple[Value, ...]:
    lines = list(order.lines.all())
    row: tuple[Value, ...] = (
        order.number,
        timezone.localtime(order.placed_at),
        order.status_words,
        order.get_waits_for_display(),
        timezone.localtime(order.waits_since) if order.waits_for else None,
        order.leaves_on,
        order.arrives_on,
        order.wished_for,
        sum(line.quantity for line in lines),
        order.pieces_made,
        "\n".join(dict.fromkeys(line.revision.name for line in lines)),
        "\n".join(line.search_text for line in lines if line.search_text),
        order.purchase_number,
        order.delivery_name,
        order.customer_name,
    )
    if role in SEES_ADDRESSES:
        row += (order.customer_mail, order.address)
    return (*row, order.total, order.currency) if role in SEES_PRICES else row
