"""What contradicts itself in a set-up: a set-up comes in, sentences that name both ends go out."""

from collections import Counter
from collections.abc import Iterable, Iterator

from yenzo.core.documents.charge_faults import find_charge_faults, find_prices_below_zero
from yenzo.core.documents.field_base import UNITS_MM
from yenzo.core.documents.fields import (
    AnyField,
    ArtworkField,
    ColorField,
    ComputedField,
    MethodField,
    NumberField,
    OptionsField,
    TypefaceField,
)
from yenzo.core.documents.named import formula_fault
from yenzo.core.documents.own_field import OwnItemsField
from yenzo.core.documents.placements import AnyPlacement, ArtworkPlacement, OwnItemsPlacement, TextPlacement
from yenzo.core.documents.rule_faults import find_constant_rules, find_rule_faults
from yenzo.core.documents.setup import Setup
from yenzo.core.documents.values import UNDECIDED


def find_faults(setup: Setup) -> list[str]:
    """Return what refers to something that isn't there, is there twice, or goes round in circles."""
    found = (
        _twice,
        _sections,
        find_rule_faults,
        _formulas,
        find_charge_faults,
        _placements,
        _method_fields,
        _pictures,
        _goods_of_options,
        _axes,
        _own_areas,
        _sizes,
    )
    return [fault for find in found for fault in find(setup)]


def find_nonsense(setup: Setup, *, is_priced: bool = True) -> list[str]:
    """Return what can be read but makes no sense: rules that never or always hold, prices below zero.

    A kit has no price of its own: whether one falls below zero shows with each product.

    It keeps drafts from becoming like that, and from being published; what is live already stays readable.
    """
    return [*find_constant_rules(setup), *(find_prices_below_zero(setup) if is_priced else ())]


def missing_materials(setup: Setup) -> list[str]:
    """Return what a set-up refers to that its own `materials` lack, each as a sentence."""
    return [*_missing_methods(setup), *_missing_in_fields(setup), *_missing_in_placements(setup)]


def _twice(setup: Setup) -> Iterator[str]:
    lists: dict[str, Iterable[str]] = {
        "sides": (side.key for side in setup.sides),
        "fields": (field.key for field in setup.fields),
        "charges": (charge.key for charge in setup.charges),
        "placements": (placement.key for placement in setup.placements),
        "sections": (section.key for section in setup.sections),
        "variants": (variant.key for variant in setup.offer.variants),
        "axes": (axis.key for axis in setup.offer.axes),
    }
    for side in setup.sides:
        lists[f"areas of “{side.name}”"] = (area.key for area in side.areas)
    for field in setup.fields:
        if isinstance(field, OptionsField):
            lists[f"choices of “{field.label}”"] = (option.key for option in field.options)
    for axis in setup.offer.axes:
        lists[f"values of “{axis.name}”"] = (value.key for value in axis.values)
    for what, keys in lists.items():
        for key, count in Counter(keys).items():
            if count > 1:
                yield f"The key “{key}” is there {count} times among the {what}; give each its own."


def _sections(setup: Setup) -> Iterator[str]:
    for field in setup.fields:
        if field.section is not None and setup.section(field.section) is None:
            yield f"“{field.label}” stands in the section “{field.section}”, which isn't there."


def _formulas(setup: Setup) -> Iterator[str]:
    for field in setup.fields:
        fault = formula_fault(setup, field.formula) if isinstance(field, ComputedField) else None
        if fault:
            yield f"“{field.label}” can't be worked out: {fault}"


_LANDS_AS: dict[type[AnyPlacement], str] = {ArtworkPlacement: "artwork", OwnItemsPlacement: "items"}


def _placements(setup: Setup) -> Iterator[str]:
    for placement in setup.placements:
        side = setup.side(placement.side)
        lands_as = _LANDS_AS.get(type(placement), "text")
        for key in placement.fields:
            field = setup.field(key)
            if field is None:
                yield f"A placement waits for the field “{key}”, which isn't there."
            elif field.lands_as != lands_as:
                yield f"“{field.label}” can't be placed as {'own items' if lands_as == 'items' else lands_as}."
        if side is None or side.area(placement.area) is None:
            yield f"A placement goes on “{placement.side} / {placement.area}”, which isn't there."
        yield from _sources(setup, placement)
        artwork = setup.field(placement.field)
        nth = placement.nth if isinstance(placement, ArtworkPlacement) else 1
        if isinstance(artwork, ArtworkField) and nth > artwork.most_files:
            yield f"{_what(placement)} is file {nth} of “{artwork.label}”, which takes {artwork.most_files} at most."


def _method_fields(setup: Setup) -> Iterator[str]:
    for side in setup.sides:
        for area in side.areas:
            if area.method_field is not None and not isinstance(setup.field(area.method_field), MethodField):
                yield f"The area “{area.name}” takes its method from “{area.method_field}”, which is no choice of one."


def _sources(setup: Setup, placement: AnyPlacement) -> Iterator[str]:
    wanted: list[tuple[str | None, type[AnyField], str]] = [
        (source.field, ColorField, "color") for source in placement.colors
    ]
    if isinstance(placement, TextPlacement):
        wanted.append((placement.typeface.field, TypefaceField, "typeface"))
    for key, kind, word in wanted:
        if key is not None and not isinstance(setup.field(key), kind):
            yield f"{_what(placement)} takes its {word} from “{key}”, which is no {word} field."


def _what(placement: AnyPlacement) -> str:
    what = "text" if isinstance(placement, TextPlacement) else "artwork"
    return f"The {what} in “{placement.area}”"


def _pictures(setup: Setup) -> Iterator[str]:
    for variant in setup.offer.variants:
        for key in variant.pictures:
            if setup.side(key) is None:
                yield f"The variant “{variant.name}” has a picture for the side “{key}”, which isn't there."


def _axes(setup: Setup) -> Iterator[str]:
    places: dict[tuple[tuple[str, str], ...], str] = {}
    for variant in setup.offer.variants:
        for axis in setup.offer.axes:
            if axis.value(variant.at.get(axis.key)) is None:
                yield f"The variant “{variant.name}” has no {axis.name}; say which."
        for key in variant.at:
            if all(axis.key != key for axis in setup.offer.axes):
                yield f"The variant “{variant.name}” stands on the axis “{key}”, which isn't there."
        at = tuple(sorted(variant.at.items()))
        if setup.offer.axes and places.setdefault(at, variant.name) != variant.name:
            yield f"The variants “{places[at]}” and “{variant.name}” differ in nothing."


def _own_areas(setup: Setup) -> Iterator[str]:
    for variant in setup.offer.variants:
        for key, areas in variant.areas.items():
            side = setup.side(key)
            for area in areas:
                if side is None or side.area(area) is None:
                    yield f"The variant “{variant.name}” moves the area “{key} / {area}”, which isn't there."
        for key in variant.scales:
            if setup.side(key) is None:
                yield f"The variant “{variant.name}” has a scale for the side “{key}”, which isn't there."


def _sizes(setup: Setup) -> Iterator[str]:
    for side in setup.sides:
        for what, by in (("width", side.width_by), ("height", side.height_by)):
            field = setup.field(by.field) if by else None
            if by is None:
                continue
            if not isinstance(field, NumberField | ComputedField):
                yield f"“{side.name}” takes its {what} from “{by.field}”, which is no number."
            elif (field.unit or "mm") not in UNITS_MM:
                yield f"“{side.name}” takes its {what} from “{field.label}”, and “{field.unit}” is no unit of length."


def _goods_of_options(setup: Setup) -> Iterator[str]:
    for field in setup.fields:
        for option in field.options if isinstance(field, OptionsField) else ():
            for key in (*option.goods, *option.overlays):
                if setup.side(key) is None:
                    yield f"“{option.label}” of “{field.label}” has a picture for the side “{key}”, which isn't there."


def _missing_methods(setup: Setup) -> Iterator[str]:
    for side in setup.sides:
        for area in side.areas:
            if area.method == UNDECIDED:
                yield f"Say by which method “{area.name}” on “{side.name}” is decorated: pick the area, then “by”."
            elif area.method not in setup.materials.methods:
                yield f"The area “{area.name}” is decorated by “{area.method}”, which is not among the methods."
    for field in setup.fields:
        for key in field.methods if isinstance(field, MethodField) else ():
            if key not in setup.materials.methods:
                yield f"“{field.label}” offers the method “{key}”, which is not among the methods."


def _missing_in_fields(setup: Setup) -> Iterator[str]:
    for field in setup.fields:
        if isinstance(field, TypefaceField):
            for key in field.typefaces:
                if key not in setup.materials.typefaces:
                    yield f"“{field.label}” offers the typeface “{key}”, which is not among the typefaces."
        elif isinstance(field, OwnItemsField):
            yield from _missing_of_own_items(setup, field)
        elif isinstance(field, ColorField):
            palette = setup.materials.palettes.get(field.palette)
            if palette is None:
                yield f"“{field.label}” takes colors from the palette “{field.palette}”, which isn't there."
                continue
            for key in field.colors:
                if palette.color(key) is None:
                    yield f"“{field.label}” offers the color “{key}”, which the palette “{palette.name}” lacks."


def _missing_of_own_items(setup: Setup, field: OwnItemsField) -> Iterator[str]:
    have = setup.materials
    for key in field.texts.typefaces if field.texts else ():
        if key not in have.typefaces:
            yield f"“{field.label}” offers the typeface “{key}”, which is not among the typefaces."
    for offer in (field.texts, field.drawings, field.codes):
        if offer and offer.palette is not None and offer.palette not in have.palettes:
            yield f"“{field.label}” takes colors from the palette “{offer.palette}”, which isn't there."
    for source in field.texts.effects.colors if field.texts else ():
        palette = have.palettes.get(source.palette or "")
        if palette is None or palette.color(source.color or "") is None:
            yield f"“{field.label}” takes the color “{source.palette} / {source.color}”, which isn't there."
    for key in field.drawings.collections if field.drawings else ():
        if key not in have.collections:
            yield f"“{field.label}” offers the collection “{key}”, which isn't there."


def _missing_in_placements(setup: Setup) -> Iterator[str]:
    for placement in setup.placements:
        typeface = placement.typeface.fixed if isinstance(placement, TextPlacement) else None
        if typeface is not None and typeface not in setup.materials.typefaces:
            yield f"{_what(placement)} is set in “{typeface}”, which is not among the typefaces."
        for key in placement.free.typefaces:
            if key not in setup.materials.typefaces:
                yield f"{_what(placement)} may be set in “{key}”, which is not among the typefaces."
        if placement.free.palette is not None and placement.free.palette not in setup.materials.palettes:
            yield f"{_what(placement)} may have the colors of “{placement.free.palette}”, which isn't there."
        for source in placement.colors:
            if source.palette is None or source.color is None:
                continue
            if source.color == UNDECIDED:
                field = setup.field(placement.field)
                yield f"Say in which color “{field.label if field else placement.field}” is made."
                continue
            palette = setup.materials.palettes.get(source.palette)
            if palette is None or palette.color(source.color) is None:
                color = f"{source.palette} / {source.color}"
                yield f"{_what(placement)} takes the color “{color}”, which isn't there."
