"""Texts that run into each other on the same area."""

from collections.abc import Iterator
from itertools import combinations

import shapely

from yenzo.core.documents.materials import Method
from yenzo.core.errors import ShapeError
from yenzo.core.preflight.findings import Finding, found
from yenzo.core.scene.nodes import AreaScene, Lettering
from yenzo.core.shapes.outline import Outline
from yenzo.core.shapes.polygons import polygon_of
from yenzo.core.translation import decimal, translate

# Less than this of ink on ink nobody can see, in mm2.
LEAST_MM2 = 0.01


def find_overlapping(area: AreaScene, _method: Method) -> Iterator[Finding]:
    """Yield a finding for each pair of texts that cover each other, with how wide the place is, at the later one.

    Where the seller says that a text may lie over others, it isn't looked at.
    """
    for first, second in combinations(area.letterings, 2):
        if first.may_overlap or second.may_overlap or not _may_meet(first, second):
            continue
        both = _common(first, second)
        if both is None or both.area < LEAST_MM2:
            continue
        left, top, right, bottom = both.bounds
        width = max(right - left, bottom - top)
        message = translate(
            "“{text}” runs into “{other}” on “{area}”, over {width} mm. Please shorten one.",
            text=second.text,
            other=first.text,
            area=area.name,
            width=decimal(width, 1),
        )
        yield found("overlapping", area, second, message, measured=width, limit=0)


def _may_meet(first: Lettering, second: Lettering) -> bool:
    one, two = first.bounds, second.bounds
    return one is not None and two is not None and one.meets(two)


def _common(first: Lettering, second: Lettering) -> shapely.Geometry | None:
    try:
        one, two = (polygon_of(Outline.joined(layer.outline for layer in node.layers)) for node in (first, second))
    except ShapeError:
        # Letters that can't be told apart have a finding of their own.
        return None
    return shapely.intersection(one, two)
