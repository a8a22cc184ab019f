"""Flattening: outlines become rings of straight edges within a tolerance, and polygons become outlines again."""

import numpy as np
import numpy.typing as npt
import shapely
from shapely.geometry.base import BaseGeometry

from yenzo.core.shapes.cubics import Cubics, points_at
from yenzo.core.shapes.outline import Outline, Points

Geometries = npt.NDArray[np.object_]
FLATNESS_MM = 0.004
MOST_STEPS = 64
# By what share the area of rings and of what is built of them may differ.
ASTRAY = 1e-4


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


def area_within(rings: list[Points]) -> BaseGeometry:
    """Return what rings of a simple outline enclose, one within the other being a hole, which runs the other way round.

    Rings that touch themselves, and curves that cross when they are made straight, lead GEOS astray: what it builds has
    the area that the rings have, or else it is found out face by face.
    """
    rings = [ring for ring in rings if len(ring) > 2]
    lines, areas = signed_rings(rings)
    expected = abs(areas.sum())
    try:
        built = shapely.build_area(shapely.GeometryCollection(list(lines)))
    except shapely.GEOSException:
        return _within(rings)
    return built if abs(built.area - expected) <= ASTRAY * expected else _within(rings)


def signed_rings(rings: list[Points]) -> tuple[Geometries, Points]:
    """Return rings of three points or more as shapely's, and the area that each goes round, by the way that it runs.

    By the shoelace formula: it also holds of rings that cross themselves.
    """
    if not rings:
        return np.empty(0, dtype=object), np.empty(0)
    points, counts = np.concatenate(rings), np.array([len(ring) for ring in rings])
    firsts = np.cumsum(counts) - counts
    following = np.arange(1, len(points) + 1)
    following[firsts + counts - 1] = firsts
    xs, ys = (points - points.mean(axis=0)).T
    areas = np.add.reduceat(xs * ys[following] - xs[following] * ys, firsts) / 2
    return shapely.linearrings(points, indices=np.repeat(np.arange(len(rings)), counts)), areas


def covered_by(outline: Outline) -> BaseGeometry:
    """Return what an outline covers (nonzero): each face between its edges is asked how often they go round it.

    Slower than Skia's operations, and never at a loss.
    """
    return _within([ring for ring in flattened(outline) if len(ring) > 2])


def _within(rings: list[Points]) -> BaseGeometry:
    edges = shapely.union_all([shapely.LinearRing(ring) for ring in rings])
    faces = [face for face in shapely.polygonize([edges]).geoms if face.area > 0]
    return shapely.union_all([face for face in faces if _goes_round(rings, face.representative_point())])


def _goes_round(rings: list[Points], point: shapely.Point) -> bool:
    """Tell whether rings go round a point at all, each way counted (Sunday, "Inclusion of a point in a polygon")."""
    count = 0
    for ring in rings:
        start, end = ring, np.roll(ring, -1, axis=0)
        side = (end[:, 0] - start[:, 0]) * (point.y - start[:, 1]) - (point.x - start[:, 0]) * (end[:, 1] - start[:, 1])
        up = (start[:, 1] <= point.y) & (end[:, 1] > point.y) & (side > 0)
        down = (start[:, 1] > point.y) & (end[:, 1] <= point.y) & (side < 0)
        count += int(up.sum()) - int(down.sum())
    return count != 0
