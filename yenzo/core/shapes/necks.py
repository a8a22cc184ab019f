"""Necks: a polygon comes in; how wide it is where it would come apart, were it thinner all around, goes out.

It is eroded by ever more: where it falls into parts, loses one, or a ring opens, there was a neck (the medial axis has
its least radius there). Strokes that end free don't come apart; `thickness` measures those by rays.
"""

import math

import shapely
from shapely.geometry.base import BaseGeometry

from yenzo.core.shapes.flattening import outline_from
from yenzo.core.shapes.outline import Outline
from yenzo.core.shapes.overlay import covered_parts

# A polygon is looked at in these shares of the width below which a neck is wanted, one near the other: what came apart
# at one may be gone again at the next.
LOOKED_AT = tuple(0.985 * 0.91**step for step in range(25))
# Found within this share of itself, in so many halvings at most.
NEAR, MOST_HALVINGS = 0.008, 12
ROUND_SEGMENTS = 16
# How much of what is wanted is tried to take in, and how much of a part must be left of it.
CHOKED_BY, LEFT = (1.0, 0.75, 0.5, 0.25), 0.4


def neck(polygon: BaseGeometry, below: float) -> float:
    """Return how wide the narrowest neck is that is narrower than `below`, in the polygon's units, or infinity."""
    whole = parts_and_holes(polygon)
    changed = [share * below for share in LOOKED_AT if parts_and_holes(_eroded(polygon, share * below)) != whole]
    if not changed:
        return math.inf
    apart, together = min(changed), 0.0
    for _ in range(MOST_HALVINGS):
        if apart - together <= NEAR * apart:
            break
        width = (apart + together) / 2
        if parts_and_holes(_eroded(polygon, width)) == whole:
            together = width
        else:
            apart = width
    return (apart + together) / 2


def choked(outline: Outline, by_mm: float) -> Outline:
    """Return an outline with its edge taken in all around, by as much as each part of it bears without coming apart.

    A part that bears nothing stays as it is: without white under it a color would be lost.
    """
    parts = [_taken_in(part, by_mm) or part for part in covered_parts(outline)]
    return outline_from(shapely.MultiPolygon([one for part in parts for one in shapely.get_parts(part)]))


def bears_choking(outline: Outline, by_mm: float) -> bool:
    """Tell whether each part of an outline can be taken in at its edge, be it by less than is wanted."""
    return all(_taken_in(part, by_mm) is not None for part in covered_parts(outline))


def _taken_in(part: BaseGeometry, by_mm: float) -> BaseGeometry | None:
    whole = parts_and_holes(part)
    tried = (part.buffer(-share * by_mm, quad_segs=ROUND_SEGMENTS) for share in CHOKED_BY)
    return next((less for less in tried if parts_and_holes(less) == whole and less.area > LEFT * part.area), None)


def _eroded(polygon: BaseGeometry, width: float) -> BaseGeometry:
    return polygon.buffer(-width / 2, quad_segs=ROUND_SEGMENTS)


def parts_and_holes(polygon: BaseGeometry) -> tuple[int, int]:
    """Return how many parts a polygon has, and how many holes these have."""
    parts = [part for part in shapely.get_parts(polygon) if not part.is_empty]
    return len(parts), sum(len(part.interiors) for part in parts)
