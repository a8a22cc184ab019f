"""Where an entry lands and how: areas, letter heights, alignment, typeface, color, cover or fit."""

from typing import Any

from django import forms

from yenzo.apps.catalogue.aspects.effects import color_field, color_value, color_words
from yenzo.apps.catalogue.aspects.interface import Aspect, FormLine, Operations, joined
from yenzo.apps.catalogue.aspects.layout import text_of
from yenzo.apps.catalogue.beginnings import likely_color, likely_typeface
from yenzo.apps.catalogue.to_core import materials
from yenzo.core.documents.areas import Area
from yenzo.core.documents.edits import free_key
from yenzo.core.documents.fields import DRAWN, ArtworkField, ParagraphField
from yenzo.core.documents.placements import ArtworkPlacement, BlockPlacement
from yenzo.core.documents.setup import Setup
from yenzo.core.measure import plain_number


def area_names(setup: Setup) -> dict[str, str]:
    """Return all imprint areas, "side/area" to what people call them."""
    return {f"{side.key}/{area.key}": f"{side.name} / {area.name}" for side in setup.sides for area in side.areas}


class PlacesAspect(Aspect):
    key, heading = "places", "Where does it go?"

    def words(self, line: FormLine) -> str:
        names = area_names(line.setup)
        places = dict.fromkeys(names[f"{p.side}/{p.area}"] for p in line.setup.placements_of(line.field.key))
        return joined(list(places)) if places else "no area, only the ticket"

    def form_fields(self, line: FormLine) -> dict[str, forms.Field]:
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
                item = _new_placement(line, place, key)
                if isinstance(line.field, ArtworkField) and (nth := _next_file(line.field, kept + len(added))) > 1:
                    item["nth"] = nth
                added.append({"do": "add", "path": ["placements"], "item": item})
        return [*removed, *added]


def _next_file(field: ArtworkField, placed: int) -> int:
    """Return which file lands in the next area: each in one of its own, as far as there are files."""
    return min(placed + 1, field.most_files)


def _new_placement(line: FormLine, place: str, key: str) -> dict[str, Any]:
    side_key, area_key = place.split("/", 1)
    item = {"key": key, "field": line.field.key, "side": side_key, "area": area_key}
    if isinstance(line.field, DRAWN):
        return {**item, "kind": "artwork"}
    side = line.setup.side(side_key)
    area = side.area(area_key) if side else None
    kind = "block" if isinstance(line.field, ParagraphField) else "line"
    return {**item, "kind": kind, **_new_text(line.setup, area)}


def _new_text(setup: Setup, area: Area | None) -> dict[str, Any]:
    """Return how a text begins: as large as the method and the area allow, in the customer's typeface and color."""
    method = setup.materials.methods.get(area.method) if area else None
    most = round(area.height_mm - 2 * area.safe_mm, 1) if area else 50.0
    least = min(method.least_letter_mm if method else 5.0, most)
    return {"least_mm": least, "most_mm": most, "typeface": likely_typeface(setup), "color": likely_color(setup)}


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

    def words(self, line: FormLine) -> str:
        placement = text_of(line)
        across = dict((*self.ACROSS, self.JUSTIFIED))[placement.align]
        down = getattr(placement, "vertical", "middle")
        return across if down == "middle" else f"{across} {dict(self.DOWN)[down]}"

    def form_fields(self, line: FormLine) -> dict[str, forms.Field]:
        placement = text_of(line)
        across = (*self.ACROSS, self.JUSTIFIED) if isinstance(placement, BlockPlacement) else self.ACROSS
        fields: dict[str, forms.Field] = {
            "align": forms.ChoiceField(choices=across, initial=placement.align, label="Across")
        }
        if "vertical" in type(placement).model_fields:
            down = getattr(placement, "vertical", "middle")
            fields["vertical"] = forms.ChoiceField(choices=self.DOWN, initial=down, label="Up and down")
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
        placement = text_of(line)
        asked = [(f"field/{f.key}", f"The customer's “{f.label}”") for f in line.setup.fields if f.kind == "typeface"]
        fixed = [(f"fixed/{key}", typeface.name) for key, typeface in materials().typefaces.items()]
        source = placement.typeface
        initial = f"field/{source.field}" if source.field else f"fixed/{source.fixed}"
        return {"typeface": forms.ChoiceField(choices=[*asked, *fixed], initial=initial, label="Typeface")}

    def operations(self, line: FormLine, given: dict[str, Any]) -> Operations:
        kind, key = given["typeface"].split("/", 1)
        return [line.set_placement("typeface", {kind: key})]


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
