"""Surfaces: how what lies flat in an area shows on goods that aren't; both ways, in mm of the area.

Production stays flat; only what a customer sees is bent.
"""

import math
from dataclasses import dataclass
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
        strips = max(8, math.ceil(cylinder.span_deg / 4))
        radius = length / math.radians(cylinder.span_deg)
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
    cells: tuple[int, int] = (12, 12)

    @classmethod
    def of(cls, area: Area) -> "CornersWarp":
        """Return the map of an area's four corners (the eight equations of the four pairs of points)."""
        flat = ((0.0, 0.0), (area.width_mm, 0.0), (area.width_mm, area.height_mm), (0.0, area.height_mm))
        rows, values = [], []
        for (x, y), (u, v) in zip(flat, area.shown_corners(), strict=True):
            rows += [[x, y, 1, 0, 0, 0, -u * x, -u * y], [0, 0, 0, x, y, 1, -v * x, -v * y]]
            values += [u, v]
        forward = np.append(np.linalg.solve(np.array(rows), np.array(values)), 1.0).reshape(3, 3)
        return cls(forward, np.linalg.inv(forward))

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


def _projected(matrix: npt.NDArray[np.float64], points: Points) -> Points:
    lifted = points @ matrix[:, :2].T + matrix[:, 2]
    projected: Points = lifted[:, :2] / lifted[:, 2:]
    return projected
