"""What each charge comes to: a charge and what is asked come in, a row's label and amount go out."""

from collections.abc import Iterator, Mapping
from dataclasses import dataclass, fields
from decimal import Decimal
from functools import cached_property
from typing import assert_never

from yenzo.core.asking.ask import Asked
from yenzo.core.asking.problems import GOODS, Problem
from yenzo.core.asking.words import value_name
from yenzo.core.documents.charge_faults import charge_name
from yenzo.core.documents.charges import (
    AnyCharge,
    Band,
    BandCharge,
    ChoiceCharge,
    CountedCharge,
    FixedCharge,
    FormulaCharge,
    PercentCharge,
)
from yenzo.core.documents.named import BASE_PRICE, PIECES, Names
from yenzo.core.documents.rules import read_number
from yenzo.core.documents.setup import Setup
from yenzo.core.errors import FormulaError
from yenzo.core.formulas.evaluate import Named, evaluate
from yenzo.core.pricing.amounts import Amount, Amounts
from yenzo.core.pricing.counting import beyond_words, count_of, counted_words, from_words
from yenzo.core.translation import decimal, money, translate

Row = tuple[str, Decimal]
# More than anything costs in any currency, and less than amounts have room for.
MOST_AMOUNT = Decimal(10) ** 7


@dataclass(frozen=True)
class Charged:
    """What charges are worked out from.

    `product_pieces` are all of the product in the order, and `list_pieces` all of the list that this is a row of.
    """

    setup: Setup
    asked: Asked
    amounts: Amounts
    product_pieces: int | None = None
    list_pieces: int | None = None

    @property
    def pieces(self) -> int:
        """How many pieces are ordered together as one line."""
        return self.list_pieces or self.asked.pieces

    @cached_property
    def _names(self) -> Names:
        return self.asked.names(self.setup)

    @cached_property
    def base(self) -> Decimal:
        """The price without extras, with the variant's difference."""
        base = self._names[BASE_PRICE]
        assert isinstance(base, Decimal)
        return base

    def row(self, charge: AnyCharge) -> Row | None:
        """Return the row of a charge, or None when it adds nothing because nothing of it is asked and filled."""
        if charge.field is not None and not self.asked.is_filled(charge.field):
            return None
        found = self._found(charge, self.amounts.of(charge.field))
        if found is None:
            return None
        label, amount = found
        return charge.label or label, charge.bounded(amount)

    def problems(self) -> Iterator[Problem]:
        """Yield a problem for each formula that comes to nothing: what can't be worked out can't be sold."""
        for charge in self.setup.charges:
            is_due = charge.field is None or self.asked.is_filled(charge.field)
            if not isinstance(charge, FormulaCharge) or not is_due:
                continue
            try:
                self._evaluated(charge, self.amounts.of(charge.field))
            except FormulaError:
                message = translate(
                    "What “{name}” adds to the price can't be worked out from these entries and this many pieces. "
                    "Please change one of them, or ask the workshop.",
                    name=charge_name(self.setup, charge),
                )
                yield Problem(code="no_price", field=charge.field or GOODS, message=message)

    def _found(self, charge: AnyCharge, amount: Amount) -> Row | None:
        name = charge_name(self.setup, charge)
        match charge:
            case FixedCharge():
                return name, charge.amount
            case PercentCharge():
                return _share(name, charge.percent), self.base * charge.percent / 100
            case ChoiceCharge():
                return self._by_choice(charge)
            case BandCharge():
                return self._by_band(charge, amount)
            case FormulaCharge():
                return self._by_formula(charge, amount)
            case CountedCharge():
                return self._by_count(charge, amount)
            case _:
                assert_never(charge)

    def _by_choice(self, charge: ChoiceCharge) -> Row | None:
        field = self.setup.field(charge.field or "")
        assert field is not None
        value = self.asked.values[field.key]
        charged = [str(key) for key in (value if isinstance(value, tuple) else (value,)) if key in charge.amounts]
        if not charged:
            return None
        names = ", ".join(value_name(self.setup, field, key) for key in charged)
        return f"{field.label}: {names}", sum((charge.amounts[key] for key in charged), Decimal(0))

    def _by_count(self, charge: CountedCharge, amount: Amount) -> Row | None:
        more = count_of(charge, self.asked, amount) - charge.beyond
        if more <= 0:
            return None
        name = charge_name(self.setup, charge)  # type: ignore[arg-type] # every counted charge is one of them
        counted = f"{counted_words(charge, more)}{beyond_words(charge.beyond)}"
        rate = money(charge.amount, self.setup.offer.currency, is_rate=True)
        label = translate("{name}: {counted}, at {amount}", name=name, counted=counted, amount=rate)
        return label, charge.amount * more

    def _by_band(self, charge: BandCharge, amount: Amount) -> Row | None:
        of = {
            "pieces": lambda: Decimal(self.pieces),
            "product_pieces": lambda: Decimal(self.product_pieces or self.pieces),
            "cm2": lambda: amount.ink_cm2,
            "entry": lambda: read_number(self.asked.text(charge.field or "")) or Decimal(0),
        }[charge.of]()
        band: Band | None = next((band for band in reversed(charge.bands) if of >= band.begins), None)
        if band is None:
            return None
        label = f"{charge_name(self.setup, charge)}: {from_words(band, charge.of)}"
        if band.percent:
            label = _share(label, band.percent)
        return label, band.amount + self.base * band.percent / 100

    def _by_formula(self, charge: FormulaCharge, amount: Amount) -> Row | None:
        try:
            found = self._evaluated(charge, amount)
        except FormulaError:
            # It can't be ordered like that (see `problems`); a price that is shown meanwhile is one without it.
            found = Decimal(0)
        return charge_name(self.setup, charge), found

    def _evaluated(self, charge: FormulaCharge, amount: Amount) -> Decimal:
        measured: dict[str, Named] = {one.name: Decimal(getattr(amount, one.name)) for one in fields(amount)}
        measured[PIECES] = Decimal(self.pieces)
        found = evaluate(charge.formula, _Both(measured, self._names))
        if abs(found) >= MOST_AMOUNT:
            raise FormulaError("too_much", charge.formula, f"“{charge.formula}” comes to far too much.")
        return found


class _Both(dict[str, Named]):
    """Measured amounts, and everything else that a formula may name."""

    def __init__(self, measured: dict[str, Named], names: Mapping[str, Named]) -> None:
        super().__init__(measured)
        self._names = names

    def __missing__(self, name: str) -> Named:
        return self._names[name]


def _share(label: str, percent: Decimal) -> str:
    return translate("{name}: {percent} % of the base price", name=label, percent=decimal(percent))
