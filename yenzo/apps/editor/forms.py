"""Forms of the set-up pages."""

from typing import Any

from django import forms

from yenzo.apps.pages.fields import LineField, LinesField
from yenzo.apps.products.examples import EXAMPLES
from yenzo.apps.products.kinds import KIND_WORDS
from yenzo.core.documents.areas import Area
from yenzo.core.documents.fields import MethodField
from yenzo.core.documents.setup import Setup
from yenzo.core.measure import plain_number

NUMBER = forms.NumberInput(attrs={"step": "any"})


class NewProductForm(forms.Form):
    name = LineField(max_length=200, label="Name of the product")
    base_price = forms.DecimalField(min_value=0, max_digits=10, decimal_places=2, label="Price without any extras")
    picture = forms.FileField(
        required=False,
        label="Picture of the goods",
        help_text="PNG, JPEG, WebP, TIFF, HEIC, SVG or PDF, taken straight from the front. Without one it asks only: "
        "what is entered goes on order and ticket.",
    )
    example = forms.ChoiceField(
        required=False,
        choices=[
            ("", "Nothing: begin with an empty form"),
            *((key, f"{one.name}: {one.shows}") for key, one in EXAMPLES.items()),
        ],
        label="Start from an example",
        help_text="Its lines can all be changed and taken away.",
    )


class SidePictureForm(forms.Form):
    name = LineField(max_length=200, label="Name of the side", help_text="Front, back, lid, inside…")
    picture = forms.FileField(label="Picture of this side", help_text="PNG, JPEG or WebP")


class PointsForm(forms.Form):
    """Two points on a picture, in pixels."""

    start_x = forms.FloatField(widget=NUMBER, label="First point, across (pixels)")
    start_y = forms.FloatField(widget=NUMBER, label="First point, down (pixels)")
    end_x = forms.FloatField(widget=NUMBER, label="Second point, across (pixels)")
    end_y = forms.FloatField(widget=NUMBER, label="Second point, down (pixels)")

    def points(self) -> tuple[tuple[float, float], tuple[float, float]]:
        """Return the two points."""
        given = self.cleaned_data
        return (given["start_x"], given["start_y"]), (given["end_x"], given["end_y"])


class ScaleForm(PointsForm):
    """Two points on the picture in pixels, and what lies between them in mm."""

    length_mm = forms.FloatField(min_value=0.1, max_value=20_000, widget=NUMBER, label="Between them on the goods (mm)")

    def scale(self) -> dict[str, Any]:
        """Return the scale as a set-up document has it."""
        start, end = self.points()
        return {"start_px": list(start), "end_px": list(end), "length_mm": self.cleaned_data["length_mm"]}


class AnotherPictureForm(forms.Form):
    """Another picture of a side that is there."""

    picture = forms.FileField(label="The new picture", help_text="PNG, JPEG or WebP")


class OuterSizeForm(forms.Form):
    """How wide the goods are from edge to edge, where their picture shows nothing else."""

    outer_mm = forms.FloatField(widget=NUMBER, min_value=1, max_value=20_000, label="The goods are wide, mm")


class SplitForm(forms.Form):
    """Where a picture that shows two sides is cut."""

    name = LineField(max_length=200, label="Name of the second side")
    way = forms.ChoiceField(
        choices=[("across", "Beside the first one"), ("down", "Below the first one")], label="It stands"
    )
    at_percent = forms.FloatField(
        widget=NUMBER, min_value=5, max_value=95, initial=50, label="It begins at, % of the picture"
    )


class OfferForm(forms.Form):
    name = LineField(max_length=200, label="Name of the product")
    base_price = forms.DecimalField(min_value=0, max_digits=10, decimal_places=2, label="Price without any extras")
    sku = LineField(max_length=60, required=False, label="SKU")
    category = LineField(max_length=60, required=False, label="Category")
    story = LinesField(
        max_length=4000, required=False, widget=forms.Textarea(attrs={"rows": 3}), label="What customers read about it"
    )
    picture = forms.FileField(required=False, label="Picture for lists, where no side shows the goods")


# How a method begins that is a customer's choice.
ASKED = "field/"


class AreaForm(forms.Form):
    """An imprint area by exact numbers."""

    name = LineField(max_length=200, label="Area")
    x_mm = forms.FloatField(widget=NUMBER, label="left, mm")
    y_mm = forms.FloatField(widget=NUMBER, label="top, mm")
    width_mm = forms.FloatField(widget=NUMBER, min_value=0.1, label="wide, mm")
    height_mm = forms.FloatField(widget=NUMBER, min_value=0.1, label="high, mm")
    safe_mm = forms.FloatField(widget=NUMBER, min_value=0, label="safe margin, mm")
    bleed_mm = forms.FloatField(widget=NUMBER, min_value=0, label="bleed, mm")
    turn_deg = forms.FloatField(widget=NUMBER, min_value=-360, max_value=360, label="turned, °")
    dpi = forms.IntegerField(min_value=36, max_value=2400, label="made at, dpi")
    locked = forms.BooleanField(required=False, label="locked for customers")
    most_items = forms.IntegerField(required=False, min_value=1, max_value=200, label="own items at most")
    method = forms.ChoiceField(label="method")

    def __init__(self, setup: Setup, area: Area, *args: Any, **kwargs: Any) -> None:
        kwargs.setdefault("initial", {name: _plain(value) for name, value in area.model_dump().items()})
        if area.method_field:
            kwargs["initial"] = {**kwargs["initial"], "method": f"{ASKED}{area.method_field}"}
        kwargs["auto_id"] = "area-%s"
        super().__init__(*args, **kwargs)
        methods = [(key, method.name) for key, method in setup.materials.methods.items()]
        if area.method not in setup.materials.methods:
            methods.insert(0, (area.method, "pick one…"))
        methods += [
            (f"{ASKED}{field.key}", f"the customer's “{field.label}”")
            for field in setup.fields
            if isinstance(field, MethodField)
        ]
        self.fields["method"] = forms.ChoiceField(choices=methods, label="method")
        self._method = area.method

    def values(self) -> dict[str, Any]:
        """Return the area's values; the method stays where a customer's choice takes its place."""
        given = dict(self.cleaned_data)
        chosen = str(given["method"])
        asks = chosen.startswith(ASKED)
        given["method"] = self._method if asks else chosen
        return {**given, "method_field": chosen.removeprefix(ASKED) if asks else None}


def _plain(value: object) -> object:
    return plain_number(value) if isinstance(value, float) else value


class NewLineForm(forms.Form):
    kind = forms.ChoiceField(
        choices=[(kind, said.phrase.capitalize()) for kind, said in KIND_WORDS.items()], label="Kind"
    )
    label = LineField(max_length=200, label="Label")


class VariantForm(forms.Form):
    name = LineField(max_length=200, label="Name")
    price_difference = forms.DecimalField(max_digits=10, decimal_places=2, initial=0, label="Price difference")
    sku = LineField(max_length=60, required=False, label="SKU, for its stock")
    swatch = forms.RegexField(
        r"^#[0-9a-fA-F]{6}$", widget=forms.TextInput(attrs={"type": "color"}), initial="#1b6f6a", label="Color shown"
    )
