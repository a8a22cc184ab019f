"""Palettes in a form: a palette of the core comes in, a name and rows of colors; and back."""

from typing import Any

from django import forms
from django.http import QueryDict

from yenzo.apps.pages.fields import LineField
from yenzo.core.documents.edits import free_key
from yenzo.core.documents.materials import Palette, PaletteColor
from yenzo.core.measure import plain_number

BLANK_ROWS = 3
SCREEN = r"^#[0-9a-fA-F]{6}$"


class PaletteForm(forms.Form):
    name = LineField(max_length=200, label="Name of the palette")


class ColorForm(forms.Form):
    """One color; a row without a name is none."""

    key = LineField(required=False, max_length=60, widget=forms.HiddenInput)
    name = LineField(required=False, max_length=200, label="Name")
    screen = forms.RegexField(SCREEN, widget=forms.TextInput(attrs={"type": "color"}), label="On the screen")
    reference = LineField(required=False, max_length=200, label="Ink, thread or spot")
    tool = LineField(required=False, max_length=200, label="Tool")
    cmyk = LineField(required=False, max_length=60, label="CMYK in percent")

    def clean_cmyk(self) -> tuple[float, ...] | None:
        """Return four shares in percent, or None when nothing is written."""
        written = self.cleaned_data["cmyk"].replace(",", " ").split()
        if not written:
            return None
        try:
            shares = tuple(float(share) for share in written)
        except ValueError:
            shares = ()
        if len(shares) != 4 or not all(0 <= share <= 100 for share in shares):
            raise forms.ValidationError("Write four numbers from 0 to 100: cyan, magenta, yellow and black.")
        return shares


ColorRows = forms.formset_factory(ColorForm, extra=BLANK_ROWS, can_delete=True, max_num=500)


class PaletteEditor:
    """A palette's name and its colors, as one thing to fill in."""

    def __init__(self, palette: Palette | None, data: QueryDict | None = None) -> None:
        rows = [_row(color) for color in palette.colors] if palette else []
        self.form = PaletteForm(data, initial={"name": palette.name if palette else ""}, auto_id="palette-%s")
        self.rows = ColorRows(data, initial=rows, prefix="color")

    def is_valid(self) -> bool:
        """Tell whether all is well; a palette needs a color."""
        fine = all([self.form.is_valid(), self.rows.is_valid()])
        if fine and not self._kept():
            self.form.add_error(None, "A palette needs at least one color: name one.")
            return False
        return fine

    def document(self) -> dict[str, Any]:
        """Return the palette as a small document of the core; colors keep their keys, new ones get keys of theirs."""
        colors: list[dict[str, Any]] = []
        kept = self._kept()
        taken = [{"key": row["key"]} for row in kept if row["key"]]
        for row in kept:
            key = row["key"] or free_key({"colors": taken}, ("colors",), row["name"])
            taken.append({"key": key})
            values = {name: row[name] for name in ("name", "screen", "reference", "tool", "cmyk") if row[name]}
            colors.append({"key": key, **values})
        return {"name": self.form.cleaned_data["name"], "colors": colors}

    def _kept(self) -> list[dict[str, Any]]:
        return [row for row in self.rows.cleaned_data if row.get("name") and not row.get("DELETE")]


def _row(color: PaletteColor) -> dict[str, Any]:
    written = " ".join(plain_number(share, 2) for share in color.cmyk) if color.cmyk else ""
    return {**color.model_dump(exclude={"cmyk"}), "cmyk": written}
