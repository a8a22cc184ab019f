"""The price of a whole order: its lines come in, their quotes go out; what is once an order is charged once."""

from collections.abc import Iterable

from yenzo.core.asking.ask import Asked
from yenzo.core.documents.setup import Setup
from yenzo.core.pricing.amounts import Amounts
from yenzo.core.pricing.quote import Quote, price


def quote_order(lines: Iterable[tuple[Setup, Asked, Amounts]]) -> tuple[Quote, ...]:
    """Return the quotes of all lines. What is charged once an order stands in the first line that has it.

    Charges of two lines are the same when product and charge are.
    """
    charged: dict[str, set[str]] = {}
    quotes = []
    for setup, asked, amounts in lines:
        already = charged.setdefault(f"{setup.offer.sku}/{setup.offer.name}", set())
        quote = price(setup, asked, amounts, frozenset(already))
        already.update(line.key for line in quote.lines if line.per == "order")
        quotes.append(quote)
    return tuple(quotes)
