"""Drawings whose details are too many, too thin or too near each other for a method of outlines."""

from collections.abc import Iterator
from functools import lru_cache

from yenzo.core.artwork.drawing import FROM_SHAPES, TO_SHAPES, Drawing
from yenzo.core.documents.materials import Method
from yenzo.core.errors import ShapeError
from yenzo.core.preflight.findings import Finding, found
from yenzo.core.scene.nodes import AreaScene, PlacedDrawing
from yenzo.core.shapes.booleans import union
from yenzo.core.shapes.thickness import Thinnest, thinnest

DRAWINGS_KEPT = 50
LEAST_SAID_MM = 0.01


def find_in_drawings(area: AreaScene, method: Method) -> Iterator[Finding]:
    """Yield findings for each drawing that the method can't make."""
    has_limits = method.least_stroke_mm is not None or method.least_gap_mm is not None
    if not (has_limits or method.is_plates or "dxf" in method.files):
        return
    for node in area.drawings:
        measured = _measured(node.drawing)
        if measured is None:
            message = (
                f"“{node.name}” has too many fine details that cross each other; {method.name} can't follow them. "
                "Please simplify it."
            )
            yield found("too_detailed", area, node, message)
        elif has_limits:
            yield from _thin(area, node, method, measured)


def _thin(area: AreaScene, node: PlacedDrawing, method: Method, measured: Thinnest) -> Iterator[Finding]:
    stroke, gap = (value * node.scale for value in measured)
    if method.least_stroke_mm is not None and stroke < method.least_stroke_mm:
        message = (
            f"The thinnest line of “{node.name}” would be {_mm(stroke)}; {method.name} needs at least "
            f"{method.least_stroke_mm:g} mm. Please make it bolder or leave it out."
        )
        yield found("too_thin", area, node, message, measured=stroke, limit=method.least_stroke_mm)
    if method.least_gap_mm is not None and gap < method.least_gap_mm:
        message = (
            f"The narrowest gap in “{node.name}” would be {_mm(gap)}; {method.name} needs at least "
            f"{method.least_gap_mm:g} mm. Please open it up or leave it out."
        )
        yield found("too_narrow", area, node, message, measured=gap, limit=method.least_gap_mm)


def _mm(length_mm: float) -> str:
    return f"{length_mm:.2f} mm" if length_mm >= LEAST_SAID_MM else f"less than {LEAST_SAID_MM} mm"


@lru_cache(maxsize=DRAWINGS_KEPT)
def _measured(drawing: Drawing) -> Thinnest | None:
    """Return the thinnest ink and gap of a drawing in its units; None when it is too tangled to be worked on."""
    try:
        ink = union(part.outline.mapped(TO_SHAPES) for part in drawing.parts)
        stroke, gap = thinnest(ink)
    except ShapeError:
        return None
    return Thinnest(stroke * FROM_SHAPES.a, gap * FROM_SHAPES.a)
