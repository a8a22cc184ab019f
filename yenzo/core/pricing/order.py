"""The price of a whole order: its lines come in, their quotes go out; what is once an order is charged once."""

from collections import Counter
from collections.abc import Iterable, Sequence
from dataclasses import dataclass
from decimal import Decimal

from yenzo.core.asking.ask import Asked
from yenzo.core.documents.setup import Setup
from yenzo.core.pricing.amounts import Amounts
from yenzo.core.pricing.quote import TAX, OrderAround, Quote, QuoteLine, price


@dataclass(frozen=True)
class OrderLine:
    """One line of an order, or a row of a list that is one line.

    `product` identifies its product, whatever that is called and in whichever revision; `of_list` the list, if any.
    """

    product: str
    setup: Setup
    asked: Asked
    amounts: Amounts
    of_list: str = ""


def quote_order(lines: Iterable[OrderLine]) -> tuple[Quote, ...]:
    """Return the quotes of all lines. What is charged once an order stands in the first line that has it.

    Charges of two lines are the same when product and charge are. Bands that count all pieces of a product count those
    of all its lines. The rows of a list are one line: its pieces count together, and what is charged once a line is
    charged in its first row.
    """
    lines = tuple(lines)
    pieces, listed = Counter[str](), Counter[str]()
    for line in lines:
        pieces[line.product] += line.asked.pieces
        listed[line.of_list] += line.asked.pieces
    charged: dict[str, set[str]] = {}
    charged_in_list: dict[str, set[str]] = {}
    quotes = []
    for line in lines:
        already = charged.setdefault(line.product, set())
        of_list = charged_in_list.setdefault(line.of_list, set()) if line.of_list else set[str]()
        around = OrderAround(
            frozenset(already | of_list), pieces[line.product], listed[line.of_list] if line.of_list else None
        )
        quote = price(line.setup, line.asked, line.amounts, around)
        already.update(row.key for row in quote.lines if row.per == "order")
        of_list.update(row.key for row in quote.lines if row.per == "line" and row.key != TAX)
        quotes.append(quote)
    return tuple(quotes)


def quote_of_list(quotes: Sequence[Quote]) -> Quote:
    """Return the quote of a list from those of its rows: each row of the price is the sum over all pieces."""
    first = quotes[0]
    rows: dict[str, QuoteLine] = {}
    for quote in quotes:
        for line in quote.lines:
            amount = line.amount * quote.pieces if line.per == "piece" else line.amount
            before = rows.get(line.key)
            if before is not None:
                rows[line.key] = before.model_copy(update={"amount": before.amount + amount})
            else:
                per = "line" if line.per == "piece" else line.per
                rows[line.key] = line.model_copy(update={"amount": amount, "per": per})
    taxes = [line for line in rows.values() if line.key == TAX]
    return first.model_copy(
        update={
            "lines": (*(line for line in rows.values() if line.key != TAX), *taxes),
            "each": Decimal(0),
            "pieces": sum(quote.pieces for quote in quotes),
            "total": sum((quote.total for quote in quotes), Decimal(0)),
            "tax": sum((quote.tax for quote in quotes), Decimal(0)),
            "is_list": True,
        }
    )
