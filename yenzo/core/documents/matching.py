"""Matching: a side, another picture and two points on both come in; operations that keep its areas in place go out.

What was printed at a place of the goods stays at that place, however the new picture is larger, turned or cut.
"""

import math
from typing import Any

from yenzo.core.documents.setup import Side
from yenzo.core.errors import DocumentError

Operations = list[dict[str, Any]]
Point = tuple[float, float]
LEAST_APART_PX = 2.0


def match_operations(
    side: Side, picture: dict[str, Any], before: tuple[Point, Point], after: tuple[Point, Point]
) -> Operations:
    """Return the operations that give a side another picture, with its scale and its areas where they were.

    `before` and `after` are the same two points of the goods on the picture there is and on the new one, in pixels.
    Raises DocumentError where they lie too close to tell anything, or the side has no scale yet.
    """
    if side.scale is None:
        message = f"“{side.name}” has no scale yet: mark it first, so that its areas have a place."
        raise DocumentError("no_scale", side.key, message)
    long_before, long_after = math.dist(*before), math.dist(*after)
    if min(long_before, long_after) < LEAST_APART_PX:
        raise DocumentError("points_too_close", side.key, "Put the two points apart: far apart is most exact.")
    old, length_mm = side.scale.px_per_mm, long_before / side.scale.px_per_mm
    new = long_after / length_mm
    turn = _angle(*after) - _angle(*before)
    scale = {"start_px": list(after[0]), "end_px": list(after[1]), "length_mm": length_mm}
    path = ["sides", side.key]
    operations: Operations = [
        {"do": "set", "path": [*path, "picture"], "value": picture},
        {"do": "set", "path": [*path, "scale"], "value": scale},
    ]
    for area in side.areas:
        x, y = area.x_mm + area.width_mm / 2, area.y_mm + area.height_mm / 2
        across, down = _turned(x - before[0][0] / old, y - before[0][1] / old, turn)
        values = {
            "x_mm": after[0][0] / new + across - area.width_mm / 2,
            "y_mm": after[0][1] / new + down - area.height_mm / 2,
            "turn_deg": math.remainder(area.turn_deg + math.degrees(turn), 360),
        }
        operations += [
            {"do": "set", "path": [*path, "areas", area.key, name], "value": round(value, 3)}
            for name, value in values.items()
        ]
    return operations


def _angle(start: Point, end: Point) -> float:
    return math.atan2(end[1] - start[1], end[0] - start[0])


def _turned(x: float, y: float, turn: float) -> Point:
    return x * math.cos(turn) - y * math.sin(turn), x * math.sin(turn) + y * math.cos(turn)
