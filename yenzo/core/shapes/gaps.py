"""Gaps between shapes: outlines come in; how near two parts are to each other, without touching, goes out."""

import math

import shapely
from shapely.geometry.base import BaseGeometry

from yenzo.core.shapes.flattening import Geometries, flattened, signed_rings
from yenzo.core.shapes.outline import Outline

# Nearer than this, edges meet: what is left between them comes of rounding.
TOUCHING_MM = 0.002


def nearest_parts(outline: Outline, below_mm: float) -> float:
    """Return the least distance in mm between parts that don't touch, if it is below this; infinite if none is.

    Parts are what contours enclose; a counter isn't one, and neither is what lies within another.
    """
    lines, areas = signed_rings([ring for ring in flattened(outline) if len(ring) > 2])
    # Counters run the other way round.
    return nearest_of(shapely.polygons(lines[areas * areas.sum() > 0]), below_mm)


def nearest_of(shapes: Geometries, below_mm: float) -> float:
    """Return the least distance in mm between polygons that don't touch, as above."""
    first, second = shapely.STRtree(shapes).query(shapes, predicate="dwithin", distance=below_mm)
    pairs = first < second
    return _least_apart(shapes[first[pairs]], shapes[second[pairs]])


def parts_between(one: BaseGeometry, other: BaseGeometry, below_mm: float) -> float:
    """Return the least distance in mm between parts of one and of another polygon that don't touch, as above."""
    first, second = shapely.get_parts(one), shapely.get_parts(other)
    at, there = shapely.STRtree(second).query(first, predicate="dwithin", distance=below_mm)
    return _least_apart(first[at], second[there])


def _least_apart(ones: Geometries, others: Geometries) -> float:
    # What overlaps or lies within another has no distance from it.
    distances = shapely.distance(ones, others)
    apart = distances[distances > TOUCHING_MM]
    return float(apart.min()) if len(apart) else math.inf
