"""The price of one order line: a set-up, what is asked and amounts come in; a quote whose lines add up goes out."""

from collections.abc import Iterator
from dataclasses import dataclass
from decimal import ROUND_HALF_UP, Decimal

from babel.numbers import get_currency_precision

from yenzo.core.asking.ask import Asked
from yenzo.core.documents.charges import Per
from yenzo.core.documents.fields import ExtraField
from yenzo.core.documents.rules import read_number
from yenzo.core.documents.setup import Setup
from yenzo.core.documents.values import Frozen, Money
from yenzo.core.pricing.amounts import Amounts
from yenzo.core.pricing.charging import Charged
from yenzo.core.translation import decimal, translate

BASE, VARIANT, TAX, EXTRAS, EXTRA = "base", "variant", "tax", "extras", "extra"


class QuoteLine(Frozen):
    """One row of a quote: what it is for, the amount, and whether that is for each piece, for all, or once an order."""

    key: str
    label: str
    amount: Money
    per: Per = "piece"
    shown: bool = True


class Quote(Frozen):
    """The price of one order line: its rows, the sum for each piece, the sum for all of them, and the total.

    `tax` is what the total has of taxes, included in the rows or a row of its own. Of a list (`is_list`) each row is
    the sum over all its pieces, which may cost different amounts.
    """

    lines: tuple[QuoteLine, ...]
    each: Money
    pieces: int
    total: Money
    currency: str
    tax: Money = Decimal(0)
    tax_percent: Decimal = Decimal(0)
    total_only: bool = False
    is_list: bool = False

    @property
    def shown_lines(self) -> tuple[QuoteLine, ...]:
        """The rows that customers see: what isn't shown by itself stands in one sum, or nothing but the total does."""
        if self.total_only:
            return tuple(line for line in self.lines if line.key == TAX)
        shown = [line for line in self.lines if line.shown]
        for per in ("piece", "line", "order"):
            hidden = [line.amount for line in self.lines if not line.shown and line.per == per]
            if hidden:
                at = next((at for at, line in enumerate(shown) if line.key == TAX), len(shown))
                amount = sum(hidden, Decimal(0))
                shown.insert(
                    at, QuoteLine(key=f"{EXTRAS}-{per}", label=translate("Personalization"), amount=amount, per=per)
                )
        return tuple(shown)

    def worded_as(self, other: "Quote") -> "Quote":
        """Return the quote with its own amounts and the words of another one, where that has the same rows."""
        labels = {line.key: line.label for line in other.lines}
        lines = tuple(line.model_copy(update={"label": labels.get(line.key, line.label)}) for line in self.lines)
        return self.model_copy(update={"lines": lines})

    @property
    def taxes_included(self) -> bool:
        """Whether the rows have the taxes in them already."""
        return all(line.key != TAX for line in self.lines)


@dataclass(frozen=True)
class OrderAround:
    """What a line's price takes from the rest of its order.

    `charged_already` names charges that stand in another line already; `pieces` is how many pieces of the product all
    lines have together, and `list_pieces` all rows of the list that it is of; none where the line stands alone.
    """

    charged_already: frozenset[str] = frozenset()
    pieces: int | None = None
    list_pieces: int | None = None


ALONE = OrderAround()


def price(setup: Setup, asked: Asked, amounts: Amounts, around: OrderAround = ALONE) -> Quote:
    """Return the quote for what is asked.

    The sum of its lines, those of pieces times the pieces, is the total, to the last digit.
    """
    unit = Decimal(1).scaleb(-get_currency_precision(setup.offer.currency))
    found = _lines(setup, Charged(setup, asked, amounts, around.pieces, around.list_pieces), unit)
    lines = [line for line in found if line.key not in around.charged_already]
    each = sum((line.amount for line in lines if line.per == "piece"), Decimal(0))
    total = each * asked.pieces + sum((line.amount for line in lines if line.per != "piece"), Decimal(0))
    percent, tax = setup.offer.tax_percent, Decimal(0)
    if percent and setup.offer.taxes_included:
        tax = (total * percent / (100 + percent)).quantize(unit, ROUND_HALF_UP)
    elif percent:
        tax = (total * percent / 100).quantize(unit, ROUND_HALF_UP)
        lines.append(
            QuoteLine(key=TAX, label=translate("{percent} % tax", percent=decimal(percent)), amount=tax, per="line")
        )
        total += tax
    return Quote(
        lines=tuple(lines),
        each=each,
        pieces=asked.pieces,
        total=total,
        currency=setup.offer.currency,
        tax=tax,
        tax_percent=percent,
        total_only=setup.form.extras == "none",
    )


def _lines(setup: Setup, charged: Charged, unit: Decimal) -> Iterator[QuoteLine]:
    def line(key: str, label: str, amount: Decimal, per: Per = "piece", *, shown: bool = True) -> QuoteLine:
        """Return a line of the quote, its amount rounded to the currency's unit."""
        rounded = amount.quantize(unit, ROUND_HALF_UP)
        # Nothing here comes from outside: to check it again would cost more than to work it out.
        return QuoteLine.model_construct(key=key, label=label, amount=rounded, per=per, shown=shown)

    offer = setup.offer
    yield line(BASE, offer.name, offer.base_price)
    variant = offer.variant(charged.asked.variant)
    if variant and variant.price_difference:
        yield line(VARIANT, variant.name, variant.price_difference)
    for field in setup.fields:
        count = read_number(charged.asked.text(field.key)) if isinstance(field, ExtraField) else None
        if isinstance(field, ExtraField) and count:
            yield line(f"{EXTRA}:{field.key}", f"{count.normalize():f} × {field.label}", field.price * count)
    for charge in setup.charges:
        row = charged.row(charge)
        if row is not None and row[1]:
            yield line(charge.key, *row, charge.per, shown=charge.shown and setup.form.extras == "rows")
