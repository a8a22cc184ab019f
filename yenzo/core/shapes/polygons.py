"""Offsets and distances of outlines by polygons (GEOS): outlines are flattened, worked on and given back.

Offsets of thousands of curves never fail this way; what comes back has straight edges, none off by more than told.
"""

import math
from functools import lru_cache

import numpy as np
import shapely
from shapely.geometry.base import BaseGeometry

from yenzo.core.shapes.booleans import union
from yenzo.core.shapes.flattening import FLATNESS_MM, area_within, flattened, outline_from
from yenzo.core.shapes.necks import parts_and_holes
from yenzo.core.shapes.outline import Outline, Points

MITER_LIMIT = 4.0
NOISE_MM = 0.001
MOST_LOOKED_AT = 1500
# Smaller bits than this share of a square of the gap's width are the fillets of square corners: 1/4 - pi/16 of it.
LEAST_FILLED_SHARE = 0.06
# What is looked for is found as surely in edges off by a hundredth of it, and much sooner.
COARSE_SHARE, COARSE_SEGMENTS = 0.01, 8


# Checks look at the same outlines one after another.
@lru_cache(maxsize=64)
def polygon_of(outline: Outline, *, is_simple: bool = False) -> BaseGeometry:
    """Return what an outline covers (nonzero) as a polygon; simple ones have no overlapping contours."""
    return area_within(flattened(outline if is_simple else union([outline])))


def grown(outline: Outline, by_mm: float, *, is_round: bool = True, closing_mm: float = 0.0) -> Outline:
    """Return the outline with an edge added all around (taken away when negative); corners round or mitered.

    Gaps narrower than `closing_mm` that would be left are filled, and inner corners rounded as a tool of that width
    would leave them.
    """
    if not by_mm or not outline:
        return outline
    polygon = _buffered(polygon_of(outline), by_mm + closing_mm / 2, is_round=is_round)
    return outline_from(_buffered(polygon, -closing_mm / 2, is_round=True) if closing_mm else polygon)


def may_be_narrow(polygon: BaseGeometry, *, gap_mm: float, stroke_mm: float) -> bool:
    """Tell quickly whether a polygon may have gaps or strokes below these; sharp corners count as well."""
    return any(_changes(polygon, there, width) for there, width in ((1, gap_mm), (-1, stroke_mm)) if width > 0)


def _changes(polygon: BaseGeometry, there: int, width_mm: float) -> bool:
    """Tell whether growing (1) or shrinking (-1) by half of a width, and going back, changes more than corners."""
    coarse = polygon.simplify(width_mm * COARSE_SHARE, preserve_topology=False)
    moved = coarse.buffer(there * width_mm / 2, quad_segs=COARSE_SEGMENTS)
    if parts_and_holes(moved) != parts_and_holes(coarse):
        return True
    back = moved.buffer(-there * width_mm / 2, quad_segs=COARSE_SEGMENTS)
    least = LEAST_FILLED_SHARE * width_mm**2
    if abs(back.area - coarse.area) < least:
        return False
    changed = back.symmetric_difference(coarse)
    return any(part.area >= least for part in getattr(changed, "geoms", [changed]))


def edge_of(outline: Outline, width_mm: float) -> Outline:
    """Return the line of this width along an outline's edge, half of it on either side."""
    covered = polygon_of(outline)
    outer = _buffered(covered, width_mm / 2, is_round=True)
    return outline_from(outer.difference(_buffered(covered, -width_mm / 2, is_round=True)))


def leaves_by(outline: Outline, room: Outline) -> float:
    """Return by how many mm an outline leaves another one at its worst point; 0 when it is inside."""
    points = points_on(outline)
    if not len(points) or not room:
        return 0.0
    polygon = _prepared(room)
    outside = points[~shapely.contains_xy(polygon, points)]
    if not len(outside):
        return 0.0
    # Points lie micrometres apart: some thousand of them tell as much as all.
    looked_at = outside[:: max(1, len(outside) // MOST_LOOKED_AT)]
    return float(shapely.distance(polygon, shapely.points(looked_at)).max())


def stands_out_by(outline: Outline, room: Outline) -> float:
    """Return by how many mm an outline leaves another one; below zero, how near its nearest point is to the edge."""
    over = leaves_by(outline, room)
    points = points_on(outline)
    if over > 0 or not len(points) or not room:
        return over
    looked_at = points[:: max(1, len(points) // MOST_LOOKED_AT)]
    return -float(shapely.distance(_prepared(room).boundary, shapely.points(looked_at)).min())


@lru_cache(maxsize=64)
def points_on(outline: Outline) -> Points:
    """Return points on an outline, so near to each other that no curve leaves the lines between them noticeably."""
    points = np.concatenate([*flattened(outline), np.empty((0, 2))])
    points.flags.writeable = False
    return points


@lru_cache(maxsize=256)
def _prepared(room: Outline) -> BaseGeometry:
    polygon = polygon_of(room)
    shapely.prepare(polygon)
    return polygon


def _buffered(polygon: BaseGeometry, by_mm: float, *, is_round: bool) -> BaseGeometry:
    # As many segments a quarter as keep the chord of the round corner within the flatness.
    radius = abs(by_mm)
    share = max(1 - FLATNESS_MM / radius, 0.0)
    quarter = max(2, math.ceil(math.pi / 4 / math.acos(share))) if share < 1 else 2
    join = "round" if is_round else "mitre"
    offset = polygon.buffer(by_mm, quad_segs=min(quarter, 64), join_style=join, mitre_limit=MITER_LIMIT)
    # Two of three points of an offset lie within a micrometre of the line between the others.
    return offset.simplify(NOISE_MM, preserve_topology=False)
