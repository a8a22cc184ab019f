"""Where an entry lands and how: areas, letter heights, alignment, typeface, color, cover or fit."""

from typing import Any

from django import forms

from yenzo.apps.editor.aspects.effects import color_field, color_value, color_words
from yenzo.apps.editor.aspects.interface import Aspect, FormLine, Operations
from yenzo.apps.editor.aspects.layout import text_of
from yenzo.apps.materials.to_core import materials
from yenzo.apps.pages.fields import LineField
from yenzo.apps.pages.phrases import joined
from yenzo.core.documents.beginnings import new_placement
from yenzo.core.documents.edits import free_key
from yenzo.core.documents.fields import ArtworkField
from yenzo.core.documents.placements import ArtworkPlacement, BlockPlacement, LinePlacement, TypefaceSource
from yenzo.core.documents.setup import Setup
from yenzo.core.measure import plain_number


def area_names(setup: Setup) -> dict[str, str]:
    """Return all imprint areas, "side/area" to what people call them."""
    return {f"{side.key}/{area.key}": f"{side.name} / {area.name}" for side in setup.sides for area in side.areas}


class PlacesAspect(Aspect):
    key, heading = "places", "Where does it go?"

    def words(self, line: FormLine) -> str:
        if line.is_of_kit:
            on = line.field.lands_on
            return f"every imprint area called “{on}”" if on else "no area, unless a product says where"
        names = area_names(line.setup)
        places = dict.fromkeys(names[f"{p.side}/{p.area}"] for p in line.setup.placements_of(line.field.key))
        return joined(list(places)) if places else "no area, only the ticket"

    def form_fields(self, line: FormLine) -> dict[str, forms.Field]:
        if line.is_of_kit:
            return {"lands_on": _lands_on_field(line)}
        chosen = [f"{p.side}/{p.area}" for p in line.setup.placements_of(line.field.key)]
        return {
            "areas": forms.MultipleChoiceField(
                required=False,
                choices=list(area_names(line.setup).items()),
                initial=chosen,
                widget=forms.CheckboxSelectMultiple,
                label="Imprint areas",
                help_text="" if area_names(line.setup) else "Draw an imprint area on the goods first.",
            )
        }

    def operations(self, line: FormLine, given: dict[str, Any]) -> Operations:
        if line.is_of_kit:
            return [line.set("lands_on", given["lands_on"] or None)]
        placements = list(line.setup.placements_of(line.field.key))
        have = {f"{p.side}/{p.area}" for p in placements}
        gone = [p.key for p in placements if f"{p.side}/{p.area}" not in given["areas"]]
        removed = [{"do": "remove", "path": ["placements"], "key": key} for key in gone]
        taken = [{"key": placement.key} for placement in line.setup.placements]
        kept = len(placements) - len(gone)
        added: Operations = []
        for place in given["areas"]:
            if place not in have:
                key = free_key({"placements": taken}, ("placements",), line.field.key)
                taken.append({"key": key})
                item = new_placement(line.setup, line.field, place, key)
                if isinstance(line.field, ArtworkField) and (nth := _next_file(line.field, kept + len(added))) > 1:
                    item["nth"] = nth
                added.append({"do": "add", "path": ["placements"], "item": item})
        return [*removed, *added]


def _lands_on_field(line: FormLine) -> LineField:
    return LineField(
        required=False,
        max_length=200,
        initial=line.field.lands_on,
        label="It lands on imprint areas called",
        help_text="As products call them: Front, Lid … A product can say otherwise on its own page, beside the kit.",
    )


def typeface_choices(setup: Setup) -> list[tuple[str, str]]:
    """Return the typefaces that a text can be set in: what the customer is asked for, and the workshop's own."""
    asked = [(f"field/{f.key}", f"The customer's “{f.label}”") for f in setup.fields if f.kind == "typeface"]
    return [*asked, *((f"fixed/{key}", typeface.name) for key, typeface in materials().typefaces.items())]


def typeface_code(source: TypefaceSource) -> str:
    """Return a source of a typeface as a form names it."""
    return f"field/{source.field}" if source.field else f"fixed/{source.fixed}"


def typeface_value(given: str) -> dict[str, str]:
    """Return a picked typeface as a set-up document has it."""
    kind, key = given.split("/", 1)
    return {kind: key}


def _next_file(field: ArtworkField, placed: int) -> int:
    """Return which file lands in the next area: each in one of its own, as far as there are files."""
    return min(placed + 1, field.most_files)


class HeightAspect(Aspect):
    key, heading = "height", "How high are the letters?"

    def words(self, line: FormLine) -> str:
        placement = text_of(line)
        least, most = (plain_number(value, 1) for value in (placement.least_mm, placement.most_mm))
        return f"{most} mm high" if least == most else f"as large as fits, letters {least} to {most} mm"

    def form_fields(self, line: FormLine) -> dict[str, forms.Field]:
        placement = text_of(line)
        bounds: dict[str, Any] = {
            "min_value": 0.5,
            "max_value": 2000,
            "widget": forms.NumberInput(attrs={"step": "any"}),
        }
        return {
            "least_mm": forms.FloatField(initial=placement.least_mm, label="Least letter height, mm", **bounds),
            "most_mm": forms.FloatField(initial=placement.most_mm, label="Most letter height, mm", **bounds),
        }

    def operations(self, line: FormLine, given: dict[str, Any]) -> Operations:
        if given["least_mm"] > given["most_mm"]:
            raise forms.ValidationError("The least letter height is above the most.")
        return [line.set_placement(name, given[name]) for name in ("least_mm", "most_mm")]


class AlignAspect(Aspect):
    key, heading = "align", "How does it stand in its area?"
    ACROSS = (("left", "at the left"), ("center", "centered"), ("right", "at the right"))
    JUSTIFIED = ("justified", "justified")
    DOWN = (("top", "at the top"), ("middle", "in the middle"), ("bottom", "at the bottom"))
    # Of a single line only.
    BY_CAPITALS = ("capitals", "in the middle by its capitals")

    def words(self, line: FormLine) -> str:
        placement = text_of(line)
        across = dict((*self.ACROSS, self.JUSTIFIED))[placement.align]
        down = getattr(placement, "vertical", "middle")
        return across if down == "middle" else f"{across} {dict((*self.DOWN, self.BY_CAPITALS))[down]}"

    def form_fields(self, line: FormLine) -> dict[str, forms.Field]:
        placement = text_of(line)
        across = (*self.ACROSS, self.JUSTIFIED) if isinstance(placement, BlockPlacement) else self.ACROSS
        fields: dict[str, forms.Field] = {
            "align": forms.ChoiceField(choices=across, initial=placement.align, label="Across")
        }
        if "vertical" in type(placement).model_fields:
            down = getattr(placement, "vertical", "middle")
            choices = (*self.DOWN, self.BY_CAPITALS) if isinstance(placement, LinePlacement) else self.DOWN
            fields["vertical"] = forms.ChoiceField(
                choices=choices,
                initial=down,
                label="Up and down",
                help_text="By its capitals: names of one size have their base line at one height, as in a set.",
            )
        return fields

    def operations(self, line: FormLine, given: dict[str, Any]) -> Operations:
        return [line.set_placement(name, value) for name, value in given.items()]


class FaceAspect(Aspect):
    key, heading = "face", "In which typeface?"

    def words(self, line: FormLine) -> str:
        source = text_of(line).typeface
        field = line.setup.field(source.field or "")
        if field is not None:
            return f"the customer's “{field.label}”"
        typeface = line.setup.materials.typefaces.get(source.fixed or "")
        return typeface.name if typeface else str(source.fixed)

    def form_fields(self, line: FormLine) -> dict[str, forms.Field]:
        initial = typeface_code(text_of(line).typeface)
        return {"typeface": forms.ChoiceField(choices=typeface_choices(line.setup), initial=initial, label="Typeface")}

    def operations(self, line: FormLine, given: dict[str, Any]) -> Operations:
        return [line.set_placement("typeface", typeface_value(given["typeface"]))]


class PaintAspect(Aspect):
    key, heading = "paint", "In which color?"

    def words(self, line: FormLine) -> str:
        return color_words(line.setup, text_of(line).color)

    def form_fields(self, line: FormLine) -> dict[str, forms.Field]:
        return {"color": color_field(line.setup, text_of(line).color)}

    def operations(self, line: FormLine, given: dict[str, Any]) -> Operations:
        return [line.set_placement("color", color_value(given["color"]))]


class FitAspect(Aspect):
    key, heading = "fit", "How does the picture fill its area?"
    WAYS = (("cover", "covering the whole area"), ("contain", "fitting inside the area"))

    def words(self, line: FormLine) -> str:
        assert isinstance(line.placement, ArtworkPlacement)
        return dict(self.WAYS)[line.placement.fit]

    def form_fields(self, line: FormLine) -> dict[str, forms.Field]:
        assert isinstance(line.placement, ArtworkPlacement)
        return {"fit": forms.ChoiceField(choices=self.WAYS, initial=line.placement.fit, label="The picture lands")}

    def operations(self, line: FormLine, given: dict[str, Any]) -> Operations:
        return [line.set_placement("fit", given["fit"])]


class ArtworkPaintAspect(Aspect):
    key, heading = "artwork-paint", "In which color is it made?"

    def words(self, line: FormLine) -> str:
        assert isinstance(line.placement, ArtworkPlacement)
        color = line.placement.color
        return f"drawings painted in {color_words(line.setup, color)}" if color else "painted as it is"

    def form_fields(self, line: FormLine) -> dict[str, forms.Field]:
        assert isinstance(line.placement, ArtworkPlacement)
        color = line.placement.color
        return {
            "is_on": forms.BooleanField(
                required=False,
                initial=color is not None,
                label="Drawings are painted in one color",
                help_text="Pictures of pixels keep their own.",
            ),
            "color": color_field(line.setup, color),
        }

    def operations(self, line: FormLine, given: dict[str, Any]) -> Operations:
        return [line.set_placement("color", color_value(given["color"]) if given["is_on"] else None)]
