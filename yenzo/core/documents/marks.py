"""Marks: what can be taken by the hand of an area or of a text's base line, and what moving one changes.

A mark stands at a point in mm of its area (its frame unturned). Moving one gives new values of the part that it belongs
to, as a document has them; a hand that goes where nothing could be gets the nearest that can.
"""

import math
import re
from collections.abc import Iterator
from dataclasses import dataclass
from typing import Any

from yenzo.core.documents.areas import Area, Cylinder, FourCorners, FreePath, Polygon, Rectangle, Ring
from yenzo.core.documents.free_paths import moved_node, read_path, with_node, without_node, write_path
from yenzo.core.documents.placements import AnyPlacement, ArcPlacement, CurvePlacement, LinePlacement

LEAST_MM, LEAST_SPREAD_DEG = 1.0, 5.0
MOST_SPAN_DEG, MOST_TILT_DEG = 178.0, 60.0
# Where the knob stands that turns a frame: above it, as a share of its height.
KNOB_SHARE = 0.14
# The mark that takes all of a base line or curve along.
WHOLE = "whole"
PLACES = 3
# Of a found outline with more points nothing could be taken by the hand: they lie over each other.
MOST_NODES = 40

Values = dict[str, Any]


@dataclass(frozen=True)
class Mark:
    """A point that can be moved: its name, where it is, what it is called, and whether points can come and go there."""

    name: str
    x_mm: float
    y_mm: float
    words: str
    is_point: bool = False


def lies_on_surface(mark: str) -> bool:
    """Tell whether a mark shows where its area's surface bends it, and not where it lies flat."""
    return mark not in {"turn", "span", "tilt"} and re.fullmatch(r"c\d", mark) is None


def area_marks(area: Area) -> Iterator[Mark]:
    """Yield the marks of an area's shape, its turn, and its surface."""
    wide, high = area.width_mm, area.height_mm
    yield Mark("turn", wide / 2, -high * KNOB_SHARE, f"Turned by {area.turn_deg:g}°")
    match area.shape:
        case Rectangle(corner_mm=corner):
            yield Mark("corner", max(corner, 0.0), 0.0, f"Corners rounded by {corner:g} mm")
        case Ring() as ring:
            yield from _ring_marks(ring, wide, high)
        case Polygon(points=points):
            for index, (x, y) in enumerate(points):
                yield Mark(f"p{index}", x * wide, y * high, f"Corner {index + 1}", is_point=True)
        case FreePath(data=data):
            yield from _path_marks(data, wide, high)
    match area.surface:
        case FourCorners():
            names = ("top left", "top right", "bottom right", "bottom left")
            for index, ((x, y), name) in enumerate(zip(area.shown_corners(), names, strict=True)):
                yield Mark(f"c{index}", x, y, f"Where the {name} corner shows")
        case Cylinder(span_deg=span, tilt_deg=tilt):
            yield Mark("span", wide / 2 * (1 + span / MOST_SPAN_DEG), high / 2, f"Goes round by {span:g}°")
            yield Mark("tilt", wide / 2, high / 2 * (1 + tilt / MOST_TILT_DEG), f"Seen from above by {tilt:g}°")


def text_marks(placement: AnyPlacement) -> Iterator[Mark]:
    """Yield the marks of a text's base line, arc or curve."""
    middle = _middle(placement)
    if middle is not None:
        yield Mark(WHOLE, *middle, "All of the line")
    match placement:
        case LinePlacement(base_line=base) if base is not None:
            x, y = _on_circle(base.x_mm, base.y_mm, base.length_mm, base.angle_deg)
            yield Mark("start", base.x_mm, base.y_mm, "Where the base line starts")
            yield Mark("end", x, y, f"Where the base line ends, {base.length_mm:g} mm long")
        case ArcPlacement() as arc:
            yield Mark("center", arc.x_mm, arc.y_mm, "Middle of the circle")
            middle = _on_circle(arc.x_mm, arc.y_mm, arc.radius_mm, arc.middle_deg)
            yield Mark("radius", *middle, f"Radius {arc.radius_mm:g} mm, middle at {arc.middle_deg:g}°")
            for name, way in (("from", -0.5), ("to", 0.5)):
                at = _on_circle(arc.x_mm, arc.y_mm, arc.radius_mm, arc.middle_deg + way * arc.spread_deg)
                yield Mark(name, *at, f"Spread over {arc.spread_deg:g}°")
        case CurvePlacement(points=points):
            for index, (x, y) in enumerate(points):
                words = f"Point {index // 3 + 1}" if index % 3 == 0 else f"Control {index}"
                yield Mark(f"p{index}", x, y, words, is_point=index % 3 == 0)


def whole_mark(placement: AnyPlacement) -> str | None:
    """Return the mark that takes all of a text along; None for one that lies where its area wants it."""
    if isinstance(placement, ArcPlacement):
        return "center"
    return WHOLE if _middle(placement) is not None else None


def moved_area_mark(area: Area, name: str, x_mm: float, y_mm: float) -> Values:
    """Return what an area has once a mark of it is at a point; nothing for a mark that isn't there."""
    wide, high = area.width_mm, area.height_mm
    shape, surface = area.shape, area.surface
    if name == "turn":
        # The knob stands above the middle of an unturned frame, and the frame turns after it.
        by = math.degrees(math.atan2(x_mm - wide / 2, high / 2 - y_mm))
        return {"turn_deg": round(_half_turn(area.turn_deg + by), PLACES)}
    if name == "corner" and isinstance(shape, Rectangle):
        return {"shape": {"kind": "rectangle", "corner_mm": round(min(max(x_mm, 0), min(wide, high) / 2), PLACES)}}
    if isinstance(shape, Ring) and name in {"hole", "start", "end"}:
        return {"shape": _moved_ring(shape, wide, high, name, x_mm, y_mm)}
    index = int(name[1:]) if name[1:].isdigit() else -1
    if isinstance(shape, Polygon) and name.startswith("p") and 0 <= index < len(shape.points):
        points = [list(point) for point in shape.points]
        points[index] = [_share(x_mm / wide), _share(y_mm / high)]
        return {"shape": {"kind": "polygon", "points": points}}
    if isinstance(shape, FreePath) and (found := _node(shape, name)):
        at = (x_mm / wide, y_mm / high)
        to = at if found[2] else (_share(at[0]), _share(at[1]))
        return {"shape": {"kind": "path", "data": write_path(moved_node(read_path(shape.data), *found, to))}}
    if isinstance(surface, FourCorners) and name.startswith("c") and 0 <= index < len(surface.corners_mm):
        flat = ((0.0, 0.0), (wide, 0.0), (wide, high), (0.0, high))[index]
        corners = [list(corner) for corner in surface.corners_mm]
        corners[index] = [round(x_mm - flat[0], PLACES), round(y_mm - flat[1], PLACES)]
        return {"surface": {"kind": "corners", "corners_mm": corners}}
    if isinstance(surface, Cylinder) and name in {"span", "tilt"}:
        given = surface.model_dump(mode="json")
        if name == "span":
            given["span_deg"] = round(min(max((x_mm / (wide / 2) - 1) * MOST_SPAN_DEG, 1), MOST_SPAN_DEG), 1)
        else:
            tilt = (y_mm / (high / 2) - 1) * MOST_TILT_DEG
            given["tilt_deg"] = round(min(max(tilt, -MOST_TILT_DEG), MOST_TILT_DEG), 1)
        return {"surface": given}
    return {}


def moved_text_mark(placement: AnyPlacement, name: str, x_mm: float, y_mm: float) -> Values:
    """Return what a text's placement has once a mark of it is at a point; nothing for a mark that isn't there."""
    at = [round(x_mm, PLACES), round(y_mm, PLACES)]
    if name == WHOLE:
        middle = _middle(placement)
        return _shifted(placement, x_mm - middle[0], y_mm - middle[1]) if middle else {}
    match placement:
        case LinePlacement(base_line=base) if base is not None and name in {"start", "end"}:
            end = _on_circle(base.x_mm, base.y_mm, base.length_mm, base.angle_deg)
            first, last = (at, end) if name == "start" else ((base.x_mm, base.y_mm), at)
            length, angle = _polar(last[0] - first[0], last[1] - first[1])
            line = {"x_mm": first[0], "y_mm": first[1], "length_mm": max(length, LEAST_MM), "angle_deg": angle}
            return {"base_line": {key: round(value, PLACES) for key, value in line.items()}}
        case ArcPlacement() as arc:
            return _moved_arc(arc, name, x_mm, y_mm)
        case CurvePlacement(points=points) if name[1:].isdigit() and int(name[1:]) < len(points):
            return {"points": _moved_curve(points, int(name[1:]), x_mm, y_mm)}
        case _:
            return {}


def _shifted(placement: AnyPlacement, by_x_mm: float, by_y_mm: float) -> Values:
    """Return a placement moved as a whole; what fills its area by itself has no place of its own."""

    def moved(x: float, y: float) -> tuple[float, float]:
        """Return a point moved."""
        return round(x + by_x_mm, PLACES), round(y + by_y_mm, PLACES)

    match placement:
        case LinePlacement(base_line=base) if base is not None:
            x, y = moved(base.x_mm, base.y_mm)
            return {"base_line": {**base.model_dump(mode="json"), "x_mm": x, "y_mm": y}}
        case CurvePlacement(points=points):
            return {"points": [list(moved(*point)) for point in points]}
        case _:
            return {}


def _middle(placement: AnyPlacement) -> tuple[float, float] | None:
    """Return where a base line or a curve is taken as a whole; None for what has no such line."""
    match placement:
        case LinePlacement(base_line=base) if base is not None:
            return _on_circle(base.x_mm, base.y_mm, base.length_mm / 2, base.angle_deg)
        case CurvePlacement(points=points):
            return sum(x for x, _ in points) / len(points), sum(y for _, y in points) / len(points)
        case _:
            return None


def point_added(part: object, name: str) -> Values | None:
    """Return what a shape or a text has with a point more behind the one named; None if that isn't there."""
    match part:
        case FreePath() if (node := _node(part, name)) and not node[2]:
            return {"data": write_path(with_node(read_path(part.data), *node[:2]))}
        case Polygon(points=points) | CurvePlacement(points=points) if (index := _index(name, len(points))) is not None:
            return {"points": with_point(points, index, is_curve=isinstance(part, CurvePlacement))}
        case _:
            return None


def point_removed(part: object, name: str) -> Values | None:
    """Return what a shape or a text has without a point: nothing new where too few would be left."""
    match part:
        case FreePath() if (node := _node(part, name)) and not node[2]:
            left = without_node(read_path(part.data), *node[:2])
            return {"data": write_path(left)} if left else {}
        case Polygon(points=points) | CurvePlacement(points=points) if (index := _index(name, len(points))) is not None:
            kept = without_point(points, index, is_curve=isinstance(part, CurvePlacement))
            return {"points": kept} if kept else {}
        case _:
            return None


def _index(name: str, count: int) -> int | None:
    index = int(name[1:]) if name[1:].isdigit() else count
    return index if index < count else None


def _path_marks(data: str, wide: float, high: float) -> Iterator[Mark]:
    contours = read_path(data)
    if sum(len(contour) for contour in contours) > MOST_NODES:
        return
    for number, contour in enumerate(contours):
        for index, node in enumerate(contour):
            name, words = f"n{number}-{index}", f"Point {index + 1}"
            words += f" of outline {number + 1}" if len(contours) > 1 else ""
            yield Mark(name, node.at[0] * wide, node.at[1] * high, words, is_point=True)
            for part, control in (("in", node.before), ("out", node.after)):
                if control is not None:
                    yield Mark(f"{name}-{part}", control[0] * wide, control[1] * high, f"Control of {words}")


def _node(shape: FreePath, name: str) -> tuple[int, int, str] | None:
    """Return the contour, the node and the part of it that a mark of a free outline is called after."""
    found = re.fullmatch(r"n(\d{1,4})-(\d{1,4})(?:-(in|out))?", name)
    if found is None:
        return None
    contours, number, index = read_path(shape.data), int(found[1]), int(found[2])
    return (number, index, found[3] or "") if number < len(contours) and index < len(contours[number]) else None


def with_point(points: tuple[tuple[float, float], ...], after: int, *, is_curve: bool) -> list[list[float]]:
    """Return points with one more, in the middle between a point and the next one."""
    given = [list(point) for point in points]
    if not is_curve:
        x, y = (sum(pair) / 2 for pair in zip(given[after], given[(after + 1) % len(given)], strict=True))
        return [*given[: after + 1], [round(x, 6), round(y, 6)], *given[after + 1 :]]
    start = min(after // 3 * 3, len(given) - 4)
    return [*given[:start], *_halved(given[start : start + 4]), *given[start + 4 :]]


def without_point(points: tuple[tuple[float, float], ...], index: int, *, is_curve: bool) -> list[list[float]] | None:
    """Return points without one, or None where too few would be left."""
    given = [list(point) for point in points]
    if not is_curve:
        return [*given[:index], *given[index + 1 :]] if len(given) > 3 else None
    if len(given) <= 4 or index % 3:
        return None
    # An end of the curve goes with its part; a point between two leaves one part of them.
    first, last = (
        (0, 3) if index == 0 else (index - 2, index + 1) if index == len(given) - 1 else (index - 1, index + 2)
    )
    return [*given[:first], *given[last:]]


def _ring_marks(ring: Ring, wide: float, high: float) -> Iterator[Mark]:
    radius, x, y = min(wide, high) / 2, wide / 2, high / 2
    middle = ring.start_deg + ring.spread_deg / 2
    yield Mark("hole", *_on_circle(x, y, radius * ring.hole, middle), f"Hole of {ring.hole * 100:.0f} %")
    yield Mark("start", *_on_circle(x, y, radius, ring.start_deg), f"Starts at {ring.start_deg:g}°")
    yield Mark("end", *_on_circle(x, y, radius, ring.start_deg + ring.spread_deg), f"Spreads over {ring.spread_deg:g}°")


def _moved_ring(ring: Ring, wide: float, high: float, name: str, x_mm: float, y_mm: float) -> Values:
    far, angle = _polar(x_mm - wide / 2, y_mm - high / 2)
    given = ring.model_dump(mode="json")
    if name == "hole":
        given["hole"] = round(min(max(far / (min(wide, high) / 2), 0), 0.98), 4)
    elif name == "start":
        end = ring.start_deg + ring.spread_deg
        given |= {"start_deg": round(angle % 360, 1), "spread_deg": _spread(end - angle)}
    else:
        given["spread_deg"] = _spread(angle - ring.start_deg)
    return given


def _moved_arc(arc: ArcPlacement, name: str, x_mm: float, y_mm: float) -> Values:
    if name == "center":
        return {"x_mm": round(x_mm, PLACES), "y_mm": round(y_mm, PLACES)}
    far, angle = _polar(x_mm - arc.x_mm, y_mm - arc.y_mm)
    if name == "radius":
        return {"radius_mm": round(max(far, LEAST_MM), PLACES), "middle_deg": round(angle % 360, 1)}
    if name not in {"from", "to"}:
        return {}
    half = _half_turn(angle - arc.middle_deg)
    return {"spread_deg": round(min(max(2 * abs(half), LEAST_SPREAD_DEG), 360), 1)}


def _moved_curve(points: tuple[tuple[float, float], ...], index: int, x_mm: float, y_mm: float) -> list[list[float]]:
    """Return the points of a curve after one was moved; the controls beside an end go along with it."""
    given = [list(point) for point in points]
    dx, dy = x_mm - given[index][0], y_mm - given[index][1]
    beside = (index - 1, index, index + 1) if index % 3 == 0 else (index,)
    for at in beside:
        if 0 <= at < len(given):
            given[at] = [round(given[at][0] + dx, PLACES), round(given[at][1] + dy, PLACES)]
    return given


def _halved(curve: list[list[float]]) -> list[list[float]]:
    """Return a cubic as two that draw the same (de Casteljau)."""

    def middle(one: list[float], other: list[float]) -> list[float]:
        """Return the point between two."""
        return [(one[0] + other[0]) / 2, (one[1] + other[1]) / 2]

    a, b, c, d = curve
    ab, bc, cd = middle(a, b), middle(b, c), middle(c, d)
    abc, bcd = middle(ab, bc), middle(bc, cd)
    halves = [a, ab, abc, middle(abc, bcd), bcd, cd, d]
    return [[round(x, PLACES), round(y, PLACES)] for x, y in halves]


def _on_circle(x_mm: float, y_mm: float, radius_mm: float, angle_deg: float) -> tuple[float, float]:
    angle = math.radians(angle_deg)
    return x_mm + radius_mm * math.cos(angle), y_mm + radius_mm * math.sin(angle)


def _polar(x: float, y: float) -> tuple[float, float]:
    return math.hypot(x, y), math.degrees(math.atan2(y, x))


def _half_turn(degrees: float) -> float:
    turned = degrees % 360
    return turned - 360 if turned > 180 else turned


def _spread(degrees: float) -> float:
    spread = degrees % 360
    return round(max(spread, LEAST_SPREAD_DEG), 1) if spread else 360.0


def _share(value: float) -> float:
    return round(min(max(value, 0), 1), 6)
