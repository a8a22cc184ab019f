"""What a change of pieces costs: a line and what its pieces are to be come in, the difference to before goes out."""

from collections.abc import Iterator
from decimal import Decimal

from yenzo.apps.designs.to_core import amounts_of, asked_of
from yenzo.apps.desk.models import Preflight
from yenzo.apps.orders.models import Line
from yenzo.apps.orders.to_core import different_pieces
from yenzo.apps.products.to_core import setup_of_revision
from yenzo.core.evaluation import Evaluation
from yenzo.core.pricing.order import OrderLine, quote_order


def cost_difference(preflight: Preflight, evaluation: Evaluation) -> Decimal:
    """Return by how much a line costs more (or less, below 0) with some of its pieces changed.

    Both are worked out in the same way by the set-up as it was ordered, so what was agreed to pay for all else stays.
    """
    line = preflight.line
    before = list(_priced(line))
    at = list(different_pieces(line)).index(preflight.index)
    changed = OrderLine(before[at].product, evaluation.setup, evaluation.asked, evaluation.amounts, before[at].of_list)
    return _total([*before[:at], changed, *before[at + 1 :]]) - _total(before)


def cost_of_pieces(preflight: Preflight) -> Decimal:
    """Return what was paid for some pieces of a line: what it costs less without them, but for what nobody paid."""
    pieces = list(_priced(preflight.line))
    at = list(different_pieces(preflight.line)).index(preflight.index)
    differences = (change.difference for change in preflight.changes.select_related("difference"))
    unpaid = sum((one.amount for one in differences if one and (one.is_to_pay or one.is_waived)), Decimal(0))
    return _total(pieces) - _total([*pieces[:at], *pieces[at + 1 :]]) - unpaid


def _priced(line: Line) -> Iterator[OrderLine]:
    setup, of_list = setup_of_revision(line.revision), "list" if line.is_list else ""
    for one in different_pieces(line).values():
        yield OrderLine(str(line.product_id), setup, asked_of(one), amounts_of(one), of_list)


def _total(lines: list[OrderLine]) -> Decimal:
    return sum((quote.total for quote in quote_order(lines)), Decimal(0))
