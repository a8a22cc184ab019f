"""The form of axes: names and values come in, the axes and all variants that they make go out."""

from collections.abc import Mapping
from typing import Any

from django import forms

from yenzo.apps.pages.fields import LineField, LinesField
from yenzo.apps.pages.phrases import joined
from yenzo.core.documents.axes import MOST_VARIANTS, Axis, AxisValue, combinations
from yenzo.core.documents.edits import free_key
from yenzo.core.documents.reading import dump_part
from yenzo.core.documents.renaming import named_before
from yenzo.core.documents.setup import Offer
from yenzo.core.documents.variants import Variant

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
                axes.append(self._axis(number, name, values, axes))
        if self.errors:
            return self.cleaned_data
        self.axes = tuple(axes)
        if len(combinations(axes)) > MOST_VARIANTS:
            self.add_error(None, f"That would be {len(combinations(axes))} variants; {MOST_VARIANTS} at most.")
        else:
            self._place()
            self._ask_of_losses()
        return self.cleaned_data

    def _ask_of_losses(self) -> None:
        """Refuse to take variants away that have something of their own, until that is meant."""
        left = {variant.key for variant in self._kept.values()} if self.axes else set()
        gone = [variant for variant in self._offer.variants if variant.key not in left] if self.axes else []
        lost = [f"“{variant.name}” with its {joined(own)}" for variant in gone if (own := _own(variant))]
        if not lost:
            return
        self.fields["sure"] = forms.BooleanField(required=False, label="Yes, take them away")
        if self.data.get("sure") != "on":
            self.add_error(None, f"With that goes {joined(lost)}.")

    def _axis(self, number: int, name: str, values: list[str], others: list[Axis]) -> Axis:
        """Return an axis under its key, with the keys that its values have already, or new ones."""
        before = self._offer.axes
        had = next((axis for axis in before if axis.name == name), None)
        names = {self.cleaned_data.get(f"name-{other}") for other in range(MOST_AXES)}
        if had is None and number < len(before) and before[number].name not in names:
            # It stands where another name stood that isn't there any more: the same axis, renamed.
            had = before[number]
        key = had.key if had else _key([axis.key for axis in (*before, *others)], name)
        known = had.values if had else ()
        found = named_before([value.name for value in known], values)
        made: list[AxisValue] = []
        for value, at in zip(values, found, strict=True):
            new = AxisValue(key=_key([one.key for one in (*known, *made)], value), name=value)
            made.append(new if at is None else known[at].model_copy(update={"name": value}))
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
                variants.append({**dump_part(variant), "name": self._renamed(variant, values), "at": at})
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

    def _renamed(self, variant: Variant, values: tuple[AxisValue, ...]) -> str:
        """Return what a variant is called: after its values, if it was before; a name of its own stays."""
        before = [axis.value(variant.at.get(axis.key)) for axis in self._offer.axes]
        was = ", ".join(value.name for value in before if value)
        return ", ".join(value.name for value in values) if variant.name == was else variant.name

    def _was_removed(self, values: tuple[AxisValue, ...]) -> bool:
        """Tell whether a combination could have been there before, and isn't: it can't be had."""
        before = self._offer.axes
        is_known = len(before) == len(values) and all(
            axis.value(value.key) for axis, value in zip(before, values, strict=True)
        )
        return is_known and bool(self._offer.variants)


def _own(variant: Variant) -> list[str]:
    """Return what a variant has of its own, in words."""
    has = {"price": variant.price_difference, "SKU": variant.sku, "pictures": variant.pictures, "size": variant.scales}
    return [words for words, value in {**has, "areas": variant.areas}.items() if value]


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
