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
from yenzo.core.translation import decimal, translate

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
            message = translate(
                "“{name}” has too many fine details that cross each other; {method} can't follow "
                "them. Please simplify it.",
                name=node.name,
                method=method.name,
            )
            yield found("too_detailed", area, node, message)
        elif has_limits:
            yield from _thin(area, node, method, measured)


def _thin(area: AreaScene, node: PlacedDrawing, method: Method, measured: Thinnest) -> Iterator[Finding]:
    stroke, gap = (value * node.scale for value in measured)
    if method.least_stroke_mm is not None and stroke < method.least_stroke_mm:
        message = translate(
            "The thinnest line of “{name}” would be {stroke}; {method} needs at least "
            "{least_stroke_mm} mm. Please make it bolder or leave it out.",
            name=node.name,
            stroke=_mm(stroke),
            method=method.name,
            least_stroke_mm=decimal(method.least_stroke_mm),
        )
        yield found("too_thin", area, node, message, measured=stroke, limit=method.least_stroke_mm)
    if method.least_gap_mm is not None and gap < method.least_gap_mm:
        message = translate(
            "The narrowest gap in “{name}” would be {gap}; {method} needs at least "
            "{least_gap_mm} mm. Please open it up or leave it out.",
            name=node.name,
            gap=_mm(gap),
            method=method.name,
            least_gap_mm=decimal(method.least_gap_mm),
        )
        yield found("too_narrow", area, node, message, measured=gap, limit=method.least_gap_mm)


def _mm(length_mm: float) -> str:
    return (
        translate("{length} mm", length=decimal(length_mm, 2))
        if length_mm >= LEAST_SAID_MM
        else translate("less than {least} mm", least=decimal(LEAST_SAID_MM))
    )


@lru_cache(maxsize=DRAWINGS_KEPT)
def _measured(drawing: Drawing) -> Thinnest | None:
    """Return the thinnest ink and gap of a drawing in its units; None when it is too tangled to be worked on."""
    try:
        ink = union(part.outline.mapped(TO_SHAPES) for part in drawing.parts)
        stroke, gap = thinnest(ink)
    except ShapeError:
        return None
    return Thinnest(stroke * FROM_SHAPES.a, gap * FROM_SHAPES.a)
