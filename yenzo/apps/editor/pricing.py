"""The price helper's page: a product comes in; its form, its margin and what its extras earn go out."""

from dataclasses import dataclass
from decimal import Decimal
from typing import Any

from django import forms
from django.http import QueryDict

from yenzo.apps.files.store import StoredAssets
from yenzo.apps.pages.phrases import plain_decimal
from yenzo.core.documents.charge_faults import charge_name
from yenzo.core.documents.setup import Setup
from yenzo.core.evaluation import evaluate, sample_entries
from yenzo.core.pricing.helper import Costs, ExtraCost, Margin, margin_of_extra

MONEY = {
    "blank": "Blank, made here or bought in",
    "materials": "Materials",
    "hourly_rate": "An hour of work",
    "postage": "Postage and packing",
    "marketing": "Marketing, for each piece",
    "fee_fixed": "Fees: fixed",
}
SHARES = {
    "fee_percent": "Fees: percent of what is paid",
    "spoilt_percent": "Spoilt, percent of the pieces made",
    "discount_percent": "Discount that is given, percent",
    "margin_percent": "Wanted margin, percent of the price",
}
MOST_MINUTES = 10_000


@dataclass(frozen=True)
class ExtraRow:
    """A charge with what it comes to for sample entries, and what it earns."""

    key: str
    name: str
    amount: Decimal | None
    margin: Margin | None


def extra_rows(setup: Setup, costs: Costs) -> list[ExtraRow]:
    """Return every charge with its margin, as far as sample entries bring it."""
    lines = evaluate(setup, sample_entries(setup), StoredAssets()).quote.lines
    amounts = {line.key: line.amount for line in lines}
    rows = []
    for charge in setup.charges:
        amount = amounts.get(charge.key)
        margin = None if amount is None else margin_of_extra(costs, charge.key, amount)
        rows.append(ExtraRow(charge.key, charge_name(setup, charge), amount, margin))
    return rows


class CostsForm(forms.Form):
    """What a piece and its extras cost."""

    def __init__(self, setup: Setup, costs: Costs, data: QueryDict | None = None) -> None:
        super().__init__(data)
        self._charges = setup.charges
        for name, label in MONEY.items():
            self.fields[name] = _number(getattr(costs, name), label)
        self.fields["minutes"] = _number(costs.minutes, "Minutes of work on it", MOST_MINUTES)
        for name, label in SHARES.items():
            self.fields[name] = _number(getattr(costs, name), label, most=99)
        for charge in setup.charges:
            extra, name = costs.extras.get(charge.key, ExtraCost()), charge_name(setup, charge)
            self.fields[f"{charge.key}.minutes"] = _number(extra.minutes, f"{name}: minutes of work", MOST_MINUTES)
            self.fields[f"{charge.key}.materials"] = _number(extra.materials, f"{name}: materials")

    def clean(self) -> dict[str, Any]:
        """Refuse a margin that no price can give."""
        given = super().clean() or {}
        if (given.get("fee_percent") or 0) + (given.get("margin_percent") or 0) >= 100:
            self.add_error("margin_percent", "Fees and margin together take the whole price; no price can give both.")
        return given

    def costs(self) -> Costs:
        """Return what was given."""
        given = {name: value or Decimal(0) for name, value in self.cleaned_data.items()}
        extras = {
            charge.key: ExtraCost(minutes=given[f"{charge.key}.minutes"], materials=given[f"{charge.key}.materials"])
            for charge in self._charges
        }
        return Costs(**{name: value for name, value in given.items() if "." not in name}, extras=extras)


def _number(initial: Decimal, label: str, most: int = 1_000_000) -> forms.DecimalField:
    return forms.DecimalField(
        required=False,
        min_value=0,
        max_value=most,
        decimal_places=2,
        initial=plain_decimal(initial) if initial else "",
        label=label,
    )
