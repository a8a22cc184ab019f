"""By hand: where a placement puts something, and what hands did with it, come in; where it can lie goes out.

Texts and fitted artwork stay inside their room, covering artwork never uncovers its area. What is turned is made as
small, or as large, as it then must be; if that isn't possible it is turned less.
"""

from collections.abc import Callable, Iterable
from functools import lru_cache
from typing import Any, Protocol

import numpy as np
import shapely
from shapely.geometry.base import BaseGeometry

from yenzo.core.documents.areas import Area
from yenzo.core.documents.effects import ColorSource
from yenzo.core.documents.entries import UNTOUCHED, Adjustment
from yenzo.core.documents.freedoms import Freedoms, Scaling
from yenzo.core.documents.placements import AlignedText, AnyText, BlockPlacement, TypefaceSource
from yenzo.core.scene.moved import Moved, Polygon, Stop
from yenzo.core.scene.nodes import Node
from yenzo.core.shapes.areas import bleed_outline, safe_outline
from yenzo.core.shapes.box import Box
from yenzo.core.shapes.matrix import Matrix
from yenzo.core.shapes.outline import Outline, Points
from yenzo.core.shapes.polygons import points_on, polygon_of

# Nobody sees it, and preflight lets as much pass.
NEAR_MM = 0.002
# How often a size or a turn is halved until it is what is just possible.
HALVINGS = 16
# What is covered again by growing, and shrunk to fit, at most.
LEAST_SCALE, MOST_SCALE = 0.02, 20.0
CONVEX_SHARE = 1e-6
# What bent edges of a room are taken to; how far anything could be moved.
COARSE_MM, FAR_MM = 0.05, 1e4

Shift = tuple[float, float]


def as_adjusted(text: AnyText, adjustment: Adjustment) -> AnyText:
    """Return a text's placement with the typeface, color, alignment and letter height that hands gave it."""
    changed: dict[str, Any] = {}
    if adjustment.typeface is not None:
        changed["typeface"] = TypefaceSource(fixed=adjustment.typeface)
    if adjustment.color is not None:
        changed["color"] = adjusted_color(text, adjustment)
    if adjustment.align is not None and isinstance(text, AlignedText | BlockPlacement):
        changed["align"] = adjustment.align
    if adjustment.letter_mm is not None:
        changed |= {"least_mm": min(text.least_mm, adjustment.letter_mm), "most_mm": adjustment.letter_mm}
    return text.model_copy(update=changed) if changed else text


def adjusted_color(placement: Any, adjustment: Adjustment) -> ColorSource | None:
    """Return the color of a placement as hands changed it, or its own."""
    if adjustment.color is None:
        own: ColorSource | None = placement.color
        return own
    return ColorSource(palette=placement.free.palette, color=adjustment.color)


class Containment(Protocol):
    """Where something may lie."""

    def nearest(self, points: Points, wanted: Shift) -> Shift | None:
        """Return the shift, as near as can be to the wanted one, that leaves points where they may lie; or None."""
        ...

    def shifts(self, points: Points) -> Polygon:
        """Return the polygon of all shifts that do."""
        ...


class BoxContainment:
    """An upright rectangle that points stay in."""

    def __init__(self, box: Box) -> None:
        self._low, self._high = np.array(box[:2]), np.array(box[2:])

    def _span(self, points: Points) -> tuple[Points, Points] | None:
        low, high = self._low - points.min(axis=0), self._high - points.max(axis=0)
        if (low > high + 2 * NEAR_MM).any():
            return None
        # What fills its room just so is as wide as it but for rounding.
        middle = (low + high) / 2
        return np.minimum(low, np.maximum(middle, high)), np.maximum(high, np.minimum(middle, low))

    def nearest(self, points: Points, wanted: Shift) -> Shift | None:
        """Return the nearest shift that keeps points in the box."""
        span = self._span(points)
        if span is None:
            return None
        low, high = np.minimum(*span), np.maximum(*span)
        x, y = np.clip(np.array(wanted), low, high)
        return float(x), float(y)

    def shifts(self, points: Points) -> Polygon:
        """Return the corners of the rectangle of all shifts."""
        span = self._span(points)
        if span is None:
            return ()
        (left, top), (right, bottom) = np.minimum(*span).tolist(), np.maximum(*span).tolist()
        return ((left, top), (right, top), (right, bottom), (left, bottom))


class ConvexContainment:
    """A convex outline that points stay in."""

    def __init__(self, polygon: BaseGeometry) -> None:
        # Corners that are left out of a convex outline only make it smaller.
        self._corners = shapely.get_coordinates(polygon.simplify(COARSE_MM).exterior)[:-1]
        edges = np.roll(self._corners, -1, axis=0) - self._corners
        normals = np.stack([edges[:, 1], -edges[:, 0]], axis=1) / np.linalg.norm(edges, axis=1)[:, None]
        out = np.sign((normals * (self._corners - self._corners.mean(axis=0))).sum(axis=1))
        self._normals = normals * out[:, None]
        self._reach = (self._normals * self._corners).sum(axis=1)

    def _all(self, points: Points) -> Points:
        """Return the corners of all shifts: on the inner side of each edge, by as much as the points reach beyond it.

        A rectangle that is large enough is cut by the edge that it leaves most, until it leaves none.
        """
        reach = self._reach - (points @ self._normals.T).max(axis=0) + NEAR_MM
        corners = np.array([(-FAR_MM, -FAR_MM), (FAR_MM, -FAR_MM), (FAR_MM, FAR_MM), (-FAR_MM, FAR_MM)])
        while len(corners):
            beyond = (corners @ self._normals.T).max(axis=0) - reach
            worst = int(beyond.argmax())
            if beyond[worst] <= NEAR_MM / 2:
                break
            corners = _cut(corners, corners @ self._normals[worst] - reach[worst])
        return corners

    def nearest(self, points: Points, wanted: Shift) -> Shift | None:
        """Return the nearest shift that keeps points in the outline."""
        corners = self._all(points)
        if not len(corners):
            return None
        found, to = shapely.MultiPoint(corners).convex_hull, shapely.Point(wanted)
        if found.covers(to):
            return wanted
        x, y = shapely.get_coordinates(shapely.shortest_line(found, to))[0].tolist()
        return x, y

    def shifts(self, points: Points) -> Polygon:
        """Return the corners of the polygon of all shifts."""
        return tuple((x, y) for x, y in self._all(points).tolist())


def _cut(corners: Points, beyond: Points) -> Points:
    """Return a convex polygon without what lies beyond a line; `beyond` is by how much each corner does."""
    before, beyond_before = np.roll(corners, 1, axis=0), np.roll(beyond, 1)
    crosses = (beyond > 0) != (beyond_before > 0)
    shares = beyond_before / np.where(crosses, beyond_before - beyond, 1.0)
    crossings = before + shares[:, None] * (corners - before)
    # Each corner that stays comes after the crossing, if there is one, on the way to it.
    both = np.stack([crossings, corners], axis=1).reshape(-1, 2)
    kept: Points = both[np.stack([crosses, beyond <= 0], axis=1).ravel()]
    return kept


class OutlineContainment:
    """Any outline that points stay in: what sticks out goes back the way that it came."""

    def __init__(self, polygon: BaseGeometry) -> None:
        self._polygon = polygon.buffer(NEAR_MM)
        shapely.prepare(self._polygon)

    def _holds(self, points: Points, shift: Points) -> bool:
        return bool(shapely.contains_xy(self._polygon, points + shift).all())

    def nearest(self, points: Points, wanted: Shift) -> Shift | None:
        """Return the last shift on the straight way to the wanted one that keeps points in the outline."""
        to = np.array(wanted)
        if self._holds(points, to):
            return wanted
        if not self._holds(points, np.zeros(2)):
            return None
        x, y = to * _last(lambda share: self._holds(points, to * share))
        return float(x), float(y)

    def shifts(self, points: Points) -> Polygon:  # noqa: ARG002 - not known here
        """Return nothing: where it could lie has no simple edge."""
        return ()


class CoverContainment:
    """An outline that stays covered by a turned rectangle, whose corners the points are, in order."""

    def __init__(self, outline: Outline) -> None:
        self._points = shapely.get_coordinates(polygon_of(outline).convex_hull)

    def _spans(self, corners: Points) -> tuple[Points, Points, Points] | None:
        """Return the rectangle's directions, and from where to where it may be moved along each."""
        sides = np.stack([corners[1] - corners[0], corners[3] - corners[0]])
        lengths = np.linalg.norm(sides, axis=1)
        along = sides / lengths[:, None]
        covered = self._points @ along.T
        begins = along @ corners[0]
        low, high = covered.max(axis=0) - begins - lengths, covered.min(axis=0) - begins
        return (along, low, high) if (low <= high + 2 * NEAR_MM).all() else None

    def nearest(self, points: Points, wanted: Shift) -> Shift | None:
        """Return the nearest shift at which the rectangle covers the outline."""
        spans = self._spans(points)
        if spans is None:
            return None
        along, low, high = spans
        x, y = np.clip(along @ np.array(wanted), np.minimum(low, high), np.maximum(low, high)) @ along
        return float(x), float(y)

    def shifts(self, points: Points) -> Polygon:
        """Return the corners of the rectangle of all shifts."""
        spans = self._spans(points)
        if spans is None:
            return ()
        along, low, high = spans
        ends = ((low[0], low[1]), (high[0], low[1]), (high[0], high[1]), (low[0], high[1]))
        return tuple((float(x), float(y)) for x, y in (np.array(end) @ along for end in ends))


@lru_cache(maxsize=256)
def text_containment(area: Area) -> Containment:
    """Return where texts of an area may lie: inside its safe margin."""
    if area.is_frame:
        return BoxContainment(_frame(area).grown(-area.safe_mm))
    polygon = polygon_of(safe_outline(area))
    if polygon.geom_type != "Polygon" or not polygon.area:
        return OutlineContainment(polygon)
    is_convex = polygon.convex_hull.area - polygon.area <= CONVEX_SHARE * polygon.area
    return ConvexContainment(polygon) if is_convex else OutlineContainment(polygon)


def artwork_containment(area: Area, *, covers: bool) -> Containment:
    """Return where artwork may lie: so that it covers the area with its bleed, or inside the safe margin."""
    return CoverContainment(bleed_outline(area)) if covers else BoxContainment(_frame(area).grown(-area.safe_mm))


def _frame(area: Area) -> Box:
    return Box(0, 0, area.width_mm, area.height_mm)


def text_points(outlines: list[Outline], containment: Containment, scale: float) -> Points:
    """Return the points of inked outlines that keep all of them in a room when they are in it, at this scale too."""
    larger = max(scale, 1.0)
    scaled = outlines if larger == 1 else [one.mapped(Matrix(larger, 0, 0, larger)) for one in outlines]
    points = np.concatenate([points_on(one) for one in scaled]) / larger
    # Of few points a hull costs more than it spares.
    if not isinstance(containment, ConvexContainment) or len(points) < 3:
        return points
    hull: Points = shapely.get_coordinates(shapely.MultiPoint(points).convex_hull)
    return hull


def settle(
    start: Box,
    points: Points,
    containment: Containment,
    wanted: Adjustment,
    free: Freedoms,
    *,
    bounds: Scaling | None = None,
    is_own: bool = False,
) -> Moved:
    """Return where something lies that hands changed, as near to what they wanted as its room allows.

    What a placement put there and nobody touched stays, whether it finds room or not: preflight tells. Items of
    customers' own (`is_own`) always come to lie in their room.

    `points` keep it in its room where its placement puts it (of a rectangle that covers, its corners). `bounds` are
    the sizes that it may be given to make room, beside those that are free.
    """
    if not is_own and _with_geometry(wanted, UNTOUCHED) == wanted:
        return Moved(free, wanted, start, Matrix(), containment.shifts(points) if free.move else ())
    sizes = _sizes(free, bounds)

    def scale_at(turn_deg: float, scale: float) -> float | None:
        """Return the size nearest to a wanted one that finds room when turned by an angle; None if none does."""

        def fits(one: float) -> bool:
            """Tell whether there is any room for it at a size."""
            at = _placed(points, start, turn_deg, one)
            return containment.nearest(at, wanted.shift_mm) is not None

        end = sizes.most if isinstance(containment, CoverContainment) else sizes.least
        if fits(scale):
            return scale
        if not fits(end):
            return None
        share = _last(lambda part: fits(end + (scale - end) * part))
        return end + (scale - end) * share

    turn_deg, scale = wanted.turn_deg, scale_at(wanted.turn_deg, wanted.scale)
    stops: list[Stop] = []
    if scale is None and turn_deg:
        turn_deg = turn_deg * _last(lambda share: scale_at(turn_deg * share, wanted.scale) is not None)
        scale = scale_at(turn_deg, wanted.scale)
        stops.append("turn")
    if scale is None:
        # There is no room where its placement puts it: preflight tells of that, and nobody moves it.
        return Moved(free, _with_geometry(wanted, UNTOUCHED), start, Matrix(), (), ("size",))
    at = _placed(points, start, turn_deg, scale)
    shift = containment.nearest(at, wanted.shift_mm) or (0.0, 0.0)
    if abs(scale - wanted.scale) > 1e-6:
        stops.append("size")
    if max(abs(a - b) for a, b in zip(shift, wanted.shift_mm, strict=True)) > NEAR_MM:
        stops.append("edge")
    settled = Adjustment(shift_mm=shift, turn_deg=turn_deg, scale=scale if free.scale else 1)
    matrix = Matrix.about(*start.middle, turn_deg=turn_deg, scale=scale).then(Matrix.shift(*shift))
    shifts = containment.shifts(at) if free.move else ()
    return Moved(free, _with_geometry(wanted, settled), start, matrix, shifts, tuple(stops))


def _with_geometry(adjustment: Adjustment, by: Adjustment) -> Adjustment:
    """Return an adjustment with the shift, turn and scale of another one."""
    return adjustment.model_copy(update={name: getattr(by, name) for name in ("shift_mm", "turn_deg", "scale")})


def settle_artwork(
    area: Area, start: Box, wanted: Adjustment, free: Freedoms, *, covers: bool, is_own: bool = False
) -> Moved:
    """Return where artwork lies whose placement puts it into a box."""
    corners = np.array([start[:2], (start.right, start.top), start[2:], (start.left, start.bottom)])
    bounds = Scaling(least=1, most=MOST_SCALE) if covers else Scaling(least=LEAST_SCALE, most=1)
    return settle(start, corners, artwork_containment(area, covers=covers), wanted, free, bounds=bounds, is_own=is_own)


def stacked(nodes: Iterable[Node]) -> tuple[Node, ...]:
    """Return what lies in an area in painting order: as placed, but for what hands put above or below others."""

    def order(at: tuple[int, Node]) -> float:
        """Return where something stands among all that lies there."""
        index, node = at
        level = node.moved.adjustment.level if node.moved else 0
        # What goes a step up changes places with its neighbor: it must come to lie beyond it.
        return index + level + (0.5 if level > 0 else -0.5 if level < 0 else 0)

    return tuple(node for _, node in sorted(enumerate(nodes), key=order))


def _sizes(free: Freedoms, bounds: Scaling | None) -> Scaling:
    least = min(bounds.least if bounds else 1, free.scale.least if free.scale else 1)
    most = max(bounds.most if bounds else 1, free.scale.most if free.scale else 1)
    return Scaling(least=max(least, LEAST_SCALE), most=most)


def _placed(points: Points, start: Box, turn_deg: float, scale: float) -> Points:
    matrix = Matrix.about(*start.middle, turn_deg=turn_deg, scale=scale)
    linear = np.array([[matrix.a, matrix.b], [matrix.c, matrix.d]])
    placed: Points = points @ linear + (matrix.e, matrix.f)
    return placed


def _last(holds: Callable[[float], bool]) -> float:
    """Return the largest share up to 1, found by halving, for which something holds that holds for 0."""
    low, high = 0.0, 1.0
    for _ in range(HALVINGS):
        middle = (low + high) / 2
        low, high = (middle, high) if holds(middle) else (low, middle)
    return low
