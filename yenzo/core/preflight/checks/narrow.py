"""Strokes and gaps of what is made together: lines round letters, plates that letters are cut from, texts in a row."""

from collections.abc import Iterator
from dataclasses import dataclass
from functools import cached_property
from itertools import combinations, product

import shapely
from shapely.geometry.base import BaseGeometry

from yenzo.core.documents.materials import Method
from yenzo.core.errors import ShapeError
from yenzo.core.preflight.findings import Finding, found
from yenzo.core.scene.inking import Inked, made_of, one_tool, painted, tool_of, with_what_lies_above
from yenzo.core.scene.nodes import AreaScene, Lettering
from yenzo.core.scene.paints import Paint
from yenzo.core.shapes.gaps import TOUCHING_MM, nearest_parts, parts_between
from yenzo.core.shapes.polygons import may_be_narrow, polygon_of
from yenzo.core.shapes.thickness import Thinnest, thinnest_in_parts
from yenzo.core.translation import decimal, translate

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
        node = together[-1].one.node
        measured = _measured(together, method)
        if measured is None:
            continue
        if method.least_gap_mm is not None and TOUCHING_MM < measured.gap < method.least_gap_mm:
            message = translate(
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
            message = translate(
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
            message = translate(
                "Letters of “{text}” on “{area}” would be {gap} mm apart; {method} needs at least {least} mm. Please "
                "choose larger letters, another typeface or other words.",
                text=node.text,
                area=area.name,
                gap=decimal(gap, 2),
                method=method.name,
                least=decimal(least),
            )
            yield found("too_narrow", area, node, message, measured=gap, limit=least)


@dataclass(frozen=True)
class _Shape:
    """What is made of a layer: all of it, or what others that lie above leave of it."""

    one: Inked
    above: tuple[Inked, ...] = ()

    @property
    def text(self) -> str:
        """The text that it belongs to."""
        return self.one.node.text

    @property
    def is_plain(self) -> bool:
        """Whether it is all of a text as its letters are, with nothing cut out of it."""
        node = self.one.node
        if self.above or not isinstance(node, Lettering) or node.effects or node.has_bent_letters:
            return False
        return self.one.layer.outline is node.outline

    @cached_property
    def covered(self) -> BaseGeometry:
        """What it covers; raises ShapeError where it is too tangled for that."""
        whole = _polygon(self.one)
        return whole.difference(shapely.union_all([_polygon(upper) for upper in self.above])) if self.above else whole


def _polygon(one: Inked) -> BaseGeometry:
    # Lines round letters are made without overlaps, of very many points.
    return polygon_of(one.layer.outline, is_simple=one.layer.role == "stroke")


def _made(area: AreaScene, method: Method) -> dict[str, list[_Shape]]:
    """Return what is made of texts by color or tool; patterns are measured by their numbers."""
    tool = one_tool if method.one_color else tool_of
    layers = painted(area)
    if method.knocks_out:
        shapes = [_Shape(one, above) for one, above in with_what_lies_above(layers)]
    else:
        shapes = [_Shape(one) for one in made_of(area, layers)]
    groups: dict[str, list[_Shape]] = {}
    for shape in shapes:
        paint, node = shape.one.layer.paint, shape.one.node
        if isinstance(paint, Paint) and isinstance(node, Lettering) and _is_measured(node):
            groups.setdefault(tool(paint), []).append(shape)
    return groups


def _is_measured(node: Lettering) -> bool:
    """Tell whether a text's shapes are measured: patterns are by their numbers.

    Where a letter's edge cuts a tile, bits are left that nobody minds.
    """
    return not node.is_tangled and not any(layer.role == "pattern" for layer in node.effects)


def _near_others(area: AreaScene, method: Method, made: dict[str, list[_Shape]]) -> Iterator[Finding]:
    """Yield a finding for each two tools whose shapes lie too near to each other without touching."""
    least = method.least_gap_mm
    if least is None:
        return
    for first, second in combinations(made.values(), 2):
        near = _nearest(first, second, least)
        if near is not None:
            gap, shape, other = near
            message = translate(
                "“{text}” would come within {gap} mm of “{other}” on “{area}”; {method} needs at least {least} mm. "
                "Please choose smaller letters or other words.",
                text=shape.text,
                other=other.text,
                gap=decimal(gap, 2),
                area=area.name,
                method=method.name,
                least=decimal(least),
            )
            yield found("too_narrow", area, shape.one.node, message, measured=gap, limit=least)


def _nearest(first: list[_Shape], second: list[_Shape], below_mm: float) -> tuple[float, _Shape, _Shape] | None:
    """Return how near shapes of different texts are to each other, if that is below this, and which these are."""
    found_at: list[tuple[float, _Shape, _Shape]] = []
    for shape, other in product(first, second):
        # What belongs to one text is laid out together, as a line and its letters are.
        one, two = shape.one.layer.outline.bounds, other.one.layer.outline.bounds
        if shape.one.node is other.one.node or not (one and two and one.grown(below_mm).meets(two)):
            continue
        try:
            gap = parts_between(shape.covered, other.covered, below_mm)
        except ShapeError:
            # What is tangled has a finding of its own.
            continue
        if gap < below_mm * (1 - ROUNDING_SHARE):
            found_at.append((gap, shape, other))
    return min(found_at, key=lambda near: near[0], default=None)


def _together(made: dict[str, list[_Shape]], method: Method) -> Iterator[list[_Shape]]:
    """Yield what one color or tool makes of texts, unless that is a single plain one, which is measured already."""
    is_closed = method.closes_gaps and method.least_stroke_mm is None
    for group in made.values():
        alone = group[0] if len(group) == 1 else None
        if alone is None or not (alone.is_plain or (is_closed and alone.one.layer.role == "stroke")):
            yield group


def _measured(together: list[_Shape], method: Method) -> Thinnest | None:
    try:
        covered = shapely.union_all([shape.covered for shape in together])
    except ShapeError:
        # What is tangled has a finding of its own.
        return None
    gap, stroke = method.least_gap_mm or 0.0, method.least_stroke_mm or 0.0
    if not may_be_narrow(covered, gap_mm=gap, stroke_mm=stroke):
        return None
    return thinnest_in_parts(covered, max(gap, stroke))
