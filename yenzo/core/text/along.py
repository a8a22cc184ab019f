"""Text along a base line: a text, a font and a straight or bent base line come in, the outline set on it goes out."""

import math
from collections.abc import Callable
from dataclasses import dataclass, replace
from typing import Literal

from yenzo.core.shapes.bending import TOLERANCE_MM
from yenzo.core.shapes.box import Box
from yenzo.core.shapes.matrix import Matrix
from yenzo.core.shapes.outline import Outline
from yenzo.core.shapes.paths import Circle, Path
from yenzo.core.text.fonts import Font
from yenzo.core.text.shaping import outline_of
from yenzo.core.text.styles import Laid, TextStyle
from yenzo.core.text.upright import Measured, Pieces, apart_em, pieces_of, set_pieces, turning

# Letters that reach further into a turn than this share of its radius would run into each other.
MOST_OF_RADIUS = 0.85
ROUNDING_MM = 1e-6
# What is longer than its base line by more than this many times isn't bent any more.
MOST_OVERFLOW = 3.0
# What stays free between the end of a text that goes all around and its beginning, in em; and what is all around.
WORD_SPACE, AROUND = 0.5, math.radians(5)
# Letters that run into each other are tried this much smaller, until they don't.
SMALLER = 0.94
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
    how far letters that are bent, for they join, may be off.
    """
    pieces = pieces_of(font, text, style)
    if pieces.ink is None:
        return Laid(Outline.empty(), style.least_mm, pieces.missing, (text,))
    lean_em = turning(path) * pieces.leaning_em
    widest_mm = path.length_mm / (pieces.ink.width + spare_em + lean_em)
    tallest_mm = MOST_OF_RADIUS * path.sharpest_mm / -pieces.ink.top if pieces.ink.top < 0 else math.inf
    ink = pieces.ink

    def set_at(em_mm: float) -> Laid:
        """Return the text at a size."""
        laid = _set(pieces, ink, em_mm, path, text, style, tolerance_mm)
        return replace(laid, is_tangled=laid.is_tangled or em_mm > tallest_mm / MOST_OF_RADIUS)

    return _untangled(set_at, _between(font, min(widest_mm, tallest_mm), style), _between(font, 0, style))


def set_on_arc(font: Font, text: str, arc: Arc, style: TextStyle, *, tolerance_mm: float = TOLERANCE_MM) -> Laid:
    """Set a text on an arc, as large as its spread and the letter heights allow."""
    pieces = pieces_of(font, text, style)
    ink = pieces.ink
    if ink is None:
        return Laid(Outline.empty(), style.least_mm, pieces.missing, (text,))
    spread, height_em = math.radians(arc.spread_deg), font.letter_height_em
    # How far out the base line lies from the circle, and how far in the ink reaches, both in em.
    out_em = {"under": height_em, "inside": -height_em}.get(arc.stand, 0.0)
    reach_em = {"over": ink.bottom, "inside": height_em + ink.bottom, "inside_under": -ink.top}.get(arc.stand, 0.0)
    clockwise = arc.stand in {"over", "inside"}
    # Letters are as far apart as on a line that is spread * (radius + out) long: the base line, or that of their tops.
    length_em = spread * (out_em if clockwise else out_em - pieces.leaning_em)
    widest_mm = _solved(spread * arc.radius_mm, ink.width, length_em)
    if 2 * math.pi - spread < AROUND and not style.old_setting:
        # Between the last letter and the first one there is a space.
        widest_mm = min(widest_mm, _solved(spread * arc.radius_mm, ink.width + WORD_SPACE, length_em))
    deepest_mm = MOST_OF_RADIUS * arc.radius_mm / reach_em if reach_em > 0 else math.inf
    start_deg = arc.middle_deg + (-1 if clockwise else 1) * arc.spread_deg / 2

    def set_at(em_mm: float) -> Laid:
        """Return the text at a size."""
        radius_mm = max(arc.radius_mm + out_em * em_mm, arc.radius_mm * (1 - MOST_OF_RADIUS))
        circle = Circle(arc.x_mm, arc.y_mm, radius_mm, start_deg, arc.spread_deg, clockwise)
        laid = _set(pieces, ink, em_mm, circle, text, style, tolerance_mm)
        return replace(laid, is_tangled=laid.is_tangled or em_mm > deepest_mm / MOST_OF_RADIUS)

    return _untangled(set_at, _between(font, min(widest_mm, deepest_mm), style), _between(font, 0, style))


def _untangled(set_at: Callable[[float], Laid], em_mm: float, least_mm: float) -> Laid:
    """Return a text as large as its letters stay apart on their line: smaller ones lean to each other less."""
    laid = set_at(em_mm)
    while (laid.is_tangled or laid.overflow_mm) and em_mm > least_mm:
        em_mm = max(em_mm * SMALLER, least_mm)
        laid = set_at(em_mm)
    return laid


def _solved(length_mm: float, width_em: float, length_em: float) -> float:
    """Return the size of the em at which a width just fills a line that is `length_mm` and so many em long."""
    rest_em = width_em - length_em
    return length_mm / rest_em if rest_em > 0 else math.inf


def _set(pieces: Pieces, ink: Box, em_mm: float, path: Path, text: str, style: TextStyle, tolerance_mm: float) -> Laid:
    measured = Measured(path, pieces.leaning_em * em_mm)
    room_mm, height_mm = measured.length_mm, em_mm * pieces.font.letter_height_em
    further = apart_em(pieces, em_mm, _start(ink, em_mm, room_mm, style), measured)
    ink = ink._replace(right=ink.right + float(further.sum()))
    overflow_mm, start_mm = _overflow(ink, em_mm, room_mm), _start(ink, em_mm, room_mm, style)
    if overflow_mm > MOST_OVERFLOW * room_mm:
        # Nobody can make it, and winding it round and round would take minutes: it is refused as it lies.
        flat = pieces.flat.mapped(Matrix(em_mm, 0, 0, em_mm, start_mm, 0))
        return Laid(flat, height_mm, pieces.missing, (text,), overflow_mm)
    outline, is_tangled = set_pieces(pieces, em_mm, start_mm, further, measured, tolerance_mm)
    bent = any(piece.is_bent for piece in pieces.pieces)
    return Laid(
        outline,
        height_mm,
        pieces.missing,
        (text,),
        overflow_mm,
        is_tangled=is_tangled,
        is_bent=True,
        has_bent_letters=bent,
    )


def _between(font: Font, em_mm: float, style: TextStyle) -> float:
    """Return the size of the em, kept between the letter heights of the style."""
    return max(min(em_mm, style.most_mm / font.letter_height_em), style.least_mm / font.letter_height_em)


def _overflow(ink: Box, em_mm: float, room_mm: float) -> float:
    over = ink.width * em_mm - room_mm
    return over if over > ROUNDING_MM else 0.0


def _start(ink: Box, em_mm: float, room_mm: float, style: TextStyle) -> float:
    spare = room_mm - ink.width * em_mm
    return {"left": 0.0, "right": spare}.get(style.align, spare / 2) - ink.left * em_mm
