"""Base lines that bend: circles, cubic curves and closed outlines, by the length along them in mm.

Every path tells, for lengths along it, where it is, which way it goes and how strongly it turns. y points down; the
normal is the direction turned clockwise by a quarter, so that letters (whose tops have negative y) stand on its left.
"""

import math
from dataclasses import dataclass
from functools import cached_property
from typing import Protocol

import numpy as np
import numpy.typing as npt

from yenzo.core.shapes.cubics import Cubics
from yenzo.core.shapes.outline import Outline, Points

KNOTS = 64
# A corner turns by more than this (2 degrees, in radians); its bend takes up to this share of a curve beside it, and no
# corner turns back altogether.
LEAST_CORNER, MOST_CUT, MOST_TURN = math.radians(2), 0.45, math.radians(175)
# Gauss-Legendre of five points: exact for polynomials of degree nine, so far below a nanometre between knots.
NODES, WEIGHTS = np.polynomial.legendre.leggauss(5)


class Path(Protocol):
    """A base line by its length."""

    @property
    def length_mm(self) -> float:
        """Length of the whole path."""
        ...

    @property
    def sharpest_mm(self) -> float:
        """The least radius of a turn towards the tops of the letters; infinite where there is none."""
        ...

    def at(self, lengths: Points, /) -> tuple[Points, Points, Points]:
        """Return points (n, 2), unit directions (n, 2) and curvatures (n,) in 1/mm at lengths (n,) along the path."""
        ...


@dataclass(frozen=True)
class Circle:
    """A circle from an angle on. Angles in degrees, 0 to the right, growing clockwise as y is down."""

    x_mm: float
    y_mm: float
    radius_mm: float
    start_deg: float
    spread_deg: float = 360.0
    clockwise: bool = True

    @property
    def length_mm(self) -> float:
        """Length of the arc."""
        return self.radius_mm * math.radians(self.spread_deg)

    @property
    def sharpest_mm(self) -> float:
        """Letters stand outside a clockwise circle and inside the other."""
        return math.inf if self.clockwise else self.radius_mm

    def at(self, lengths: Points) -> tuple[Points, Points, Points]:
        """Return points, directions and curvatures at lengths along the arc."""
        way = 1.0 if self.clockwise else -1.0
        angles = math.radians(self.start_deg) + way * lengths / self.radius_mm
        cosine, sine = np.cos(angles), np.sin(angles)
        points = np.stack([self.x_mm + self.radius_mm * cosine, self.y_mm + self.radius_mm * sine], axis=1)
        directions = way * np.stack([-sine, cosine], axis=1)
        return points, directions, np.full(len(lengths), way / self.radius_mm)


@dataclass(frozen=True, eq=False)
class CurvePath:
    """Cubic curves one after another; an open path goes on straight at its ends.

    A closed one goes round and round; lengths count from `start_mm` on.
    """

    curves: Points
    closed: bool = False
    start_mm: float = 0.0

    @classmethod
    def through(cls, points: list[tuple[float, float]]) -> "CurvePath":
        """Return the path of 3 n + 1 points: an end, then two controls and an end for each curve."""
        flat = np.array(points, dtype=np.float64)
        return cls(np.stack([flat[at : at + 4] for at in range(0, len(flat) - 1, 3)]))

    @classmethod
    def around(cls, outline: Outline) -> "CurvePath":
        """Return the first contour of an outline as a closed path."""
        cubics = Cubics.of(outline)
        return cls(cubics.points[cubics.contours == cubics.contours[0]], closed=True)

    def rounded(self, radius_mm: float) -> "CurvePath":
        """Return the open path with a bend of this radius in place of each corner; smaller where curves are short."""
        starts, ends = _tangents(self.curves)
        turns = [_angle_between(ends[at], starts[at + 1]) for at in range(len(self.curves) - 1)]
        if all(abs(turn) < LEAST_CORNER for turn in turns):
            return self
        knots = self._lengths[::KNOTS]
        cut = [0.0] * (len(self.curves) + 1)
        for at, turn in enumerate(turns):
            if abs(turn) >= LEAST_CORNER:
                room = MOST_CUT * min(knots[at + 1] - knots[at], knots[at + 2] - knots[at + 1])
                cut[at + 1] = min(radius_mm * math.tan(min(abs(turn), MOST_TURN) / 2), room)
        lengths = np.array([[knots[at] + cut[at], knots[at + 1] - cut[at + 1]] for at in range(len(self.curves))])
        _, parameters = self._parameters(lengths.ravel())
        # The end of a curve is the beginning of the next.
        kept = [
            _part(curve, 0.0 if not cut[at] else first, 1.0 if not cut[at + 1] else last)
            for at, (curve, (first, last)) in enumerate(zip(self.curves, parameters.reshape(-1, 2), strict=True))
        ]
        starts, ends = _tangents(np.stack(kept))
        pieces = [kept[0]]
        for at, turn in enumerate(turns):
            if cut[at + 1]:
                chord = float(np.hypot(*(kept[at + 1][0] - kept[at][3])))
                # The handles of a circle's arc over that chord.
                handle = chord * 2 / 3 / (1 + math.cos(min(abs(turn), MOST_TURN) / 2))
                inner = (kept[at][3] + ends[at] * handle, kept[at + 1][0] - starts[at + 1] * handle)
                pieces.append(np.stack([kept[at][3], *inner, kept[at + 1][0]]))
            pieces.append(kept[at + 1])
        return CurvePath(np.stack(pieces))

    @property
    def length_mm(self) -> float:
        """Length of all curves."""
        return float(self._lengths[-1])

    @cached_property
    def sharpest_mm(self) -> float:
        """The least radius where the path turns to the left, towards the letters' tops."""
        _, _, curvatures = self.at(np.linspace(0, self.length_mm, 400))
        sharpest = float(-curvatures.min())
        return 1 / sharpest if sharpest > 0 else math.inf

    def at(self, lengths: Points) -> tuple[Points, Points, Points]:
        """Return points, directions and curvatures at lengths along the path."""
        whole = self.length_mm
        on = np.mod(lengths + self.start_mm, whole) if self.closed else np.clip(lengths, 0, whole)
        curve, t = self._parameters(on)
        p0, p1, p2, p3 = (self.curves[curve, step] for step in range(4))
        t, u = t[:, None], 1 - t[:, None]
        points = u**3 * p0 + 3 * u * u * t * p1 + 3 * u * t * t * p2 + t**3 * p3
        first = _speed(self.curves[curve], t)
        second = 6 * (u * (p2 - 2 * p1 + p0) + t * (p3 - 2 * p2 + p1))
        speed = np.maximum(np.hypot(first[:, 0], first[:, 1]), 1e-12)
        directions = first / speed[:, None]
        curvatures = (first[:, 0] * second[:, 1] - first[:, 1] * second[:, 0]) / speed**3
        beyond = lengths - on
        if not self.closed and beyond.any():
            points = points + directions * beyond[:, None]
            curvatures = np.where(beyond != 0, 0.0, curvatures)
        return points, directions, curvatures

    @cached_property
    def _lengths(self) -> Points:
        """Length from the start to each knot, shape (curves * KNOTS + 1,)."""
        starts = np.tile(np.arange(KNOTS) / KNOTS, len(self.curves))
        curves = np.repeat(self.curves, KNOTS, axis=0)
        half = 0.5 / KNOTS
        pieces = np.zeros(len(curves))
        for node, weight in zip(NODES, WEIGHTS, strict=True):
            first = _speed(curves, (starts + half * (1 + node))[:, None])
            pieces += weight * half * np.hypot(first[:, 0], first[:, 1])
        return np.concatenate([[0.0], np.cumsum(pieces)])

    @cached_property
    def _slopes(self) -> Points:
        """How fast the parameter grows at both ends of each knot's step, (curves * KNOTS, 2), in steps a mm."""
        curves = np.repeat(self.curves, KNOTS, axis=0)
        starts = np.tile(np.arange(KNOTS) / KNOTS, len(self.curves))
        most = 3 / np.maximum(np.diff(self._lengths), 1e-12)
        ends = []
        for t in (starts, starts + 1 / KNOTS):
            first = _speed(curves, t[:, None])
            ends.append(np.minimum(KNOTS / np.maximum(np.hypot(first[:, 0], first[:, 1]), 1e-12), most))
        return np.stack(ends, axis=1)

    def _parameters(self, lengths: Points) -> tuple[npt.NDArray[np.intp], Points]:
        """Return curve and parameter at lengths, by cubic Hermite interpolation between knots."""
        knot = np.clip(np.searchsorted(self._lengths, lengths, side="right") - 1, 0, len(self._lengths) - 2)
        step = np.maximum(self._lengths[knot + 1] - self._lengths[knot], 1e-12)
        x = (lengths - self._lengths[knot]) / step
        first, last = (self._slopes[knot, end] * step for end in (0, 1))
        within = x * x * (3 - 2 * x) + x * (1 - x) * (first * (1 - x) - last * x)
        return knot // KNOTS, (knot % KNOTS + within) / KNOTS


def _tangents(curves: Points) -> tuple[Points, Points]:
    """Return the unit directions in which curves begin and end, also of those whose handles have no length."""
    directions = []
    for order in ((0, 1, 2, 3), (3, 2, 1, 0)):
        found = np.zeros((len(curves), 2))
        for step in reversed(order[1:]):
            leg = curves[:, step] - curves[:, order[0]]
            size = np.hypot(leg[:, 0], leg[:, 1])[:, None]
            found = np.where(size > 1e-9, leg / np.maximum(size, 1e-12), found)
        directions.append(found)
    return directions[0], -directions[1]


def _angle_between(before: Points, after: Points) -> float:
    return math.atan2(before[0] * after[1] - before[1] * after[0], before[0] * after[0] + before[1] * after[1])


def _part(curve: Points, first: float, last: float) -> Points:
    """Return a curve between two of its parameters (blossoms: polar forms of the cubic)."""

    def blossom(*at: float) -> Points:
        """Return the point of the polar form at three parameters."""
        points = curve
        for t in at:
            points = points[:-1] * (1 - t) + points[1:] * t
        found: Points = points[0]
        return found

    return np.stack(
        [
            blossom(first, first, first),
            blossom(first, first, last),
            blossom(first, last, last),
            blossom(last, last, last),
        ]
    )


def _speed(curves: Points, t: Points) -> Points:
    p0, p1, p2, p3 = (curves[:, step] for step in range(4))
    u = 1 - t
    speed: Points = 3 * (u * u * (p1 - p0) + 2 * u * t * (p2 - p1) + t * t * (p3 - p2))
    return speed


@dataclass(frozen=True)
class AlongPath:
    """The warp that takes the straight base line y = 0, from x = 0 on, to a path. Is a `Warp`."""

    path: Path

    def map(self, points: Points) -> Points:
        """Return where points land: along the path by x, off it by y."""
        on, directions, _ = self.path.at(points[:, 0])
        mapped: Points = on + _normals(directions) * points[:, 1:]
        return mapped

    def carry(self, points: Points, vectors: Points) -> tuple[Points, Points]:
        """Return where points land and directions at them under the derivative: Frenet, dN/ds = -curvature T."""
        on, directions, curvatures = self.path.at(points[:, 0])
        normals = _normals(directions)
        along = vectors[:, 0] * (1 - curvatures * points[:, 1])
        return on + normals * points[:, 1:], directions * along[:, None] + normals * vectors[:, 1:]


def _normals(directions: Points) -> Points:
    return np.stack([-directions[:, 1], directions[:, 0]], axis=1)
