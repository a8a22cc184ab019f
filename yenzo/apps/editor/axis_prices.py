"""Prices along axes: what each value adds comes in; every variant's price goes out, all at once."""

from collections.abc import Mapping
from decimal import Decimal
from typing import Any

from django import forms

from yenzo.core.documents.setup import Offer
from yenzo.core.documents.variants import Variant

NOTHING = Decimal(0)


class AxisPricesForm(forms.Form):
    """What each value of each axis adds to the price; a variant costs what its values add together."""

    def __init__(self, offer: Offer, data: Mapping[str, Any] | None = None) -> None:
        super().__init__(data)
        self._offer = offer
        known = prices_by_value(offer)
        for axis in offer.axes:
            for value in axis.values:
                self.fields[f"{axis.key}/{value.key}"] = forms.DecimalField(
                    required=False,
                    max_digits=10,
                    decimal_places=3,
                    initial=known.get((axis.key, value.key)) if known else None,
                    label=f"{axis.name}: {value.name}",
                )

    def operations(self) -> list[dict[str, Any]]:
        """Return the operations that give every variant the price of its values."""
        given = self.cleaned_data
        return [
            {
                "do": "set",
                "path": ["offer", "variants", variant.key, "price_difference"],
                "value": str(
                    sum((given.get(f"{axis}/{value}") or NOTHING for axis, value in variant.at.items()), NOTHING)
                ),
            }
            for variant in self._offer.variants
        ]


def prices_by_value(offer: Offer) -> dict[tuple[str, str], Decimal] | None:
    """Return what each value adds, where prices are such sums already; None where a variant has one of its own.

    The first value of each axis adds nothing but to the first axis, so that the sums have one solution.
    """
    if not offer.axes or not offer.variants:
        return None
    first = {axis.key: axis.values[0].key for axis in offer.axes}
    by_place = {tuple(sorted(variant.at.items())): variant.price_difference for variant in offer.variants}
    base = by_place.get(tuple(sorted(first.items())))
    if base is None:
        return None
    found: dict[tuple[str, str], Decimal] = {}
    for axis in offer.axes:
        for value in axis.values:
            price = by_place.get(tuple(sorted({**first, axis.key: value.key}.items())))
            if price is None:
                return None
            found[axis.key, value.key] = price - base
    # What the first combination costs goes with the first axis.
    for value in offer.axes[0].values:
        found[offer.axes[0].key, value.key] += base
    return found if all(_sum(found, variant) == variant.price_difference for variant in offer.variants) else None


def _sum(found: dict[tuple[str, str], Decimal], variant: Variant) -> Decimal:
    return sum((found[pair] for pair in variant.at.items()), NOTHING)
