"""Edges as base lines: an area comes in, the smooth closed path inside its edge that a text can follow goes out."""

import math
from functools import lru_cache

import numpy as np
import shapely
from shapely.geometry.base import BaseGeometry

from yenzo.core.documents.areas import Area
from yenzo.core.shapes.areas import trim_outline
from yenzo.core.shapes.fitting import fit_ring
from yenzo.core.shapes.paths import CurvePath
from yenzo.core.shapes.polygons import polygon_of

TOLERANCE_MM, STEP_MM = 0.02, 0.5
QUARTER_SEGMENTS = 64


@lru_cache(maxsize=512)
def edge_path(area: Area, inset_mm: float, corner_mm: float, middle_deg: float, *, tops_out: bool) -> CurvePath | None:
    """Return the line inside an area's edge by this much, its corners rounded; None where there is no room for it.

    Half of it lies before and half after the point that is seen from the area's middle at an angle (0 right, 90 below).
    Tops of letters point out or in.
    """
    inside = _buffered(polygon_of(trim_outline(area)), -inset_mm)
    smooth = _buffered(_buffered(inside, -corner_mm), corner_mm)
    parts = [part for part in getattr(smooth, "geoms", [smooth]) if part.area > 0]
    if not parts:
        return None
    # As y points down, GEOS's clockwise is counterclockwise to the eye.
    polygon = shapely.orient_polygons(max(parts, key=lambda part: part.area), exterior_cw=not tops_out)
    dense = shapely.segmentize(polygon.exterior, STEP_MM)
    path = CurvePath.around(fit_ring(shapely.get_coordinates(dense)[:-1], TOLERANCE_MM))
    at = path.length_mm * _share_at(path, polygon, middle_deg)
    return CurvePath(path.curves, closed=True, start_mm=(at - path.length_mm / 2) % path.length_mm)


def _buffered(polygon: BaseGeometry, by_mm: float) -> BaseGeometry:
    return polygon.buffer(by_mm, quad_segs=QUARTER_SEGMENTS)


def _share_at(path: CurvePath, polygon: BaseGeometry, middle_deg: float) -> float:
    """Return how far along the path, from 0 to 1, it is seen from its middle at an angle."""
    shares = np.linspace(0, 1, 721)[:-1]
    points, _, _ = path.at(shares * path.length_mm)
    left, top, right, bottom = polygon.bounds
    seen = np.arctan2(points[:, 1] - (top + bottom) / 2, points[:, 0] - (left + right) / 2)
    away = np.abs(np.angle(np.exp(1j * (seen - math.radians(middle_deg)))))
    return float(shares[away.argmin()])
