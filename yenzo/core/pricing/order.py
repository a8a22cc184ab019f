"""The price of a whole order: its lines come in, their quotes go out; what is once an order is charged once."""

from collections import Counter
from collections.abc import Iterable
from dataclasses import dataclass

from yenzo.core.asking.ask import Asked
from yenzo.core.documents.setup import Setup
from yenzo.core.pricing.amounts import Amounts
from yenzo.core.pricing.quote import OrderAround, Quote, price


@dataclass(frozen=True)
class OrderLine:
    """One line of an order. `product` identifies its product, whatever that is called and in whichever revision."""

    product: str
    setup: Setup
    asked: Asked
    amounts: Amounts


def quote_order(lines: Iterable[OrderLine]) -> tuple[Quote, ...]:
    """Return the quotes of all lines. What is charged once an order stands in the first line that has it.

    Charges of two lines are the same when product and charge are. Bands that count all pieces of a product count those
    of all its lines.
    """
    lines = tuple(lines)
    pieces = Counter[str]()
    for line in lines:
        pieces[line.product] += line.asked.pieces
    charged: dict[str, set[str]] = {}
    quotes = []
    for line in lines:
        already = charged.setdefault(line.product, set())
        around = OrderAround(frozenset(already), pieces[line.product])
        quote = price(line.setup, line.asked, line.amounts, around)
        already.update(row.key for row in quote.lines if row.per == "order")
        quotes.append(quote)
    return tuple(quotes)
