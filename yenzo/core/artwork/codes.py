"""QR codes (ISO/IEC 18004): a text and how fine they may be come in; the code as a drawing goes out."""

from dataclasses import dataclass
from functools import lru_cache

import numpy as np
import segno
import shapely

from yenzo.core.artwork.drawing import Drawing, DrawnPart
from yenzo.core.shapes.box import Box
from yenzo.core.shapes.flattening import outline_from
from yenzo.core.shapes.outline import Outline

# What stays free all around it, in modules (section 6.3.8).
QUIET_ZONE = 4
# From what survives most scratches to what survives least.
LEVELS = ("h", "q", "m", "l")
# Of a module, in mm: phones at arm's length hardly read finer ones, whatever a method can make.
LEAST_MODULE_MM = 0.4


@dataclass(frozen=True)
class Code:
    """A code as a drawing with its quiet zone, so many modules wide, and how much of it may be lost (l, m, q, h)."""

    drawing: Drawing
    modules: int
    level: str


def least_module_mm(*limits_mm: float | None) -> float:
    """Return how large a module must be, where a method's strokes and gaps have limits."""
    return max([LEAST_MODULE_MM, *(limit for limit in limits_mm if limit)])


@lru_cache(maxsize=256)
def make_code(text: str, width_mm: float, module_mm: float) -> Code:
    """Return the safest code of a text whose modules are no smaller than told at a width; if none is, the coarsest."""
    made = [_code(text, level) for level in LEVELS]
    return next((code for code in made if width_mm / code.modules >= module_mm), made[-1])


def _code(text: str, level: str) -> Code:
    rows = np.array(segno.make(text, error=level, boost_error=False, micro=False).matrix, dtype=bool)
    size = len(rows) + 2 * QUIET_ZONE
    ink = Outline.joined(_bars(rows))
    return Code(Drawing(size, size, (DrawnPart(ink, "#000000"),)), size, level)


def _bars(rows: np.ndarray) -> list[Outline]:
    """Return the dark modules, those that touch as one outline: no light line must show between them."""
    boxes = [
        shapely.box(x + QUIET_ZONE, y + QUIET_ZONE, x + 1 + QUIET_ZONE, y + 1 + QUIET_ZONE)
        for y, x in np.argwhere(rows)
    ]
    return [outline_from(shapely.union_all(boxes))] if boxes else [Outline.rectangle(Box(0, 0, 0, 0))]
