"""Strokes and gaps of what is made together: lines round letters, plates that letters are cut from, texts in a row."""

from collections.abc import Iterator
from itertools import combinations, product

import shapely

from yenzo.core.documents.materials import Method
from yenzo.core.errors import ShapeError
from yenzo.core.preflight.findings import Finding, found
from yenzo.core.scene.inking import Inked, made_of, one_tool, painted, separated, tool_of
from yenzo.core.scene.nodes import AreaScene, Lettering
from yenzo.core.scene.paints import Paint
from yenzo.core.shapes.gaps import TOUCHING_MM, nearest_parts, parts_between
from yenzo.core.shapes.polygons import may_be_narrow, polygon_of
from yenzo.core.shapes.thickness import Thinnest, thinnest_in_parts
from yenzo.core.speaking import decimal, say

# Curves are looked at in steps: what is nearer than the least by less than this can't be told from it.
ROUNDING_SHARE = 0.01


def find_narrow(area: AreaScene, method: Method) -> Iterator[Finding]:
    """Yield a finding for each color or tool whose shapes leave a gap, or have a stroke, that is narrower than can be.

    Plain letters are measured glyph by glyph, with the texts themselves; this looks at what becomes of them.
    """
    if method.least_gap_mm is None and method.least_stroke_mm is None:
        return
    yield from _near_letters(area, method)
    made = _made(area, method)
    yield from _near_others(area, method, made)
    for together in _together(made, method):
        node = together[-1].node
        measured = _measured(together, method)
        if measured is None:
            continue
        if method.least_gap_mm is not None and TOUCHING_MM < measured.gap < method.least_gap_mm:
            message = say(
                "What lies round “{text}” on “{area}” would leave a gap of {gap} mm; {method} needs at least {least} "
                "mm. Please choose larger letters, another typeface or other words.",
                text=node.text,
                area=area.name,
                gap=decimal(measured.gap, 2),
                method=method.name,
                least=decimal(method.least_gap_mm),
            )
            yield found("too_narrow", area, node, message, measured=measured.gap, limit=method.least_gap_mm)
        if method.least_stroke_mm is not None and TOUCHING_MM < measured.stroke < method.least_stroke_mm:
            message = say(
                "What lies round “{text}” on “{area}” would get as thin as {stroke} mm; {method} needs at least "
                "{least} mm. Please choose larger letters, another typeface or other words.",
                text=node.text,
                area=area.name,
                stroke=decimal(measured.stroke, 2),
                method=method.name,
                least=decimal(method.least_stroke_mm),
            )
            yield found("too_thin", area, node, message, measured=measured.stroke, limit=method.least_stroke_mm)


def _near_letters(area: AreaScene, method: Method) -> Iterator[Finding]:
    """Yield a finding for each text that is no plain straight line and whose letters are too near to each other."""
    least = method.least_gap_mm
    if least is None:
        return
    for node in area.letterings:
        is_measured = node.thin is not None and node.thin.gap_mm < least
        is_straight = not node.is_bent and len(node.lines) < 2 and node.line is None
        if is_straight or is_measured or node.effects or node.is_tangled:
            continue
        gap = nearest_parts(node.outline, least)
        if gap < least * (1 - ROUNDING_SHARE):
            message = say(
                "Letters of “{text}” on “{area}” would be {gap} mm apart; {method} needs at least {least} mm. Please "
                "choose larger letters, another typeface or other words.",
                text=node.text,
                area=area.name,
                gap=decimal(gap, 2),
                method=method.name,
                least=decimal(least),
            )
            yield found("too_narrow", area, node, message, measured=gap, limit=least)


def _near_others(area: AreaScene, method: Method, made: dict[str, list[Inked]]) -> Iterator[Finding]:
    """Yield a finding for each two tools whose shapes lie too near to each other without touching."""
    least = method.least_gap_mm
    if least is None:
        return
    for first, second in combinations(made.values(), 2):
        near = _nearest(first, second, least)
        if near is not None:
            gap, one, other = near
            message = say(
                "“{text}” would come within {gap} mm of “{other}” on “{area}”; {method} needs at least {least} mm. "
                "Please choose smaller letters or other words.",
                text=one.node.text,
                other=other.node.text,
                gap=decimal(gap, 2),
                area=area.name,
                method=method.name,
                least=decimal(least),
            )
            yield found("too_narrow", area, one.node, message, measured=gap, limit=least)


def _nearest(first: list[Inked], second: list[Inked], below_mm: float) -> tuple[float, Inked, Inked] | None:
    """Return how near shapes of different texts are to each other, if that is below this, and which these are."""
    found_at: list[tuple[float, Inked, Inked]] = []
    for one, other in product(first, second):
        # What belongs to one text is laid out together, as a line and its letters are.
        boxes = one.layer.outline.bounds, other.layer.outline.bounds
        if one.node is other.node or not (boxes[0] and boxes[1] and boxes[0].grown(below_mm).within(boxes[1])):
            continue
        gap = parts_between(polygon_of(one.layer.outline), polygon_of(other.layer.outline), below_mm)
        if gap < below_mm * (1 - ROUNDING_SHARE):
            found_at.append((gap, one, other))
    return min(found_at, key=lambda found: found[0], default=None)


def _made(area: AreaScene, method: Method) -> dict[str, list[Inked]]:
    """Return what is made of texts by color or tool; patterns are measured by their numbers."""
    tool = one_tool if method.one_color else tool_of
    layers = painted(area)
    groups: dict[str, list[Inked]] = {}
    try:
        made = separated(layers) if method.knocks_out else made_of(area, layers)
    except ShapeError:
        # What is tangled has a finding of its own.
        return groups
    for one in made:
        if isinstance(one.layer.paint, Paint) and isinstance(one.node, Lettering) and _is_measured(one.node):
            groups.setdefault(tool(one.layer.paint), []).append(one)
    return groups


def _together(made: dict[str, list[Inked]], method: Method) -> Iterator[list[Inked]]:
    """Yield what one color or tool makes of texts, unless that is a single plain one, which is measured already."""
    is_closed = method.closes_gaps and method.least_stroke_mm is None
    for group in made.values():
        alone = group[0] if len(group) == 1 else None
        if alone is None or not (_is_plain(alone) or (is_closed and alone.layer.role == "stroke")):
            yield group


def _is_plain(one: Inked) -> bool:
    """Tell whether a layer is all of a text as its letters are, with nothing cut out of it."""
    node = one.node
    if not isinstance(node, Lettering) or node.effects or node.has_bent_letters:
        return False
    return one.layer.outline is node.outline


def _is_measured(node: Lettering) -> bool:
    """Tell whether a text's shapes are measured: patterns are by their numbers.

    Where a letter's edge cuts a tile, bits are left that nobody minds.
    """
    return not node.is_tangled and not any(layer.role == "pattern" for layer in node.effects)


def _measured(together: list[Inked], method: Method) -> Thinnest | None:
    try:
        # Lines round letters are made without overlaps, of very many points.
        layers = [one.layer for one in together]
        covered = shapely.union_all([polygon_of(one.outline, is_simple=one.role == "stroke") for one in layers])
    except ShapeError:
        # What is tangled has a finding of its own.
        return None
    gap, stroke = method.least_gap_mm or 0.0, method.least_stroke_mm or 0.0
    if not may_be_narrow(covered, gap_mm=gap, stroke_mm=stroke):
        return None
    return thinnest_in_parts(covered, max(gap, stroke))
