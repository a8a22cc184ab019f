"""What new parts of a set-up begin with: a set-up comes in; what it uses already goes out, or that somebody must say.

An arbitrary first one would be published by whoever doesn't look twice, and nobody could order it.
"""

from collections import Counter
from collections.abc import Iterable
from typing import Any

from yenzo.core.documents.fields import ColorField, TypefaceField
from yenzo.core.documents.placements import TextPlacement
from yenzo.core.documents.setup import Setup
from yenzo.core.documents.values import UNDECIDED


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
