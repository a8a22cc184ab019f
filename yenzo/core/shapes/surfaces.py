"""Surfaces: how what lies flat in an area shows on goods that aren't; both ways, in mm of the area.

Production stays flat; only what a customer sees is bent.
"""

import math
from dataclasses import dataclass, replace
from functools import lru_cache
from typing import Protocol

import numpy as np
import numpy.typing as npt

from yenzo.core.documents.areas import Area, Cylinder, FourCorners
from yenzo.core.shapes.bending import Warp
from yenzo.core.shapes.outline import Points


class SurfaceWarp(Warp, Protocol):
    """A warp that can be undone."""

    @property
    def cells(self) -> tuple[int, int]:
        """Into how many pieces across and down a picture is cut to follow the surface."""
        ...

    def unmap(self, points: Points, /) -> Points:
        """Return where shown points lie flat."""
        ...


# How far pixels may be off where they belong: half of one where a side shows five a mm.
MOST_CELL_ERROR_MM = 0.1
CELL_COUNTS = (4, 6, 9, 14, 21, 32, 48)


@lru_cache(maxsize=256)
def surface_warp(area: Area) -> SurfaceWarp | None:
    """Return how an area's surface bends what lies in it, or None when it is flat."""
    match area.surface:
        case Cylinder() as cylinder:
            return CylinderWarp.of(cylinder, area.width_mm, area.height_mm)
        case FourCorners():
            return CornersWarp.of(area)
        case _:
            return None


@dataclass(frozen=True)
class CylinderWarp:
    """Orthographic view of a cylinder: x = r sin(u / r) from the middle; a tilted camera lowers what is near."""

    middle_mm: float
    radius_mm: float
    tilt: float
    is_across: bool
    cells: tuple[int, int]

    @classmethod
    def of(cls, cylinder: Cylinder, width_mm: float, height_mm: float) -> "CylinderWarp":
        """Return the warp of a cylinder for an area of this size."""
        is_across = cylinder.axis == "across"
        length = height_mm if is_across else width_mm
        radius = length / math.radians(cylinder.span_deg)
        # Half a strip of an angle a off its middle a tangent is off the circle by less than r a a / 2.
        strips = math.ceil(math.radians(cylinder.span_deg) / 2 / math.sqrt(2 * MOST_CELL_ERROR_MM / radius))
        strips = min(max(strips, 4), CELL_COUNTS[-1])
        tilt = math.sin(math.radians(cylinder.tilt_deg))
        return cls(length / 2, radius, tilt, is_across, (1, strips) if is_across else (strips, 1))

    def map(self, points: Points) -> Points:
        """Return where flat points show."""
        along, other = self._parted(points)
        angle = (along - self.middle_mm) / self.radius_mm
        shown = self.middle_mm + self.radius_mm * np.sin(angle)
        return self._joined(shown, other - self.radius_mm * self.tilt * (1 - np.cos(angle)))

    def unmap(self, points: Points) -> Points:
        """Return where shown points lie flat; what lies beyond the visible half is taken to its edge."""
        shown, other = self._parted(points)
        angle = np.arcsin(np.clip((shown - self.middle_mm) / self.radius_mm, -1, 1))
        along = self.middle_mm + self.radius_mm * angle
        return self._joined(along, other + self.radius_mm * self.tilt * (1 - np.cos(angle)))

    def carry(self, points: Points, vectors: Points) -> tuple[Points, Points]:
        """Return where flat points show, and directions there."""
        along, _ = self._parted(points)
        angle = (along - self.middle_mm) / self.radius_mm
        by_along, by_other = self._parted(vectors)
        pushed = self._joined(by_along * np.cos(angle), by_other - by_along * self.tilt * np.sin(angle))
        return self.map(points), pushed

    def _parted(self, points: Points) -> tuple[Points, Points]:
        return (points[:, 1], points[:, 0]) if self.is_across else (points[:, 0], points[:, 1])

    def _joined(self, along: Points, other: Points) -> Points:
        return np.stack([other, along] if self.is_across else [along, other], axis=1)


@dataclass(frozen=True, eq=False)
class CornersWarp:
    """The projective map that takes the corners of the frame to where they show (a homography, from four points)."""

    forward: npt.NDArray[np.float64]
    backward: npt.NDArray[np.float64]
    cells: tuple[int, int] = (1, 1)

    @classmethod
    def of(cls, area: Area) -> "CornersWarp":
        """Return the map of an area's four corners (the eight equations of the four pairs of points)."""
        flat = ((0.0, 0.0), (area.width_mm, 0.0), (area.width_mm, area.height_mm), (0.0, area.height_mm))
        rows, values = [], []
        for (x, y), (u, v) in zip(flat, area.shown_corners(), strict=True):
            rows += [[x, y, 1, 0, 0, 0, -u * x, -u * y], [0, 0, 0, x, y, 1, -v * x, -v * y]]
            values += [u, v]
        forward = np.append(np.linalg.solve(np.array(rows), np.array(values)), 1.0).reshape(3, 3)
        warp = cls(forward, np.linalg.inv(forward))
        for count in CELL_COUNTS:
            warp = replace(warp, cells=(count, count))
            if cell_error_mm(warp, area.width_mm, area.height_mm) <= MOST_CELL_ERROR_MM:
                break
        return warp

    def map(self, points: Points) -> Points:
        """Return where flat points show."""
        return _projected(self.forward, points)

    def unmap(self, points: Points) -> Points:
        """Return where shown points lie flat."""
        return _projected(self.backward, points)

    def carry(self, points: Points, vectors: Points) -> tuple[Points, Points]:
        """Return where flat points show, and directions there (the quotient rule)."""
        h = self.forward
        weight = points @ h[2, :2] + h[2, 2]
        shown = self.map(points)
        pushed = vectors @ h[:2, :2].T - shown * (vectors @ h[2, :2])[:, None]
        return shown, pushed / weight[:, None]


def cell_error_mm(warp: SurfaceWarp, width_mm: float, height_mm: float) -> float:
    """Return how far a picture that is cut into cells, each mapped straight, is off the surface at its worst point."""
    across, down = warp.cells
    half = np.array([width_mm / across, height_mm / down]) / 2
    grid = np.meshgrid((np.arange(across) * 2 + 1) * half[0], (np.arange(down) * 2 + 1) * half[1])
    middles = np.stack([axis.ravel() for axis in grid], axis=1)
    shown, along = warp.carry(middles, np.tile([1.0, 0.0], (len(middles), 1)))
    _, aside = warp.carry(middles, np.tile([0.0, 1.0], (len(middles), 1)))
    worst = 0.0
    for x, y in ((-1, -1), (1, -1), (1, 1), (-1, 1)):
        straight = shown + along * (x * half[0]) + aside * (y * half[1])
        off = warp.map(middles + (x, y) * half) - straight
        worst = max(worst, float(np.hypot(off[:, 0], off[:, 1]).max()))
    return worst


def _projected(matrix: npt.NDArray[np.float64], points: Points) -> Points:
    lifted = points @ matrix[:, :2].T + matrix[:, 2]
    projected: Points = lifted[:, :2] / lifted[:, 2:]
    return projected
