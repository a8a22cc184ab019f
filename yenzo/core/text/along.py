"""Text along a base line: a text, a font and a straight or bent base line come in, the outline set on it goes out."""

import math
from dataclasses import dataclass, replace
from typing import Literal

from yenzo.core.shapes.bending import TOLERANCE_MM, bend
from yenzo.core.shapes.box import Box
from yenzo.core.shapes.matrix import Matrix
from yenzo.core.shapes.outline import Outline
from yenzo.core.shapes.paths import AlongPath, Circle, Path
from yenzo.core.text.fonts import Font
from yenzo.core.text.shaping import outline_of
from yenzo.core.text.styles import Laid, TextStyle

# Letters that reach further into a turn than this share of its radius would run into each other.
MOST_OF_RADIUS = 0.85
ROUNDING_MM = 1e-6
# What is longer than its base line by more than this many times isn't bent any more.
MOST_OVERFLOW = 3.0
Stand = Literal["over", "under", "inside", "inside_under"]


@dataclass(frozen=True)
class Arc:
    """A part of a circle for a text: angles in degrees, 0 right, 90 below, 270 on top.

    Letters stand over the circle (outside, read at the top), under it (outside, tops to the circle, read at the
    bottom), inside it (tops to the circle, read at the top), or inside under it (read at the bottom).
    """

    x_mm: float
    y_mm: float
    radius_mm: float
    middle_deg: float
    spread_deg: float
    stand: Stand = "over"


def set_on_line(
    font: Font, text: str, start: tuple[float, float], length_mm: float, angle_deg: float, style: TextStyle
) -> Laid:
    """Set a text on a straight base line, as large as its length and the letter heights allow."""
    em_outline, missing = outline_of(font, text, style)
    ink = em_outline.bounds
    if ink is None:
        return Laid(Outline.empty(), style.least_mm, missing, (text,))
    em_mm = _between(font, length_mm / ink.width, style)
    turned = Matrix.about(0, 0, turn_deg=angle_deg, scale=1).then(Matrix.shift(*start))
    placed = Matrix(em_mm, 0, 0, em_mm, _start(ink, em_mm, length_mm, style), 0).then(turned)
    overflow_mm = _overflow(ink, em_mm, length_mm)
    return Laid(em_outline.mapped(placed), em_mm * font.letter_height_em, missing, (text,), overflow_mm)


def set_along(
    font: Font,
    text: str,
    path: Path,
    style: TextStyle,
    *,
    spare_em: float = 0.0,
    tolerance_mm: float = TOLERANCE_MM,
) -> Laid:
    """Set a text along a path, letters standing on its left; `spare_em` of it stays free, as where it closes.

    What is too long at the least letter height runs on straight at the ends, by `overflow_mm` in all. `tolerance_mm` is
    how far bent letters may be off.
    """
    em_outline, missing = outline_of(font, text, style)
    ink = em_outline.bounds
    if ink is None:
        return Laid(Outline.empty(), style.least_mm, missing, (text,))
    widest_mm = path.length_mm / (ink.width + spare_em)
    tallest_mm = MOST_OF_RADIUS * path.sharpest_mm / -ink.top if ink.top < 0 else math.inf
    em_mm = _between(font, min(widest_mm, tallest_mm), style)
    laid = _bent(font, em_outline, ink, em_mm, path, missing, (text,), style, tolerance_mm)
    return replace(laid, is_tangled=em_mm > tallest_mm / MOST_OF_RADIUS)


def set_on_arc(font: Font, text: str, arc: Arc, style: TextStyle, *, tolerance_mm: float = TOLERANCE_MM) -> Laid:
    """Set a text on an arc, as large as its spread and the letter heights allow."""
    em_outline, missing = outline_of(font, text, style)
    ink = em_outline.bounds
    if ink is None:
        return Laid(Outline.empty(), style.least_mm, missing, (text,))
    spread, height_em = math.radians(arc.spread_deg), font.letter_height_em
    # How far out the base line lies from the circle, and how far in the ink reaches, both in em.
    out_em = {"under": height_em, "inside": -height_em}.get(arc.stand, 0.0)
    reach_em = {"over": ink.bottom, "inside": height_em + ink.bottom, "inside_under": -ink.top}.get(arc.stand, 0.0)
    # The base line is spread * (radius + out) long: solved for the size at which the ink just fills it.
    rest_em = ink.width - spread * out_em
    widest_mm = spread * arc.radius_mm / rest_em if rest_em > 0 else math.inf
    deepest_mm = MOST_OF_RADIUS * arc.radius_mm / reach_em if reach_em > 0 else math.inf
    em_mm = _between(font, min(widest_mm, deepest_mm), style)
    radius_mm = max(arc.radius_mm + out_em * em_mm, arc.radius_mm * (1 - MOST_OF_RADIUS))
    clockwise = arc.stand in {"over", "inside"}
    start_deg = arc.middle_deg + (-1 if clockwise else 1) * arc.spread_deg / 2
    circle = Circle(arc.x_mm, arc.y_mm, radius_mm, start_deg, arc.spread_deg, clockwise)
    laid = _bent(font, em_outline, ink, em_mm, circle, missing, (text,), style, tolerance_mm)
    return replace(laid, is_tangled=em_mm > deepest_mm / MOST_OF_RADIUS)


def _bent(
    font: Font,
    em_outline: Outline,
    ink: Box,
    em_mm: float,
    path: Path,
    missing: tuple[str, ...],
    lines: tuple[str, ...],
    style: TextStyle,
    tolerance_mm: float,
) -> Laid:
    room_mm = path.length_mm
    flat = em_outline.mapped(Matrix(em_mm, 0, 0, em_mm, _start(ink, em_mm, room_mm, style), 0))
    overflow_mm = _overflow(ink, em_mm, room_mm)
    if overflow_mm > MOST_OVERFLOW * room_mm:
        # Nobody can make it, and bending it round and round would take minutes: it is refused as it lies.
        return Laid(flat, em_mm * font.letter_height_em, missing, lines, overflow_mm)
    return Laid(bend(flat, AlongPath(path), tolerance_mm), em_mm * font.letter_height_em, missing, lines, overflow_mm)


def _between(font: Font, em_mm: float, style: TextStyle) -> float:
    """Return the size of the em, kept between the letter heights of the style."""
    return max(min(em_mm, style.most_mm / font.letter_height_em), style.least_mm / font.letter_height_em)


def _overflow(ink: Box, em_mm: float, room_mm: float) -> float:
    over = ink.width * em_mm - room_mm
    return over if over > ROUNDING_MM else 0.0


def _start(ink: Box, em_mm: float, room_mm: float, style: TextStyle) -> float:
    spare = room_mm - ink.width * em_mm
    return {"left": 0.0, "right": spare}.get(style.align, spare / 2) - ink.left * em_mm
