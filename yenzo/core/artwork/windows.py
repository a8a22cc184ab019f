"""Windows: a picture of goods with transparency comes in; the outlines of its holes, in pixels, go out."""

import io

import contourpy
import numpy as np
import shapely
from PIL import Image

from yenzo.core.shapes.fitting import fit_ring
from yenzo.core.shapes.outline import Outline, Points

HALF = 127.5
# Below this share of the picture a hole is a speck, and more holes than this are no windows.
LEAST_SHARE = 0.0005
MOST_WINDOWS = 12


def find_windows(data: bytes, tolerance_px: float) -> tuple[Outline, ...]:
    """Return the holes of a picture as smooth outlines within a tolerance, largest first; none without transparency.

    A hole is transparent, has opaque goods all around it, and isn't what lies around the goods.
    """
    with Image.open(io.BytesIO(data), formats=("PNG", "WEBP")) as picture:
        alpha = np.asarray(picture.convert("RGBA").getchannel("A"), dtype=np.float64)
    # A frame of nothing around it closes every line; pixels are told by their middles.
    padded = np.pad(alpha, 1)
    found = []
    for line in contourpy.contour_generator(z=padded).lines(HALF):
        ring = np.asarray(line)[:-1] - 0.5
        if len(ring) < 8:
            continue
        polygon = shapely.Polygon(ring).buffer(0)
        if polygon.area < LEAST_SHARE * alpha.size:
            continue
        if np.median(_just_inside(alpha, ring)) < HALF:
            found.append((polygon.area, ring))
    found.sort(key=lambda one: -one[0])
    return tuple(fit_ring(ring, tolerance_px) for _, ring in found[:MOST_WINDOWS])


def _just_inside(alpha: Points, ring: Points) -> Points:
    """Return the opacity a pixel and a half inside a ring, at some places all around it."""
    following = np.roll(ring, -1, axis=0)
    area = np.sum(ring[:, 0] * following[:, 1] - following[:, 0] * ring[:, 1])
    chosen = np.linspace(0, len(ring) - 1, 40).astype(int)
    along = ring[(chosen + 2) % len(ring)] - ring[chosen - 2]
    lengths = np.maximum(np.hypot(along[:, 0], along[:, 1]), 1e-9)
    inward = np.column_stack([-along[:, 1], along[:, 0]]) / lengths[:, None] * np.sign(area)
    places = np.floor(ring[chosen] + 1.5 * inward).astype(int)
    rows, columns = (np.clip(places[:, 1 - axis], 0, alpha.shape[axis] - 1) for axis in (0, 1))
    opacity: Points = alpha[rows, columns]
    return opacity
