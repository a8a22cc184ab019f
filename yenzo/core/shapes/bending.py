"""Bending: an outline and a smooth map of the plane come in, the mapped outline within a tolerance goes out.

Each curve is mapped by its ends and its end tangents, which is exact to the fourth order of its length; curves whose
inner points still miss the true map are cut in halves and mapped again (adaptive subdivision).
"""

from typing import Protocol

import numpy as np

from yenzo.core.shapes.cubics import Cubics, points_at
from yenzo.core.shapes.outline import Outline, Points

# Well below what any file may differ by (0.03 mm) and what a tool can follow.
TOLERANCE_MM = 0.002
MOST_ROUNDS = 10
WATCHED = (0.25, 0.5, 0.75)


class Warp(Protocol):
    """A smooth map of points in mm; both take arrays of shape (n, 2)."""

    def map(self, points: Points, /) -> Points:
        """Return where points land."""
        ...

    def carry(self, points: Points, vectors: Points, /) -> tuple[Points, Points]:
        """Return where points land, and the directions given at them under the map's derivative."""
        ...


def bend(outline: Outline, warp: Warp, tolerance_mm: float = TOLERANCE_MM) -> Outline:
    """Return the outline under the map, nowhere off by more than the tolerance at the points watched."""
    if not outline:
        return outline
    flat = Cubics.of(outline)
    bent = _bent(flat.points, warp)
    fresh = np.ones(len(bent), dtype=np.bool_)
    for _ in range(MOST_ROUNDS):
        too_far = fresh.copy()
        too_far[fresh] = _misses(flat.points[fresh], bent[fresh], warp) > tolerance_mm
        if not too_far.any():
            break
        flat, fresh = flat.halved(too_far), np.repeat(too_far, np.where(too_far, 2, 1))
        bent = np.repeat(bent, np.where(too_far, 2, 1), axis=0)
        bent[fresh] = _bent(flat.points[fresh], warp)
    return Cubics(bent, flat.contours).outline()


def _bent(flat: Points, warp: Warp) -> Points:
    """Map curves of shape (n, 4, 2) by their ends and end tangents."""
    count = len(flat)
    ends = np.concatenate([flat[:, 0], flat[:, 3]])
    landed, tangents = warp.carry(ends, np.concatenate([flat[:, 1] - flat[:, 0], flat[:, 2] - flat[:, 3]]))
    inner = landed + tangents
    return np.stack([landed[:count], inner[:count], inner[count:], landed[count:]], axis=1)


def _misses(flat: Points, bent: Points, warp: Warp) -> Points:
    """Return how far each mapped curve is off the true map where it is watched, in mm."""
    off = points_at(bent, WATCHED) - warp.map(points_at(flat, WATCHED))
    distances: Points = np.hypot(off[:, 0], off[:, 1]).reshape(len(WATCHED), -1).max(axis=0)
    return distances
