"""Offsets and distances of outlines by polygons (GEOS): outlines are flattened, worked on and given back.

Offsets of thousands of curves never fail this way; what comes back has straight edges, none off by more than told.
"""

import math
from functools import lru_cache

import numpy as np
import shapely
from shapely.geometry.base import BaseGeometry

from yenzo.core.shapes.booleans import union
from yenzo.core.shapes.flattening import FLATNESS_MM, flattened, outline_from
from yenzo.core.shapes.outline import Outline

MITER_LIMIT = 4.0
NOISE_MM = 0.001
MOST_LOOKED_AT = 1500
# Smaller bits than this share of a square of the gap's width are the fillets of square corners: 1/4 - pi/16 of it.
LEAST_FILLED_SHARE = 0.06


def polygon_of(outline: Outline, *, is_simple: bool = False) -> BaseGeometry:
    """Return what an outline covers (nonzero) as a polygon; simple ones have no overlapping contours."""
    rings = flattened(outline if is_simple else union([outline]))
    lines = [shapely.LinearRing(ring) for ring in rings if len(ring) > 2]
    return shapely.build_area(shapely.GeometryCollection(lines))


def grown(outline: Outline, by_mm: float, *, is_round: bool = True) -> Outline:
    """Return the outline with an edge added all around (taken away when negative); corners round or mitered."""
    if not by_mm or not outline:
        return outline
    return outline_from(_buffered(polygon_of(outline), by_mm, is_round=is_round))


def closed(outline: Outline, gap_mm: float) -> Outline:
    """Return the outline with all gaps filled that are narrower than this; nothing of it is taken away.

    Its inner corners are rounded, as a tool of that width would leave them.
    """
    polygon = polygon_of(outline)
    bridged = _grown_and_back(polygon, gap_mm)
    if not _of_size(bridged.difference(polygon), gap_mm):
        return outline
    return outline_from(bridged)


def may_be_narrow(polygon: BaseGeometry, *, gap_mm: float, stroke_mm: float) -> bool:
    """Tell quickly whether a polygon may have gaps or strokes below these; sharp corners count as well."""
    if gap_mm > 0 and _of_size(_grown_and_back(polygon, gap_mm).difference(polygon), gap_mm):
        return True
    if stroke_mm <= 0:
        return False
    opened = _buffered(_buffered(polygon, -stroke_mm / 2, is_round=True), stroke_mm / 2, is_round=True)
    return bool(_of_size(polygon.difference(opened), stroke_mm))


def _grown_and_back(polygon: BaseGeometry, gap_mm: float) -> BaseGeometry:
    """Return a polygon with what growing and shrinking by half of a gap fills for good."""
    return _buffered(_buffered(polygon, gap_mm / 2, is_round=True), -gap_mm / 2, is_round=True)


def _of_size(parts: BaseGeometry, width_mm: float) -> list[BaseGeometry]:
    """Return the parts of a geometry that are no mere fillets of corners."""
    return [part for part in getattr(parts, "geoms", [parts]) if part.area >= LEAST_FILLED_SHARE * width_mm**2]


def edge_of(outline: Outline, width_mm: float) -> Outline:
    """Return the line of this width along an outline's edge, half of it on either side."""
    covered = polygon_of(outline)
    outer = _buffered(covered, width_mm / 2, is_round=True)
    return outline_from(outer.difference(_buffered(covered, -width_mm / 2, is_round=True)))


def leaves_by(outline: Outline, room: Outline) -> float:
    """Return by how many mm an outline leaves another one at its worst point; 0 when it is inside."""
    points = np.concatenate([*flattened(outline), np.empty((0, 2))])
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
    points = np.concatenate([*flattened(outline), np.empty((0, 2))])
    if over > 0 or not len(points) or not room:
        return over
    looked_at = points[:: max(1, len(points) // MOST_LOOKED_AT)]
    return -float(shapely.distance(_prepared(room).boundary, shapely.points(looked_at)).min())


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
