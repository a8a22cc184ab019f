"""Offsets and distances of outlines by polygons (GEOS): outlines are flattened, worked on and given back.

Offsets of thousands of curves never fail this way; what comes back has straight edges, none off by more than told.
"""

import math
from functools import lru_cache

import numpy as np
import shapely
from shapely.geometry.base import BaseGeometry

from yenzo.core.shapes.booleans import union
from yenzo.core.shapes.cubics import Cubics, points_at
from yenzo.core.shapes.outline import Outline, Points

FLATNESS_MM = 0.004
MOST_STEPS = 64
MITER_LIMIT = 4.0


def flattened(outline: Outline, flatness_mm: float = FLATNESS_MM) -> list[Points]:
    """Return the contours as closed rings of points, shape (n, 2), nowhere off the curves by more than the flatness."""
    cubics = Cubics.of(outline)
    if not len(cubics.points):
        return []
    p = cubics.points
    # The distance of a cubic from its n-part polyline is at most sqrt(3)/18 * max|second difference| * 6 / n^2 (Filip).
    bend = np.maximum(np.hypot(*(p[:, 2] - 2 * p[:, 1] + p[:, 0]).T), np.hypot(*(p[:, 3] - 2 * p[:, 2] + p[:, 1]).T))
    wanted = np.ceil(np.sqrt(bend * 6 / (8 * flatness_mm))).clip(1, MOST_STEPS)
    # A few classes of steps, so that whole arrays of curves are drawn at once.
    steps = np.exp2(np.ceil(np.log2(wanted))).astype(int)
    runs: list[Points] = [np.empty((0, 2))] * len(p)
    for count in np.unique(steps):
        chosen = np.flatnonzero(steps == count)
        drawn = points_at(p[chosen], tuple(np.arange(count) / count)).reshape(count, len(chosen), 2)
        for place, index in enumerate(chosen):
            runs[index] = drawn[:, place]
    firsts = np.flatnonzero(np.diff(cubics.contours, prepend=-1))
    return [np.concatenate(runs[start:end]) for start, end in zip(firsts, [*firsts[1:], len(p)], strict=True)]


def polygon_of(outline: Outline, *, is_simple: bool = False) -> BaseGeometry:
    """Return what an outline covers (nonzero) as a polygon; simple ones have no overlapping contours."""
    rings = flattened(outline if is_simple else union([outline]))
    lines = [shapely.LinearRing(ring) for ring in rings if len(ring) > 2]
    return shapely.build_area(shapely.GeometryCollection(lines))


def outline_from(geometry: BaseGeometry) -> Outline:
    """Return polygons as an outline of straight edges; holes run the other way round."""
    verbs, points = [], []
    for polygon in getattr(geometry, "geoms", [geometry]):
        if polygon.is_empty or polygon.geom_type != "Polygon":
            continue
        oriented = shapely.orient_polygons(polygon)
        for ring in (oriented.exterior, *oriented.interiors):
            corners = shapely.get_coordinates(ring)[:-1]
            verbs.append("M" + "L" * (len(corners) - 1) + "Z")
            points.append(corners)
    return Outline("".join(verbs), np.concatenate(points)) if points else Outline.empty()


def grown(outline: Outline, by_mm: float, *, is_round: bool = True) -> Outline:
    """Return the outline with an edge added all around (taken away when negative); corners round or mitered."""
    if not by_mm or not outline:
        return outline
    return outline_from(_buffered(polygon_of(outline), by_mm, is_round=is_round))


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
    distances = shapely.distance(_prepared(room), shapely.points(points))
    return float(distances.max())


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
    return polygon.buffer(by_mm, quad_segs=min(quarter, 64), join_style=join, mitre_limit=MITER_LIMIT)
