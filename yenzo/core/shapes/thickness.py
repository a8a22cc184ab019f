"""Thickness: an outline comes in; its thinnest stroke and its thinnest inner gap go out.

From points all along the edge a ray goes straight in (or out) to the next edge. Where that edge faces back, the ray's
length is how thick the ink (or the gap) is there. Edges that meet round a tip next to it don't bound a stroke: every
corner is infinitely thin at its tip, and nobody means that. Necks, where strokes join, have no parallel edges: they are
found by `necks`.
"""

from typing import NamedTuple

import numpy as np
import numpy.typing as npt
import shapely
from shapely.geometry.base import BaseGeometry

from yenzo.core.shapes.booleans import union
from yenzo.core.shapes.flattening import area_within, flattened
from yenzo.core.shapes.gaps import nearest_of
from yenzo.core.shapes.necks import neck
from yenzo.core.shapes.outline import Outline, Points
from yenzo.core.shapes.polygons import may_be_narrow

# Where a stroke is thinnest its edges are parallel: within 10 degrees, as curves are looked at in steps (cosines).
LEAST_FACING = 0.985
# Edges less parallel than 2 degrees are those of a tip when the way round it is below this many thicknesses.
PARALLEL, TIP_WAY = 0.9994, 10.0
# Parallel edges bound a mere stub, as a serif's end, when the way round it is below this many thicknesses.
STUB_WAY = 6.0
SAMPLES_ACROSS = 60
FLATNESS_SHARE = 1 / 1500
MOST_PAIRS = 4_000_000
FEW_POINTS = 60
# Shapes of many parts are looked at this share of a limit finely.
BELOW_SHARE = 1 / 100


class Thinnest(NamedTuple):
    """The least thickness of ink and of the gaps in it, in the outline's units; infinite where there is none."""

    stroke: float
    gap: float


class _Edges(NamedTuple):
    """Straight edges: ends of shape (n, 2), the contour of each, how far along it they start, and how long it is."""

    starts: Points
    ends: Points
    contours: npt.NDArray[np.intp]
    ways: Points
    rounds: Points


def thinnest(outline: Outline) -> Thinnest:
    """Return the thinnest stroke and the thinnest inner gap of an outline."""
    simple = union([outline])
    bounds = simple.bounds
    if bounds is None:
        return Thinnest(np.inf, np.inf)
    flatness = max(bounds.width, bounds.height) * FLATNESS_SHARE
    return thinnest_of(area_within(flattened(simple, flatness)), flatness)


def thinnest_in_parts(polygon: BaseGeometry, below: float) -> Thinnest:
    """Return the thinnest stroke and gap of a polygon of many parts, as far as they are below this, part by part."""
    parts = shapely.get_parts(polygon)
    narrow = [part for part in parts if may_be_narrow(part, gap_mm=below, stroke_mm=below)]
    measured = [thinnest_of(part, below * BELOW_SHARE, below) for part in narrow]
    gaps = [nearest_of(parts, below), *(one.gap for one in measured)]
    return Thinnest(min((one.stroke for one in measured), default=np.inf), min(gaps))


def thinnest_of(covered: BaseGeometry, flatness: float, below: float = np.inf) -> Thinnest:
    """Return the thinnest stroke and gap of a polygon whose edges need not be told nearer than the flatness.

    Necks are looked for below this only.
    """
    if covered.is_empty:
        return Thinnest(np.inf, np.inf)
    left, top, right, bottom = covered.bounds
    size = max(right - left, bottom - top)
    edges = _edges([_plainer(ring, flatness) for ring in _rings(covered)])
    along = edges.ends - edges.starts
    lengths = np.hypot(along[:, 0], along[:, 1])
    counts = np.maximum(1, np.ceil(lengths * SAMPLES_ACROSS / size)).astype(int)
    edge = np.repeat(np.arange(len(counts)), counts)
    share = (np.arange(len(edge)) - np.repeat(np.cumsum(counts) - counts, counts) + 0.5) / counts[edge]
    points = edges.starts[edge] + along[edge] * share[:, None]
    ways = edges.ways[edge] + lengths[edge] * share
    # Rings run so that the signed area of the whole tells on which side the ink lies.
    area = np.sum(edges.starts[:, 0] * edges.ends[:, 1] - edges.ends[:, 0] * edges.starts[:, 1])
    directions = along[edge] / lengths[edge][:, None]
    inward = np.column_stack([-directions[:, 1], directions[:, 0]]) * np.sign(area)
    stroke, blob = _shortest(points, inward, ways, edges.contours[edge], edges)
    gap, _ = _shortest(points, -inward, ways, edges.contours[edge], edges)
    counters = [2 * circle.length for circle in _circles_in_holes(covered)]
    stroke, gap = stroke if np.isfinite(stroke) else blob, min([gap, *counters])
    in_ink, in_gaps = (min(width, size, below) for width in (stroke, gap))
    return Thinnest(min(stroke, neck(covered, in_ink)), min(gap, neck(_around(covered), in_gaps)))


def _rings(polygon: BaseGeometry) -> list[Points]:
    """Return the rings of polygons without their last points, holes the other way round."""
    parts = shapely.get_parts(shapely.orient_polygons(polygon))
    return [shapely.get_coordinates(ring)[:-1] for part in parts for ring in (part.exterior, *part.interiors)]


def _around(covered: BaseGeometry) -> BaseGeometry:
    """Return what is left free, holes included, as far around as any gap in it may reach."""
    left, top, right, bottom = covered.bounds
    far = max(right - left, bottom - top)
    return shapely.box(left - far, top - far, right + far, bottom + far).difference(covered)


def _circles_in_holes(covered: BaseGeometry) -> list[BaseGeometry]:
    """Return the radius of the largest circle in each hole as a line: a counter is as wide as what fits into it."""
    holes = [shapely.Polygon(ring) for polygon in shapely.get_parts(covered) for ring in polygon.interiors]
    return [shapely.maximum_inscribed_circle(hole) for hole in holes if hole.area > 0]


def _plainer(ring: Points, flatness: float) -> Points:
    """Return a ring without the points that tell nothing: offsets have thousands of them, micrometres apart."""
    if len(ring) < FEW_POINTS:
        return ring
    plain = shapely.get_coordinates(shapely.LinearRing(ring).simplify(flatness))[:-1]
    return plain if len(plain) > 2 else ring


def _edges(rings: list[Points]) -> _Edges:
    columns = []
    for number, ring in enumerate(rings):
        following = np.roll(ring, -1, axis=0)
        lengths = np.hypot(*(following - ring).T)
        keeps = lengths > 0
        ways, whole = np.cumsum(lengths) - lengths, np.full(len(ring), lengths.sum())
        columns.append((ring[keeps], following[keeps], np.full(keeps.sum(), number), ways[keeps], whole[keeps]))
    return _Edges(*(np.concatenate(parts) for parts in zip(*columns, strict=True)))


def _shortest(
    points: Points, rays: Points, ways: Points, contours: npt.NDArray[np.intp], edges: _Edges
) -> tuple[float, float]:
    """Return the length of the shortest ray to an edge that faces back, without tips and with them."""
    along = edges.ends - edges.starts
    lengths_along = np.hypot(along[:, 0], along[:, 1])
    stroke = blob = np.inf
    rows = max(1, MOST_PAIRS // max(len(along), 1))
    for first in range(0, len(points), rows):
        part = slice(first, first + rows)
        at, ray = points[part], rays[part]
        across = ray[:, None, 0] * along[None, :, 1] - ray[:, None, 1] * along[None, :, 0]
        off = edges.starts[None] - at[:, None]
        with np.errstate(divide="ignore", invalid="ignore"):
            length = (off[..., 0] * along[None, :, 1] - off[..., 1] * along[None, :, 0]) / across
            place = (off[..., 0] * ray[:, None, 1] - off[..., 1] * ray[:, None, 0]) / across
        lengths = np.where((length > 1e-9) & (place >= 0) & (place <= 1), length, np.inf)
        nearest = lengths.argmin(axis=1)
        every = np.arange(len(at))
        reached = lengths[every, nearest]
        # How squarely the ray meets the edge it reaches: 1 when that edge is parallel to the one it left.
        facing = np.abs(across[every, nearest]) / lengths_along[nearest]
        reached = np.where(facing >= LEAST_FACING, reached, np.inf)
        place_there = np.where(np.isfinite(reached), place[every, nearest], 0.0)
        there = edges.ways[nearest] + place_there * lengths_along[nearest]
        apart = np.abs(there - ways[part])
        apart = np.minimum(apart, edges.rounds[nearest] - apart)
        least_way = np.where(facing < PARALLEL, TIP_WAY, STUB_WAY) * reached
        is_tip = (edges.contours[nearest] == contours[part]) & (apart < least_way)
        blob = min(blob, float(reached.min()))
        stroke = min(stroke, float(np.where(is_tip, np.inf, reached).min()))
    return stroke, blob
