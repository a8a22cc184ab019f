"""What new parts of a set-up begin with: a set-up comes in; what it uses already goes out, or that somebody must say.

An arbitrary first one would be published by whoever doesn't look twice, and nobody could order it.
"""

from collections import Counter
from collections.abc import Iterable
from typing import Any

from yenzo.core.documents.areas import Area
from yenzo.core.documents.fields import AnyField, ColorField, ParagraphField, TypefaceField
from yenzo.core.documents.placements import TextPlacement
from yenzo.core.documents.setup import Setup
from yenzo.core.documents.values import UNDECIDED

# Letters as high as this where nobody knows how high an area is.
MOST_LETTER_MM, LEAST_LETTER_MM = 50.0, 5.0


def new_placement(setup: Setup, field: AnyField, place: str, key: str) -> dict[str, Any]:
    """Return how the entry of a field begins to land in an area ("side/area"), as a document has it.

    Texts are as large as the method and the area allow, in the likely typeface and color.
    """
    side_key, area_key = place.split("/", 1)
    item: dict[str, Any] = {"key": key, "field": field.key, "side": side_key, "area": area_key}
    if field.lands_as == "artwork":
        return {**item, "kind": "artwork"}
    if field.lands_as == "items":
        return {**item, "kind": "own_items"}
    side = setup.side(side_key)
    kind = "block" if isinstance(field, ParagraphField) else "line"
    return {**item, "kind": kind, **_new_text(setup, side.area(area_key) if side else None)}


def _new_text(setup: Setup, area: Area | None) -> dict[str, Any]:
    method = setup.materials.methods.get(area.method) if area else None
    most = round(area.height_mm - 2 * area.safe_mm, 1) if area else MOST_LETTER_MM
    least = min(method.least_letter_mm if method else LEAST_LETTER_MM, most)
    return {"least_mm": least, "most_mm": most, "typeface": likely_typeface(setup), "color": likely_color(setup)}


def likely_method(setup: Setup) -> str:
    """Return the method that most areas have, or the only one there is; else nobody has said yet."""
    used = (area.method for side in setup.sides for area in side.areas)
    return _most_used(used, setup.materials.methods) or _only(setup.materials.methods)


def likely_color(setup: Setup) -> dict[str, str]:
    """Return the customer's color, or the one that most texts have, as documents have it; else nobody has said yet."""
    asked = next((field.key for field in setup.fields if isinstance(field, ColorField)), None)
    if asked is not None:
        return {"field": asked}
    sources = (one.color for one in setup.placements if isinstance(one, TextPlacement))
    used = Counter((one.palette, one.color) for one in sources if one.palette and one.color != UNDECIDED)
    palette, color = next((pair for pair, _ in used.most_common(1)), (None, None))
    return {"palette": palette or UNDECIDED, "color": color or UNDECIDED}


def likely_typeface(setup: Setup) -> dict[str, str]:
    """Return the customer's typeface, the one that most texts have, or the workshop's first."""
    asked = next((field.key for field in setup.fields if isinstance(field, TypefaceField)), None)
    if asked is not None:
        return {"field": asked}
    used = (one.typeface.fixed for one in setup.placements if isinstance(one, TextPlacement) and one.typeface.fixed)
    first = next(iter(setup.materials.typefaces), UNDECIDED)
    return {"fixed": _most_used(used, setup.materials.typefaces) or first}


def likely_palette(setup: Setup) -> str:
    """Return the palette that the set-up uses, or the workshop's first."""
    chosen = [field.palette for field in setup.fields if isinstance(field, ColorField)]
    texts = (one.color for one in setup.placements if isinstance(one, TextPlacement))
    used = [*chosen, *(one.palette for one in texts if one.palette)]
    return _most_used(used, setup.materials.palettes) or next(iter(setup.materials.palettes), UNDECIDED)


def _most_used(keys: Iterable[str], known: dict[str, Any]) -> str | None:
    found = Counter(key for key in keys if key in known)
    return next((key for key, _ in found.most_common(1)), None)


def _only(known: dict[str, Any]) -> str:
    return next(iter(known)) if len(known) == 1 else UNDECIDED
