"""Gaps between shapes: an outline comes in; how near two of its parts are to each other, without touching, goes out."""

import math

import numpy as np
import shapely

from yenzo.core.shapes.flattening import flattened
from yenzo.core.shapes.outline import Outline

# Nearer than this, edges meet: what is left between them comes of rounding.
TOUCHING_MM = 0.002


def nearest_parts(outline: Outline, below_mm: float) -> float:
    """Return the least distance in mm between parts that don't touch, if it is below this; infinite if none is.

    Parts are what contours enclose; a counter isn't one, and neither is what lies within another.
    """
    rings = [shapely.Polygon(ring) for ring in flattened(outline) if len(ring) > 2]
    if len(rings) < 2:
        return math.inf
    tree = shapely.STRtree(rings)
    first, second = tree.query(rings, predicate="dwithin", distance=below_mm)
    pairs = first < second
    shapes = np.array(rings)
    # What overlaps or lies within another has no distance from it.
    distances = shapely.distance(shapes[first[pairs]], shapes[second[pairs]])
    apart = distances[distances > TOUCHING_MM]
    return float(apart.min()) if len(apart) else math.inf
