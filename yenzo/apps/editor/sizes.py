"""Forms for how large the goods are: a variant's own scale and areas, and entries that a side's size follows."""

from collections.abc import Iterator, Mapping
from typing import Any

from django import forms

from yenzo.apps.editor.forms import NUMBER
from yenzo.core.documents.areas import Frame
from yenzo.core.documents.field_base import UNITS_MM
from yenzo.core.documents.fields import ComputedField, NumberField
from yenzo.core.documents.setup import Setup, Side, SizeBy
from yenzo.core.documents.variants import Variant

FRAME = {"x_mm": "left", "y_mm": "top", "width_mm": "wide", "height_mm": "high"}


class VariantSizeForm(forms.Form):
    """What a variant's pictures show in mm, and where its areas lie; what is left empty follows the picture."""

    def __init__(self, setup: Setup, variant: Variant, data: Mapping[str, Any] | None = None) -> None:
        super().__init__(data)
        self._sides = [side for side in setup.sides if side.scale]
        for side in self._sides:
            own = variant.scales.get(side.key)
            self.fields[f"length-{side.key}"] = forms.FloatField(
                required=False,
                min_value=0.1,
                max_value=20_000,
                widget=NUMBER,
                initial=own.length_mm if own else None,
                label=f"Between the marks on {side.name}, mm",
                help_text=f"On the other variants {side.scale.length_mm:g} mm." if side.scale else "",
            )
            frames = variant.areas.get(side.key, {})
            for area in side.areas:
                frame = frames.get(area.key)
                for name, words in FRAME.items():
                    bounds = {"min_value": -20_000} if name in {"x_mm", "y_mm"} else {"min_value": 0.1}
                    self.fields[_name(side, area.key, name)] = forms.FloatField(
                        required=False,
                        max_value=20_000,
                        widget=NUMBER,
                        initial=getattr(frame, name) if frame else None,
                        label=f"{area.name}, {words}",
                        **bounds,
                    )

    @property
    def sides(self) -> Iterator[tuple[Side, forms.BoundField, list[tuple[str, list[forms.BoundField]]]]]:
        """Each side with its length, and its areas with their numbers."""
        for side in self._sides:
            areas = [(area.name, [self[_name(side, area.key, name)] for name in FRAME]) for area in side.areas]
            yield side, self[f"length-{side.key}"], areas

    def clean(self) -> dict[str, Any]:
        """Refuse areas of which only some numbers are there."""
        for side in self._sides:
            for area in side.areas:
                given = [self.cleaned_data.get(_name(side, area.key, name)) for name in FRAME]
                if any(value is not None for value in given) and None in given:
                    self.add_error(None, f"“{area.name}” needs all four numbers, or none to follow the picture.")
        return self.cleaned_data

    def operations(self, variant: Variant) -> list[dict[str, Any]]:
        """Return the operations that put it into the draft."""
        path = ["offer", "variants", variant.key]
        scales, areas = {}, {}
        for side in self._sides:
            length = self.cleaned_data[f"length-{side.key}"]
            if length is not None and side.scale:
                scales[side.key] = {**side.scale.model_dump(mode="json"), "length_mm": length}
            frames = {area.key: frame for area in side.areas if (frame := self._frame(side, area.key))}
            if frames:
                areas[side.key] = frames
        return [
            {"do": "set", "path": [*path, "scales"], "value": scales or None},
            {"do": "set", "path": [*path, "areas"], "value": areas or None},
        ]

    def _frame(self, side: Side, area_key: str) -> dict[str, float] | None:
        given = {name: self.cleaned_data[_name(side, area_key, name)] for name in Frame.model_fields}
        return None if None in given.values() else given


class SizeByForm(forms.Form):
    """Which entries say how wide and how high a side is, and how large the picture shows it."""

    def __init__(self, setup: Setup, side: Side, data: Mapping[str, Any] | None = None) -> None:
        super().__init__(data)
        size = side.size_mm() or (None, None)
        numbers = [
            (field.key, f"“{field.label}”, in {field.unit or 'mm'}")
            for field in setup.fields
            if isinstance(field, NumberField | ComputedField) and (field.unit or "mm") in UNITS_MM
        ]
        for what, by, shown in (("width", side.width_by, size[0]), ("height", side.height_by, size[1])):
            self.fields[f"{what}_field"] = forms.ChoiceField(
                required=False,
                choices=[("", "stays as it is"), *numbers],
                initial=by.field if by else "",
                label=f"The {what} of the goods",
            )
            self.fields[f"{what}_mm"] = forms.FloatField(
                required=False,
                min_value=0.1,
                max_value=20_000,
                widget=NUMBER,
                initial=by.shown_mm if by else round(shown, 1) if shown else None,
                label=f"{what.title()} on the picture, mm",
            )

    def clean(self) -> dict[str, Any]:
        """Refuse an entry without the size that the picture shows."""
        for what in ("width", "height"):
            if self.cleaned_data.get(f"{what}_field") and not self.cleaned_data.get(f"{what}_mm"):
                self.add_error(f"{what}_mm", f"Say which {what} the picture shows.")
        return self.cleaned_data

    def operations(self, side: Side) -> list[dict[str, Any]]:
        """Return the operations that put it into the draft."""
        found = []
        for what in ("width", "height"):
            field = self.cleaned_data[f"{what}_field"]
            by = SizeBy(field=field, shown_mm=self.cleaned_data[f"{what}_mm"]).model_dump() if field else None
            found.append({"do": "set", "path": ["sides", side.key, f"{what}_by"], "value": by})
        return found


def _name(side: Side, area_key: str, name: str) -> str:
    return f"{side.key}/{area_key}/{name}"
