"""What each charge comes to: a charge and what is asked come in, a row's label and amount go out."""

from collections.abc import Mapping
from dataclasses import dataclass, fields
from decimal import Decimal
from functools import cached_property
from typing import assert_never

from yenzo.core.asking.ask import Asked
from yenzo.core.asking.words import say_amount, value_name
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
from yenzo.core.documents.named import BASE_PRICE, Names
from yenzo.core.documents.rules import read_number
from yenzo.core.documents.setup import Setup
from yenzo.core.errors import FormulaError
from yenzo.core.formulas.evaluate import Named, evaluate
from yenzo.core.pricing.amounts import Amount, Amounts
from yenzo.core.pricing.counting import beyond_words, count_of, counted_words, from_words
from yenzo.core.speaking import decimal, say

Row = tuple[str, Decimal]


@dataclass(frozen=True)
class Charged:
    """What charges are worked out from."""

    setup: Setup
    asked: Asked
    amounts: Amounts

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
        label = say("{name}: {counted}, at {amount}", name=name, counted=counted, amount=say_amount(charge.amount))
        return label, charge.amount * more

    def _by_band(self, charge: BandCharge, amount: Amount) -> Row | None:
        of = {
            "pieces": lambda: Decimal(self.asked.pieces),
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
        measured: dict[str, Named] = {one.name: Decimal(getattr(amount, one.name)) for one in fields(amount)}
        try:
            found = evaluate(charge.formula, _Both(measured, self._names))
        except FormulaError:
            # What it looks at isn't filled in yet: then it adds nothing but what it comes to at least.
            found = Decimal(0)
        return charge_name(self.setup, charge), found


class _Both(dict[str, Named]):
    """Measured amounts, and everything else that a formula may name."""

    def __init__(self, measured: dict[str, Named], names: Mapping[str, Named]) -> None:
        super().__init__(measured)
        self._names = names

    def __missing__(self, name: str) -> Named:
        return self._names[name]


def _share(label: str, percent: Decimal) -> str:
    return say("{name}: {percent} % of the base price", name=label, percent=decimal(percent))
