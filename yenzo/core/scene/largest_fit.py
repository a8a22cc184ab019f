"""Room: a way to set a text and what it must not leave come in; the text as large as it stays inside goes out."""

from collections.abc import Callable
from dataclasses import replace

from yenzo.core.documents.areas import Area
from yenzo.core.shapes.areas import safe_outline
from yenzo.core.shapes.box import Box
from yenzo.core.shapes.outline import Outline
from yenzo.core.shapes.polygons import grown, stands_out_by
from yenzo.core.text.styles import Laid, TextStyle

# How near to the room's edge is near enough, and how many sizes are tried at most to come there.
NEAR_MM, MOST_TRIES = 0.05, 8
# Bent outlines may be this much off while a size is looked for.
COARSE_MM = 0.02

# How far an outline stands out of its room at its worst point, in mm; below zero, how much room it has left.
Overrun = Callable[[Outline], float]
SetAt = Callable[[TextStyle, float | None], Laid]


def overrun_of(area: Area, box: Box, plain_box: Box) -> Overrun:
    """Return how far ink stands out of an area's room: its safe margin, and what effects and tools need of that.

    `box` is the room that is left of `plain_box` by them.
    """
    if area.is_frame:
        return lambda outline: _out_of_box(outline, box)
    taken = max(
        box.left - plain_box.left,
        box.top - plain_box.top,
        plain_box.right - box.right,
        plain_box.bottom - box.bottom,
    )
    whole = grown(safe_outline(area), -taken) if taken > 0 else safe_outline(area)
    return lambda outline: stands_out_by(outline, whole)


def as_large_as_fits(set_at: SetAt, style: TextStyle, stands_out: Overrun) -> Laid:
    """Set a text as large as it stays in its room, between the letter heights of its style.

    At the least height it may stand out: that is for preflight to find. `set_at` takes a style and how coarse bent
    outlines may be (None: as files need them).
    """
    laid = set_at(style, None)
    over = stands_out(laid.outline)
    if over <= 0 or laid.letter_height_mm <= style.least_mm:
        return laid

    def over_at(height_mm: float) -> float:
        """Return by how many mm the text stands out when its letters are at most this high."""
        return stands_out(set_at(replace(style, most_mm=height_mm), COARSE_MM).outline)

    small, large = style.least_mm, laid.letter_height_mm
    under = over_at(small)
    if under > 0:
        laid = set_at(replace(style, most_mm=small), None)
        return replace(laid, line_near_edge=not laid.overflow_mm)
    for _ in range(MOST_TRIES if under < 0 else 0):
        # False position (Illinois): how far ink stands out grows about evenly with its size.
        height = (small * over - large * under) / (over - under)
        out = over_at(height)
        if out > 0:
            large, over, under = height, out, under / 2
        else:
            small, under, over = height, out, over / 2
            if out >= -NEAR_MM:
                break
    return set_at(replace(style, most_mm=small), None)


def _out_of_box(outline: Outline, box: Box) -> float:
    ink = outline.bounds
    if ink is None:
        return 0.0
    return max(box.left - ink.left, box.top - ink.top, ink.right - box.right, ink.bottom - box.bottom)
