"""Cubics: an outline comes in; all its edges as cubic curves in arrays, for work on every curve at once, go out."""

from dataclasses import dataclass

import numpy as np
import numpy.typing as npt

from yenzo.core.shapes.outline import POINTS_OF_VERB, Outline, Points

MOVE, LINE, CURVE, CLOSE = (ord(verb) for verb in "MLCZ")
POINT_COUNTS = np.zeros(128, dtype=np.intp)
for _verb, _count in POINTS_OF_VERB.items():
    POINT_COUNTS[ord(_verb)] = _count


@dataclass(frozen=True, eq=False)
class Cubics:
    """Closed contours of cubic curves: `points` of shape (n, 4, 2), and the number of its contour for each curve."""

    points: Points
    contours: npt.NDArray[np.intp]

    @classmethod
    def of(cls, outline: Outline) -> "Cubics":
        """Return the edges of an outline; closing lines that have a length are edges like any other."""
        verbs = np.frombuffer(outline.verbs.encode(), dtype=np.uint8)
        after = np.cumsum(POINT_COUNTS[verbs])
        contours = np.cumsum(verbs == MOVE) - 1
        starts = after[verbs == MOVE] - 1
        is_edge = verbs != MOVE
        kinds, ends, contours = verbs[is_edge], after[is_edge], contours[is_edge]
        before = ends - POINT_COUNTS[kinds] - 1
        p0 = outline.points[before]
        p3 = outline.points[np.where(kinds == CLOSE, starts[contours], ends - 1)]
        is_curve = (kinds == CURVE)[:, None]
        p1 = np.where(is_curve, outline.points[np.maximum(ends - 3, 0)], p0 + (p3 - p0) / 3)
        p2 = np.where(is_curve, outline.points[np.maximum(ends - 2, 0)], p3 - (p3 - p0) / 3)
        points = np.stack([p0, p1, p2, p3], axis=1)
        has_length = (kinds != CLOSE) | np.any(p0 != p3, axis=1)
        return cls(points[has_length], contours[has_length])

    def outline(self) -> Outline:
        """Return the curves as an outline of closed contours."""
        if not len(self.points):
            return Outline.empty()
        firsts = np.flatnonzero(np.diff(self.contours, prepend=-1))
        lasts = np.append(firsts[1:], len(self.points))
        verbs = "".join(f"M{'C' * (last - first)}Z" for first, last in zip(firsts, lasts, strict=True))
        # Each contour has its first point, then three for each curve.
        rows = np.arange(len(self.points)) * 3 + np.cumsum(np.isin(np.arange(len(self.points)), firsts))
        points = np.empty((3 * len(self.points) + len(firsts), 2))
        points[rows[firsts] - 1] = self.points[firsts, 0]
        for step in (1, 2, 3):
            points[rows + step - 1] = self.points[:, step]
        return Outline(verbs, points)

    def halved(self, which: npt.NDArray[np.bool_]) -> "Cubics":
        """Return the curves with some cut in the middle (de Casteljau)."""
        counts = np.where(which, 2, 1)
        points = np.repeat(self.points, counts, axis=0)
        firsts = (np.cumsum(counts) - counts)[which]
        p0, p1, p2, p3 = (self.points[which, step] for step in range(4))
        p01, p12, p23 = (p0 + p1) / 2, (p1 + p2) / 2, (p2 + p3) / 2
        p012, p123 = (p01 + p12) / 2, (p12 + p23) / 2
        middle = (p012 + p123) / 2
        points[firsts] = np.stack([p0, p01, p012, middle], axis=1)
        points[firsts + 1] = np.stack([middle, p123, p23, p3], axis=1)
        return Cubics(points, np.repeat(self.contours, counts))


def points_at(curves: Points, parameters: tuple[float, ...]) -> Points:
    """Return the points of curves (n, 4, 2) at each parameter from 0 to 1: all at the first one, then at the next."""
    t = np.array(parameters)[:, None]
    u = 1 - t
    weights = np.concatenate([u**3, 3 * u * u * t, 3 * u * t * t, t**3], axis=1)
    points: Points = np.einsum("tw,nwc->tnc", weights, curves).reshape(-1, 2)
    return points
