"""Decoration methods in words and as a form."""

from dataclasses import dataclass
from typing import Any

from django import forms
from django.http import QueryDict

from yenzo.apps.pages.fields import LineField
from yenzo.core.documents.materials import Method
from yenzo.core.measure import plain_number

NUMBER = forms.NumberInput(attrs={"step": "any"})
FILES = (("svg", "SVG"), ("pdf", "PDF"), ("png", "PNG"), ("dxf", "DXF"))


@dataclass(frozen=True)
class MethodRow:
    """What a method can make, as a row of a table: least sizes in mm, least and good dpi, its files, and what else."""

    key: str
    name: str
    letters: str
    strokes: str
    gaps: str
    artwork: str
    colors: str
    files: str
    more: str


def method_row(key: str, method: Method) -> MethodRow:
    """Return the row of a method; a dash where anything goes."""
    options = (
        (method.closes_gaps, "narrower gaps are closed"),
        (method.relief, "shows by its depth"),
        (not method.transparency, "nothing see-through"),
        (not method.gradients, "no gradients"),
        (method.mirrored, "mirrored"),
        (method.one_color, "in one color"),
        (method.separations, "one plate a color as well"),
        (method.underbase_mm is not None, f"a white underbase {_grown(method.underbase_mm or 0)}"),
        (method.registration, "registration marks"),
        (method.spot_colors, "spot colors"),
        (method.cmyk, "CMYK"),
    )
    return MethodRow(
        key=key,
        name=method.name,
        letters=_letters(method),
        strokes=_mm(method.least_stroke_mm),
        gaps=_mm(method.least_gap_mm),
        artwork=f"{method.least_dpi:g} / {method.good_dpi:g}",
        colors="–" if method.most_colors is None else str(method.most_colors),
        files=", ".join(name.upper() for name in method.files),
        more=", ".join(words for is_on, words in options if is_on),
    )


def _letters(method: Method) -> str:
    letters = _mm(method.least_letter_mm)
    return letters if method.least_small_mm is None else f"{letters} / {_mm(method.least_small_mm)}"


def _mm(value: float | None) -> str:
    return "–" if value is None else plain_number(value, 2)


def _grown(by_mm: float) -> str:
    if not by_mm:
        return "of the same size"
    return f"{plain_number(abs(by_mm), 2)} mm {'wider' if by_mm > 0 else 'narrower'}"


class MethodForm(forms.Form):
    """Everything of a decoration method."""

    name = LineField(max_length=200, label="Name")
    done = LineField(max_length=200, label="As sentences say it", help_text="engraved, printed, cut from cloth")
    least_letter_mm = forms.FloatField(min_value=0.1, max_value=2000, widget=NUMBER, label="Least letter height, mm")
    least_small_mm = forms.FloatField(
        required=False,
        min_value=0.1,
        max_value=2000,
        widget=NUMBER,
        label="Least height of small letters, mm; empty for the same",
        help_text="Of an x, and of small capitals. The letter height is that of a capital H.",
    )
    least_stroke_mm = forms.FloatField(
        required=False, min_value=0.01, max_value=50, widget=NUMBER, label="Thinnest stroke, mm; empty for any"
    )
    least_gap_mm = forms.FloatField(
        required=False,
        min_value=0.01,
        max_value=50,
        widget=NUMBER,
        label="Narrowest gap, mm; empty for any",
        help_text="Between two letters, or inside one, as in an e.",
    )
    closes_gaps = forms.BooleanField(
        required=False, label="Narrower gaps in the line around letters are closed; otherwise nobody can order them"
    )
    tool_mm = forms.FloatField(
        min_value=0.01, max_value=20, widget=NUMBER, label="Line of the tool, mm, for typefaces of single lines"
    )
    least_dpi = forms.FloatField(min_value=1, max_value=4800, widget=NUMBER, label="Artwork is refused below, dpi")
    good_dpi = forms.FloatField(min_value=1, max_value=4800, widget=NUMBER, label="Artwork is good from, dpi")
    most_colors = forms.IntegerField(
        required=False, min_value=1, max_value=100, label="Most colors of texts in one area; empty for any number"
    )
    relief = forms.BooleanField(required=False, label="It shows by its depth, whatever its color")
    gradients = forms.BooleanField(required=False, label="A color can go over into another one")
    made_files = forms.MultipleChoiceField(
        choices=FILES,
        widget=forms.CheckboxSelectMultiple,
        label="Files for production",
        error_messages={"required": "Pick at least one, or nothing can be made."},
    )
    mirrored = forms.BooleanField(required=False, label="Files are mirrored, as for transfers")
    one_color = forms.BooleanField(required=False, label="All that shows becomes one black shape")
    separations = forms.BooleanField(required=False, label="Each color gets files of its own as well")
    underbase_mm = forms.FloatField(
        required=False,
        min_value=-5,
        max_value=5,
        widget=NUMBER,
        label="White underbase, wider than the colors by, mm; empty for none",
        help_text="White that is printed first, so that colors show on dark goods. Below zero it is narrower.",
    )
    registration = forms.BooleanField(
        required=False,
        label="Registration marks around the bleed",
        help_text="By which one plate is laid exactly over another.",
    )
    transparency = forms.BooleanField(required=False, label="See-through parts of pictures stay so in PDFs")
    cmyk = forms.BooleanField(required=False, label="PDFs have the process colors (CMYK) of the palettes")
    spot_colors = forms.BooleanField(
        required=False,
        label="PDFs name their colors as spot colors",
        help_text="Each ready-mixed ink has a plate of its own, by its reference.",
    )

    setup_minutes = forms.FloatField(min_value=0, max_value=600, widget=NUMBER, label="Minutes to set it up")
    piece_minutes = forms.FloatField(min_value=0, max_value=600, widget=NUMBER, label="Minutes for each piece")
    letter_minutes = forms.FloatField(min_value=0, max_value=60, widget=NUMBER, label="Minutes for each letter on it")
    cm2_minutes = forms.FloatField(min_value=0, max_value=60, widget=NUMBER, label="Minutes for each cm² of ink on it")
    hour_cost = forms.DecimalField(min_value=0, max_digits=9, decimal_places=2, label="What an hour of it costs")
    order = forms.IntegerField(
        min_value=0,
        max_value=100,
        label="Its place in making",
        help_text="Of several methods on a piece, that with the lower number is made first: print before sewing.",
    )

    def __init__(self, method: Method | None, data: QueryDict | None = None) -> None:
        begin = Method(name="New method", done="made") if method is None else method
        initial = {
            name: plain_number(value) if isinstance(value, float) else value
            for name, value in begin.model_dump().items()
        }
        # A form has uploads by the name of `files`.
        initial["made_files"] = initial.pop("files")
        super().__init__(data, initial=initial if method else {**initial, "name": "", "done": ""}, auto_id="method-%s")

    def clean(self) -> dict[str, Any]:
        """Refuse what contradicts itself."""
        given: dict[str, Any] = super().clean() or {}
        if (given.get("least_dpi") or 0) > (given.get("good_dpi") or 0):
            self.add_error("good_dpi", "Artwork can't be good below what is refused.")
        if (given.get("least_small_mm") or 0) > (given.get("least_letter_mm") or 0):
            self.add_error("least_small_mm", "Small letters are lower than capitals: this can't be more than theirs.")
        return given

    def document(self) -> dict[str, Any]:
        """Return the method as a small document of the core."""
        given = {name: value for name, value in self.cleaned_data.items() if value is not None}
        given["files"] = given.pop("made_files")
        # Documents have amounts of money as text.
        given["hour_cost"] = str(given["hour_cost"])
        return given
