"""The form of axes: names and values come in, the axes and all variants that they make go out."""

from collections.abc import Mapping
from typing import Any

from django import forms

from yenzo.apps.accounts.fields import LineField, LinesField
from yenzo.core.documents.axes import MOST_VARIANTS, Axis, AxisValue, combinations
from yenzo.core.documents.edits import free_key
from yenzo.core.documents.reading import dump_part
from yenzo.core.documents.setup import Offer, Variant

MOST_AXES, MOST_VALUES, MOST_IN_A_NAME = 3, 100, 80


class AxesForm(forms.Form):
    """Up to three axes, each with a name and its values, one a line."""

    def __init__(self, offer: Offer, data: Mapping[str, Any] | None = None) -> None:
        super().__init__(data)
        self._offer = offer
        for number in range(MOST_AXES):
            axis = offer.axes[number] if number < len(offer.axes) else None
            self.fields[f"name-{number}"] = LineField(
                required=False,
                max_length=MOST_IN_A_NAME,
                initial=axis.name if axis else "",
                label=("They differ by", "and by", "and by")[number],
            )
            self.fields[f"values-{number}"] = LinesField(
                required=False,
                max_length=10_000,
                widget=forms.Textarea(attrs={"rows": 3}),
                initial="\n".join(value.name for value in axis.values) if axis else "",
                label="Its values, one a line",
            )

    @property
    def pairs(self) -> list[tuple[forms.BoundField, forms.BoundField]]:
        """Each axis: its name and its values."""
        return [(self[f"name-{number}"], self[f"values-{number}"]) for number in range(MOST_AXES)]

    def clean(self) -> dict[str, Any]:
        """Work out axes and variants; refuse names without values, and variants that have no place."""
        axes: list[Axis] = []
        for number in range(MOST_AXES):
            name = " ".join(self.cleaned_data.get(f"name-{number}", "").split())
            lines = self.cleaned_data.get(f"values-{number}", "").splitlines()
            values = list(dict.fromkeys(" ".join(line.split()) for line in lines if line.strip()))
            if bool(name) != bool(values):
                self.add_error(f"name-{number}", "An axis needs a name and values.")
            elif len(values) > MOST_VALUES or any(len(value) > MOST_IN_A_NAME for value in values):
                words = f"At most {MOST_VALUES} values, each of at most {MOST_IN_A_NAME} characters."
                self.add_error(f"values-{number}", words)
            elif name in {axis.name for axis in axes}:
                self.add_error(f"name-{number}", f"There is an axis “{name}” already.")
            elif name:
                axes.append(self._axis(name, values, axes))
        if self.errors:
            return self.cleaned_data
        self.axes = tuple(axes)
        if len(combinations(axes)) > MOST_VARIANTS:
            self.add_error(None, f"That would be {len(combinations(axes))} variants; {MOST_VARIANTS} at most.")
        else:
            self._place()
        return self.cleaned_data

    def _axis(self, name: str, values: list[str], others: list[Axis]) -> Axis:
        """Return an axis with the keys that name and values have already, or new ones."""
        had = next((axis for axis in self._offer.axes if axis.name == name), None)
        key = had.key if had else _key([axis.key for axis in (*self._offer.axes, *others)], name)
        made: list[AxisValue] = []
        for value in values:
            kept = next((one for one in had.values if one.name == value), None) if had else None
            made.append(
                kept
                or AxisValue(key=_key([one.key for one in (*(had.values if had else ()), *made)], value), name=value)
            )
        return Axis(key=key, name=name, values=tuple(made))

    def _place(self) -> None:
        """Put each variant at its combination; what stands at none goes, when its value was left out."""
        kept: dict[tuple[str, ...], Variant] = {}
        wanted = combinations(self.axes) if self.axes else []
        for variant in self._offer.variants:
            place = next((values for values in wanted if _stands(variant, self.axes, values)), None)
            if place is not None:
                kept[tuple(value.key for value in place)] = variant
            elif self.axes and not variant.at:
                message = (
                    f"“{variant.name}” has no place on these axes. Name the value that it stands for like it, or "
                    "remove it first."
                )
                self.add_error(None, message)
        self._kept, self._wanted = kept, wanted

    def operations(self) -> list[dict[str, Any]]:
        """Return the operations that put axes and variants into the draft."""
        variants: list[dict[str, Any]] = []
        for values in self._wanted:
            at = {axis.key: value.key for axis, value in zip(self.axes, values, strict=True)}
            variant = self._kept.get(tuple(value.key for value in values))
            if variant is not None:
                variants.append({**dump_part(variant), "at": at})
                continue
            if not self._was_removed(values):
                taken = [one["key"] for one in variants] + [one.key for one in self._offer.variants]
                variants.append(new_variant(taken, self.axes, values))
        if not self.axes:
            variants = [{**dump_part(one.model_copy(update={"at": {}}))} for one in self._offer.variants]
        axes = [dump_part(axis) for axis in self.axes]
        return [
            {"do": "set", "path": ["offer", "axes"], "value": axes or None},
            {"do": "set", "path": ["offer", "variants"], "value": variants or None},
        ]

    def _was_removed(self, values: tuple[AxisValue, ...]) -> bool:
        """Tell whether a combination could have been there before, and isn't: it can't be had."""
        before = self._offer.axes
        is_known = len(before) == len(values) and all(
            axis.value(value.key) for axis, value in zip(before, values, strict=True)
        )
        return is_known and bool(self._offer.variants)


def new_variant(taken: list[str], axes: tuple[Axis, ...], values: tuple[AxisValue, ...]) -> dict[str, Any]:
    """Return a variant at a combination of values, as a document has it, named after them."""
    name = ", ".join(value.name for value in values)
    at = {axis.key: value.key for axis, value in zip(axes, values, strict=True)}
    return {"key": _key(taken, name), "name": name, "at": at}


def not_made(offer: Offer) -> list[dict[str, Any]]:
    """Return the combinations of an offer's axes that no variant has, as variants that could be made."""
    if not offer.axes:
        return []
    places = [variant.at for variant in offer.variants]
    taken = [variant.key for variant in offer.variants]
    could = [new_variant(taken, offer.axes, values) for values in combinations(offer.axes)]
    return [variant for variant in could if variant["at"] not in places]


def _stands(variant: Variant, axes: tuple[Axis, ...], values: tuple[AxisValue, ...]) -> bool:
    """Tell whether a variant is at a combination: as it says itself, or by its name where it says nothing yet.

    Along an axis that is new to it, it stands at the first value.
    """
    pairs = list(zip(axes, values, strict=True))
    if variant.at:
        return all(variant.at.get(axis.key, axis.values[0].key) == value.key for axis, value in pairs)
    is_named = variant.name == ", ".join(value.name for value in values)
    return is_named or (variant.name == values[0].name and all(value is axis.values[0] for axis, value in pairs[1:]))


def _key(taken: list[str], wanted: str) -> str:
    return free_key({"all": [{"key": key} for key in taken]}, ("all",), wanted)
