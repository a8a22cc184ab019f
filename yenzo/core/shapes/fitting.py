"""Fitting: a closed ring of points comes in; few smooth cubic curves that stay within a tolerance of it go out.

After Schneider, "An algorithm for automatically fitting digitized curves" (Graphics Gems, 1990): between corners, one
cubic by least squares; where it misses, better parameters by Newton, and then two cubics.
"""

import math

import numpy as np
import numpy.typing as npt

from yenzo.core.shapes.cubics import points_at
from yenzo.core.shapes.outline import Outline, Points

# A ring turns sharply where it turns by more than this within a few tolerances.
CORNER_DEG = 48.0
BETTERINGS = 4


def fit_ring(ring: Points, tolerance: float) -> Outline:
    """Return a closed outline nowhere further from the ring's points than the tolerance (in the ring's unit)."""
    corners = _corners(ring, 3 * tolerance)
    if len(corners) < 2:
        corners = np.unique([0, len(ring) // 4, len(ring) // 2, 3 * len(ring) // 4])
        tangents = {int(at): _direction(ring, int(at), tolerance) for at in corners}
    else:
        tangents = {}
    curves: list[Points] = []
    for first, last in zip(corners, np.roll(corners, -1), strict=True):
        run = ring[first : last + 1] if last > first else np.concatenate([ring[first:], ring[: last + 1]])
        start, end = tangents.get(int(first)), tangents.get(int(last))
        curves += _fit(
            run,
            start if start is not None else _end_direction(run, tolerance),
            -end if end is not None else _end_direction(run[::-1], tolerance),
            tolerance,
        )
    points = np.concatenate([curves[0][:1], *(curve[1:] for curve in curves)])
    return Outline("M" + "C" * len(curves) + "Z", points)


def _corners(ring: Points, reach: float) -> npt.NDArray[np.intp]:
    """Return where the ring turns sharply, looking a reach back and ahead; one index a corner."""
    count = len(ring)
    step = max(1, round(reach / max(float(np.hypot(*(ring - np.roll(ring, 1, axis=0)).T).mean()), 1e-9)))
    if count < 4 * step:
        return np.arange(0)
    back, ahead = ring - np.roll(ring, step, axis=0), np.roll(ring, -step, axis=0) - ring
    cross = back[:, 0] * ahead[:, 1] - back[:, 1] * ahead[:, 0]
    turn = np.abs(np.degrees(np.arctan2(cross, (back * ahead).sum(axis=1))))
    window = np.stack([np.roll(turn, shift) for shift in range(-step, step + 1)])
    return np.flatnonzero((turn >= CORNER_DEG) & (turn >= window.max(axis=0)) & (turn > np.roll(turn, 1)))


def _direction(ring: Points, at: int, reach: float) -> Points:
    step = max(2, round(2 * reach))
    return _unit(ring[(at + step) % len(ring)] - ring[at - step])


def _end_direction(run: Points, reach: float) -> Points:
    far = np.flatnonzero(np.hypot(*(run - run[0]).T) >= reach)
    return _unit(run[far[0] if len(far) else -1] - run[0])


def _unit(vector: Points) -> Points:
    length = math.hypot(*vector)
    return vector / length if length else np.array([1.0, 0.0])


def _fit(run: Points, start: Points, end: Points, tolerance: float) -> list[Points]:
    if len(run) <= 2:
        third = (run[-1] - run[0]) / 3
        return [np.stack([run[0], run[0] + third, run[-1] - third, run[-1]])]
    ways = np.concatenate([[0.0], np.cumsum(np.hypot(*np.diff(run, axis=0).T))])
    t = ways / ways[-1]
    for _ in range(BETTERINGS):
        curve = _least_squares(run, t, start, end)
        misses = np.hypot(*(_at(curve, t) - run).T)
        worst = int(misses.argmax())
        if misses[worst] <= tolerance:
            return [curve]
        t = _better(curve, run, t)
    middle = min(max(worst, 1), len(run) - 2)
    along = _unit(run[min(middle + 2, len(run) - 1)] - run[max(middle - 2, 0)])
    first = _fit(run[: middle + 1], start, -along, tolerance)
    return first + _fit(run[middle:], along, end, tolerance)


def _at(curve: Points, t: Points) -> Points:
    return points_at(curve[None], tuple(t.tolist()))


def _least_squares(run: Points, t: Points, start: Points, end: Points) -> Points:
    """Return the cubic through both ends with the given directions there that is nearest to the run."""
    u = 1 - t
    b1, b2 = 3 * u * u * t, 3 * u * t * t
    base = run[0] * (u**3 + b1)[:, None] + run[-1] * (t**3 + b2)[:, None]
    a1, a2 = start * b1[:, None], end * b2[:, None]
    off = run - base
    matrix = np.array([[(a1 * a1).sum(), (a1 * a2).sum()], [(a1 * a2).sum(), (a2 * a2).sum()]])
    chord = math.hypot(*(run[-1] - run[0]))
    if abs(np.linalg.det(matrix)) > 1e-12:
        first, last = np.linalg.solve(matrix, np.array([(a1 * off).sum(), (a2 * off).sum()]))
    else:
        first = last = chord / 3
    if first < chord * 1e-6 or last < chord * 1e-6:
        first = last = chord / 3
    return np.stack([run[0], run[0] + start * first, run[-1] + end * last, run[-1]])


def _better(curve: Points, run: Points, t: Points) -> Points:
    """Return parameters nearer to the run's points (one step of Newton's method)."""
    u = 1 - t
    p0, p1, p2, p3 = curve
    first = 3 * (u * u)[:, None] * (p1 - p0) + 6 * (u * t)[:, None] * (p2 - p1) + 3 * (t * t)[:, None] * (p3 - p2)
    second = 6 * u[:, None] * (p2 - 2 * p1 + p0) + 6 * t[:, None] * (p3 - 2 * p2 + p1)
    off = _at(curve, t) - run
    slope = (first * first).sum(axis=1) + (off * second).sum(axis=1)
    moved = t - np.where(np.abs(slope) > 1e-12, (off * first).sum(axis=1) / np.where(slope == 0, 1, slope), 0)
    return np.maximum.accumulate(np.clip(moved, 0, 1))
