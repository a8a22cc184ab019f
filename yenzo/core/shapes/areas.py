"""Shapes of imprint areas: an area of a set-up comes in, its outlines in its own mm go out.

Everything here depends on the set-up alone, so it is kept.
"""

import math
from functools import lru_cache

import numpy as np
import shapely
from fontTools.pens.basePen import BasePen
from fontTools.svgLib.path import parse_path

from yenzo.core.documents.areas import Area, Ellipse, FreePath, Polygon, Rectangle, Ring
from yenzo.core.shapes.box import Box
from yenzo.core.shapes.matrix import Matrix
from yenzo.core.shapes.outline import Outline
from yenzo.core.shapes.polygons import grown, polygon_of

# Arcs are drawn by cubics of at most this angle: off the circle by less than a millionth of its radius.
MOST_ARC_DEG = 30.0
GRID = 48
RATIO_GRID, RATIO_ROUNDS = 18, 11


@lru_cache(maxsize=512)
def trim_outline(area: Area) -> Outline:
    """Return the outline of the area itself."""
    wide, high = area.width_mm, area.height_mm
    match area.shape:
        case Rectangle(corner_mm=corner_mm):
            return rounded_rectangle(Box(0, 0, wide, high), corner_mm)
        case Ellipse():
            return arc_outline(0, 360, Matrix(wide / 2, 0, 0, high / 2, wide / 2, high / 2))
        case Ring() as ring:
            return _ring(ring, wide, high)
        case Polygon(points=points):
            corners = np.array(points, dtype=np.float64) * (wide, high)
            return Outline("M" + "L" * (len(points) - 1) + "Z", corners)
        case FreePath(data=data):
            return path_outline(data).mapped(Matrix(wide, 0, 0, high, 0, 0))


@lru_cache(maxsize=512)
def bleed_outline(area: Area) -> Outline:
    """Return the area with its bleed around it."""
    if area.is_frame:
        return Outline.rectangle(Box(0, 0, area.width_mm, area.height_mm).grown(area.bleed_mm))
    return grown(trim_outline(area), area.bleed_mm)


@lru_cache(maxsize=512)
def safe_outline(area: Area) -> Outline:
    """Return the area without its safe margin; empty when nothing is left."""
    if area.is_frame:
        return Outline.rectangle(Box(0, 0, area.width_mm, area.height_mm).grown(-area.safe_mm))
    return grown(trim_outline(area), -area.safe_mm)


@lru_cache(maxsize=512)
def place_on_side(area: Area) -> Matrix:
    """Return the map from an area's mm to its side's: turned about the middle of its frame, moved to its place."""
    shift = Matrix.shift(area.x_mm, area.y_mm)
    if not area.turn_deg:
        return shift
    return Matrix.about(area.width_mm / 2, area.height_mm / 2, turn_deg=area.turn_deg, scale=1).then(shift)


def box_on_side(area: Area) -> Box:
    """Return the box of an area's own shape on its side, turned as it is."""
    box = trim_outline(area).mapped(place_on_side(area)).bounds
    assert box is not None
    return box


@lru_cache(maxsize=512)
def text_box(area: Area) -> Box:
    """Return the box that a text fills: the largest upright one inside the safe margin."""
    box = Box(0, 0, area.width_mm, area.height_mm).grown(-area.safe_mm)
    if isinstance(area.shape, Rectangle):
        # Letters stay out of round corners without losing the whole edge.
        return box.grown(-max(0.0, area.shape.corner_mm - area.safe_mm) * (1 - math.sqrt(0.5)))
    return _largest_box(safe_outline(area)) or box


def box_of_ratio(area: Area, ratio: float) -> Box:
    """Return the largest upright box of a ratio (width to height) inside the safe margin of any shape.

    The ratio is taken to about a hundredth, so that boxes of texts that are alike are found once.
    """
    return _box_of_ratio(area, round(math.log(max(ratio, 1e-3)) * 64))


@lru_cache(maxsize=2048)
def _box_of_ratio(area: Area, log_ratio: int) -> Box:
    ratio = math.exp(log_ratio / 64)
    outline = safe_outline(area)
    bounds = outline.bounds
    if bounds is None:
        return text_box(area)
    polygon = polygon_of(outline).buffer(1e-6)
    shapely.prepare(polygon)
    low, high = 0.0, min(bounds.height, bounds.width / ratio)
    x, y = bounds.middle
    middles = np.array([[x, y]])
    steps = np.linspace(0.5 / RATIO_GRID, 1 - 0.5 / RATIO_GRID, RATIO_GRID)
    across, down = np.meshgrid(bounds.left + steps * bounds.width, bounds.top + steps * bounds.height)
    # The middle comes first, so that what fits there stands there.
    middles = np.concatenate([middles, np.column_stack([across.ravel(), down.ravel()])])
    for _ in range(RATIO_ROUNDS):
        height = (low + high) / 2
        half = np.array([height * ratio / 2, height / 2])
        fits = shapely.contains(polygon, shapely.box(*(middles - half).T, *(middles + half).T))
        if fits.any():
            low, (x, y) = height, middles[int(fits.argmax())]
        else:
            high = height
    return Box(x - low * ratio / 2, y - low / 2, x + low * ratio / 2, y + low / 2)


def rounded_rectangle(box: Box, radius_mm: float) -> Outline:
    """Return a box with round corners."""
    radius = min(radius_mm, box.width / 2, box.height / 2)
    if radius <= 0:
        return Outline.rectangle(box)
    corners = (
        (box.right - radius, box.top + radius, 270),
        (box.right - radius, box.bottom - radius, 0),
        (box.left + radius, box.bottom - radius, 90),
        (box.left + radius, box.top + radius, 180),
    )
    runs = [_arc_points(start, 90) * radius + (x, y) for x, y, start in corners]
    return _closed(runs)


def arc_outline(start_deg: float, spread_deg: float, matrix: Matrix) -> Outline:
    """Return a part of the unit circle, closed by its chord, under an affine map."""
    return _closed([_arc_points(start_deg, spread_deg)]).mapped(matrix)


def path_outline(data: str) -> Outline:
    """Return path data of SVG as an outline; curves of every kind become cubics, contours are closed."""
    pen = OutlinePen()
    parse_path(data, pen)
    return pen.outline()


def _ring(ring: Ring, wide: float, high: float) -> Outline:
    to_frame = Matrix(min(wide, high) / 2, 0, 0, min(wide, high) / 2, wide / 2, high / 2)
    outer = _arc_points(ring.start_deg, ring.spread_deg)
    if ring.spread_deg >= 360:
        whole = _closed([outer])
        hole = _closed([_arc_points(ring.start_deg, 360)[::-1] * ring.hole])
        return Outline.joined([whole, hole] if ring.hole else [whole]).mapped(to_frame)
    inner = _arc_points(ring.start_deg, ring.spread_deg)[::-1] * ring.hole
    return _closed([outer, inner] if ring.hole else [outer, np.zeros((1, 2))]).mapped(to_frame)


def _arc_points(start_deg: float, spread_deg: float) -> np.ndarray:
    """Return a unit arc as an end, then two controls and an end for each cubic (Riskus' 4/3 tan of a quarter angle)."""
    count = math.ceil(spread_deg / MOST_ARC_DEG)
    step = math.radians(spread_deg / count)
    reach = 4 / 3 * math.tan(step / 4)
    points = [(math.cos(math.radians(start_deg)), math.sin(math.radians(start_deg)))]
    for index in range(count):
        first = math.radians(start_deg) + index * step
        last = first + step
        points += [
            (math.cos(first) - reach * math.sin(first), math.sin(first) + reach * math.cos(first)),
            (math.cos(last) + reach * math.sin(last), math.sin(last) - reach * math.cos(last)),
            (math.cos(last), math.sin(last)),
        ]
    return np.array(points)


def _closed(runs: list[np.ndarray]) -> Outline:
    """Return runs of cubics, joined by straight lines, as one closed contour."""
    verbs = "".join(("L" if at else "M") + "C" * ((len(run) - 1) // 3) for at, run in enumerate(runs))
    return Outline(verbs + "Z", np.concatenate(runs))


class OutlinePen(BasePen):  # type: ignore[misc]
    """Collects an outline by fontTools' pen protocol, which turns quadratic curves and arcs into cubics by itself."""

    def __init__(self) -> None:
        super().__init__(None)
        self._verbs: list[str] = []
        self._points: list[tuple[float, float]] = []

    def _moveTo(self, pt: tuple[float, float]) -> None:  # noqa: N802 - the protocol's name
        self._verbs.append("M")
        self._points.append(pt)

    def _lineTo(self, pt: tuple[float, float]) -> None:  # noqa: N802
        self._verbs.append("L")
        self._points.append(pt)

    def _curveToOne(self, pt1: tuple[float, float], pt2: tuple[float, float], pt3: tuple[float, float]) -> None:  # noqa: N802
        self._verbs.append("C")
        self._points += (pt1, pt2, pt3)

    def _closePath(self) -> None:  # noqa: N802
        self._verbs.append("Z")

    def _endPath(self) -> None:  # noqa: N802
        self._verbs.append("Z")

    def outline(self) -> Outline:
        """Return what was drawn."""
        return Outline("".join(self._verbs), np.array(self._points, dtype=np.float64).reshape(-1, 2))


def _largest_box(outline: Outline) -> Box | None:
    """Return the largest upright box inside an outline, to the width of a grid of 48 cells."""
    bounds = outline.bounds
    if bounds is None:
        return None
    polygon = polygon_of(outline)
    xs = np.linspace(bounds.left, bounds.right, GRID + 1)
    ys = np.linspace(bounds.top, bounds.bottom, GRID + 1)
    shapely.prepare(polygon)
    inside = shapely.contains_xy(polygon.buffer(1e-6), *np.meshgrid(xs, ys))
    # A cell counts when all its corners do.
    cells = inside[:-1, :-1] & inside[1:, :-1] & inside[:-1, 1:] & inside[1:, 1:]
    best, found = 0.0, None
    heights = np.zeros(GRID, dtype=int)
    for row in range(GRID):
        heights = np.where(cells[row], heights + 1, 0)
        for left in range(GRID):
            lowest = GRID
            for right in range(left, GRID):
                lowest = min(lowest, int(heights[right]))
                if not lowest:
                    break
                size = lowest * (right - left + 1)
                if size > best:
                    best, found = size, (left, right + 1, row + 1 - lowest, row + 1)
    if found is None:
        return None
    left, right, top, bottom = found
    box = Box(float(xs[left]), float(ys[top]), float(xs[right]), float(ys[bottom]))
    return box if shapely.box(*box).within(polygon.buffer(1e-3)) else box.grown(-min(box.width, box.height) * 0.05)
