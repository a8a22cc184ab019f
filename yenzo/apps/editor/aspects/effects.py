"""Effects of a text: stroke, shadow, plate and second color, each an underlined value of its own."""

from abc import abstractmethod
from typing import Any

from django import forms

from yenzo.apps.editor.aspects.interface import Aspect, FormLine, Operations
from yenzo.apps.editor.aspects.layout import NUMBER, text_of
from yenzo.apps.editor.aspects.swatches import swatches
from yenzo.core.documents.beginnings import likely_color
from yenzo.core.documents.effects import ColorSource, Effects
from yenzo.core.documents.setup import Setup
from yenzo.core.measure import plain_number


def color_words(setup: Setup, source: ColorSource) -> str:
    """Return what a source of color is called in a sentence."""
    field = setup.field(source.field or "")
    if field is not None:
        return f"the customer's “{field.label}”"
    palette = setup.materials.palettes.get(source.palette or "")
    color = palette.color(source.color or "") if palette else None
    return color.name if color else "a color that nobody has picked yet"


def color_field(setup: Setup, source: ColorSource | None) -> forms.ChoiceField:
    """Return the control that picks a color of a palette, or a customer's entry."""
    initial = color_code(source) if source else _code(likely_color(setup))
    return forms.ChoiceField(
        choices=color_choices(setup),
        initial=initial,
        widget=forms.RadioSelect(attrs={"class": "colors"}),
        label="Color",
        error_messages={"required": "Pick a color."},
    )


def color_choices(setup: Setup) -> list[Any]:
    """Return the colors that something can have: what the customer is asked for, and the workshop's palettes."""
    asked = [(f"field/{f.key}", f"The customer's “{f.label}”") for f in setup.fields if f.kind == "color"]
    return [*asked, *swatches()]


def color_code(source: ColorSource) -> str:
    """Return a source of a color as a form names it."""
    return _code(source.model_dump(exclude_none=True))


def _code(source: dict[str, str]) -> str:
    return f"field/{source['field']}" if "field" in source else f"{source['palette']}/{source['color']}"


def color_value(given: str) -> dict[str, str]:
    """Return a picked color as a set-up document has it."""
    first, key = given.split("/", 1)
    return {"field": key} if first == "field" else {"palette": first, "color": key}


class EffectAspect(Aspect):
    """One effect of a text; `name` is its place among the effects."""

    name: str
    switch: str

    def effects_of(self, line: FormLine) -> Effects:
        """Return all effects beside this one."""
        return text_of(line).effects

    def kept(self, line: FormLine, effects: dict[str, Any]) -> dict[str, Any]:
        """Return the operation that keeps all effects."""
        return line.set_placement("effects", effects or None)

    @abstractmethod
    def said(self, line: FormLine, effects: Effects) -> str:
        """Return the words for an effect that is there."""

    @abstractmethod
    def numbers(self, effects: Effects) -> dict[str, forms.Field]:
        """Return the controls beside the color."""

    @abstractmethod
    def value(self, given: dict[str, Any]) -> dict[str, Any]:
        """Return the effect as a set-up document has it, but for its color."""

    def is_plain(self, line: FormLine) -> bool:
        return getattr(self.effects_of(line), self.name) is None

    def words(self, line: FormLine) -> str:
        return f"no {self.offer}" if self.is_plain(line) else self.said(line, self.effects_of(line))

    def form_fields(self, line: FormLine) -> dict[str, forms.Field]:
        effects = self.effects_of(line)
        effect = getattr(effects, self.name)
        return {
            "is_on": forms.BooleanField(required=False, initial=effect is not None, label=self.switch),
            "color": color_field(line.setup, effect.color if effect else None),
            **self.numbers(effects),
        }

    def operations(self, line: FormLine, given: dict[str, Any]) -> Operations:
        effects = self.effects_of(line).model_dump(exclude_none=True)
        effects.pop(self.name, None)
        if given["is_on"]:
            effects[self.name] = {"color": color_value(given["color"]), **self.value(given)}
        return [self.kept(line, effects)]


class StrokeAspect(EffectAspect):
    key, heading, offer = "stroke", "Is there a line along the letters' edge?", "stroke"
    name, switch = "stroke", "A stroke along the edge"
    PLACES = (("outside", "outside the letters"), ("centered", "on their edge"))

    def said(self, line: FormLine, effects: Effects) -> str:
        assert effects.stroke is not None
        width, place = plain_number(effects.stroke.width_mm, 2), dict(self.PLACES)[effects.stroke.place]
        return f"a {width} mm stroke {place} in {color_words(line.setup, effects.stroke.color)}"

    def numbers(self, effects: Effects) -> dict[str, forms.Field]:
        stroke = effects.stroke
        return {
            "width_mm": _length(stroke.width_mm if stroke else 1, "Width, mm"),
            "place": forms.ChoiceField(
                choices=self.PLACES, initial=stroke.place if stroke else "outside", label="It lies"
            ),
        }

    def value(self, given: dict[str, Any]) -> dict[str, Any]:
        return {name: given[name] for name in ("width_mm", "place")}


class ShadowAspect(EffectAspect):
    key, heading, offer = "shadow", "Do the letters throw a shadow?", "shadow"
    name, switch = "shadow", "A shadow under the letters"

    def said(self, line: FormLine, effects: Effects) -> str:
        assert effects.shadow is not None
        across, down = (plain_number(v, 2) for v in (effects.shadow.across_mm, effects.shadow.down_mm))
        return f"a shadow {across} mm across and {down} mm down in {color_words(line.setup, effects.shadow.color)}"

    def numbers(self, effects: Effects) -> dict[str, forms.Field]:
        shadow = effects.shadow
        return {
            "across_mm": _number(shadow.across_mm if shadow else 1, "To the right, mm"),
            "down_mm": _number(shadow.down_mm if shadow else 1, "Down, mm"),
        }

    def value(self, given: dict[str, Any]) -> dict[str, Any]:
        return {name: given[name] for name in ("across_mm", "down_mm")}


class PlateAspect(EffectAspect):
    key, heading, offer = "plate", "Does the text stand on a plate?", "plate"
    name, switch = "plate", "A plate that grows with the text"

    def said(self, line: FormLine, effects: Effects) -> str:
        assert effects.plate is not None
        way = "cut out of" if effects.plate.knock_out else "on"
        margin = plain_number(effects.plate.margin_mm, 1)
        return f"{way} a plate in {color_words(line.setup, effects.plate.color)}, {margin} mm around"

    def numbers(self, effects: Effects) -> dict[str, forms.Field]:
        plate = effects.plate
        return {
            "margin_mm": _number(plate.margin_mm if plate else 3, "Around the text, mm", least=0),
            "corner_mm": _number(plate.corner_mm if plate else 0, "Radius of its corners, mm", least=0),
            "knock_out": forms.BooleanField(
                required=False, initial=plate.knock_out if plate else False, label="Letters are cut out of it"
            ),
        }

    def value(self, given: dict[str, Any]) -> dict[str, Any]:
        return {name: given[name] for name in ("margin_mm", "corner_mm", "knock_out")}


class SecondColorAspect(EffectAspect):
    key, heading, offer = "second-color", "Does the fill have a second color?", "second color"
    name, switch = "fill", "A second color in the letters"
    WAYS = (
        ("gradient", "goes over into it"),
        ("stripes", "striped with it"),
        ("dots", "dotted with it"),
        ("checks", "checked with it"),
    )
    WORDS = {"gradient": "going over into", "stripes": "striped with", "dots": "dotted with", "checks": "checked with"}

    def said(self, line: FormLine, effects: Effects) -> str:
        assert effects.fill is not None
        return f"{self.WORDS[effects.fill.kind]} {color_words(line.setup, effects.fill.color)}"

    def numbers(self, effects: Effects) -> dict[str, forms.Field]:
        fill = effects.fill
        size = getattr(fill, "size_mm", 4)
        return {
            "kind": forms.ChoiceField(
                choices=self.WAYS, initial=fill.kind if fill else "gradient", label="The first color"
            ),
            "angle_deg": _number(fill.angle_deg if fill else 90, "Direction, degrees (0 to the right, 90 down)"),
            "size_mm": _length(size, "From one stripe, dot or square to the next, mm"),
        }

    def value(self, given: dict[str, Any]) -> dict[str, Any]:
        size = {} if given["kind"] == "gradient" else {"size_mm": given["size_mm"]}
        return {"kind": given["kind"], "angle_deg": given["angle_deg"], **size}


def _number(initial: float, label: str, least: float = -500) -> forms.FloatField:
    plain = plain_number(initial)
    return forms.FloatField(initial=plain, min_value=least, max_value=500, label=label, widget=NUMBER)


def _length(initial: float, label: str) -> forms.FloatField:
    return _number(initial, label, least=0.05)
