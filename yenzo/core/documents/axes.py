"""Axes of variants (size, cloth, color): what a customer picks along them comes in, the variant goes out."""

from collections.abc import Iterable, Mapping
from itertools import product

from pydantic import Field

from yenzo.core.documents.values import Frozen, Key, Label, ScreenColor
from yenzo.core.documents.variants import Variant

MOST_VARIANTS = 200


class AxisValue(Frozen):
    """One size, one cloth, one color."""

    key: Key
    name: Label
    swatch: ScreenColor | None = None


class Axis(Frozen):
    """What variants differ by; each variant stands at one of its values."""

    key: Key
    name: Label
    values: tuple[AxisValue, ...] = Field(min_length=1, max_length=100)

    def value(self, key: object) -> AxisValue | None:
        """Return the value with this key, if the axis has it."""
        return next((value for value in self.values if value.key == key), None)


def combinations(axes: Iterable[Axis]) -> list[tuple[AxisValue, ...]]:
    """Return every combination of values, the last axis running fastest."""
    return list(product(*(axis.values for axis in axes)))


def variant_at(variants: Iterable[Variant], wanted: Mapping[str, str], before: Variant | None = None) -> Variant | None:
    """Return the variant at the wanted values.

    Where there is none, what was changed since `before` counts, and of the rest as much as can be had.
    """
    known = list(variants)
    changed = {axis for axis, value in wanted.items() if before is None or before.at.get(axis) != value}

    def fit(variant: Variant) -> tuple[int, int]:
        """Return how many of the changed axes a variant has as wanted, and of all: more is better."""
        same = {axis for axis, value in wanted.items() if variant.at.get(axis) == value}
        return len(same & changed), len(same)

    return max(known, key=fit, default=None)
