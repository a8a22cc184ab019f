"""How large the goods are for this customer: a side and what is asked come in, the side in its own size goes out.

A variant brings a scale and areas of its own; an entry may say how wide or high the goods are. Whatever isn't said
otherwise stays where it is on the picture: so areas grow with the goods, and safe margins and bleed don't.
"""

from decimal import Decimal

from yenzo.core.asking.ask import Asked
from yenzo.core.documents.areas import Area
from yenzo.core.documents.field_base import UNITS_MM
from yenzo.core.documents.fields import ComputedField, NumberField
from yenzo.core.documents.rules import read_number
from yenzo.core.documents.setup import Setup, Side, SizeBy
from yenzo.core.documents.variants import Variant

# Beyond these, what was entered is a slip of the pen; its own bounds tell.
LEAST_FACTOR, MOST_FACTOR = 0.05, 20.0
# A safe margin leaves this share of what a small area has.
MOST_SAFE = 0.4


def sized_side(setup: Setup, side: Side, asked: Asked) -> tuple[Side, tuple[float, float]] | None:
    """Return a side with its areas in mm, and the size of its whole picture; None while no scale is marked."""
    shown = side.size_mm()
    if shown is None:
        return None
    variant = setup.offer.variant(asked.variant)
    across, down = _factor(setup, side.width_by, asked), _factor(setup, side.height_by, asked)
    width, height = _own_size(setup, side, variant, asked) or shown
    frames = variant.areas.get(side.key, {}) if variant else {}
    size = (width * across, height * down)
    if not frames and size == shown:
        return side, size
    # Of the picture, an area takes the same share as ever, unless the variant says where it lies.
    grown = (size[0] / shown[0], size[1] / shown[1])
    areas = tuple(
        _grown(area.model_copy(update=dict(frames[area.key])), across, down)
        if area.key in frames
        else _grown(area, *grown)
        for area in side.areas
    )
    return side.model_copy(update={"areas": areas}), size


def _own_size(setup: Setup, side: Side, variant: Variant | None, asked: Asked) -> tuple[float, float] | None:
    """Return the size of a variant's picture by its own scale, if it has one."""
    scale = variant.scales.get(side.key) if variant else None
    if scale is None:
        return None
    picture = setup.picture_of(side, asked.variant, asked.values)
    return picture.width_px / scale.px_per_mm, picture.height_px / scale.px_per_mm


def _grown(area: Area, across: float, down: float) -> Area:
    width, height = area.width_mm * across, area.height_mm * down
    return area.model_copy(
        update={
            "x_mm": area.x_mm * across,
            "y_mm": area.y_mm * down,
            "width_mm": width,
            "height_mm": height,
            "safe_mm": min(area.safe_mm, MOST_SAFE * min(width, height)),
        }
    )


def _factor(setup: Setup, by: SizeBy | None, asked: Asked) -> float:
    field = setup.field(by.field) if by else None
    number = read_number(asked.text(by.field)) if by else None
    if by is None or not isinstance(field, NumberField | ComputedField) or not number:
        return 1.0
    length_mm = number * Decimal(str(UNITS_MM[field.unit or "mm"]))
    return min(max(float(length_mm) / by.shown_mm, LEAST_FACTOR), MOST_FACTOR)
