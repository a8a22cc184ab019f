"""A line as large as fits: a text, a font and a box come in, an outline in mm with its letter height goes out."""

import math

from yenzo.core.shapes.box import Box
from yenzo.core.shapes.matrix import Matrix
from yenzo.core.shapes.outline import Outline
from yenzo.core.text.fonts import Font
from yenzo.core.text.shaping import outline_of
from yenzo.core.text.styles import Laid, TextStyle


def fit_line(font: Font, text: str, box: Box, style: TextStyle) -> Laid:
    """Set a line as large as its ink fits the box, never beyond the letter heights given.

    At the least letter height it may stick out of the box: that is for preflight to find.
    """
    em_outline, missing = outline_of(font, text, style)
    return placed_in_box(font, em_outline, box, style, missing, (text,))


def size_in_box(font: Font, ink: Box, box: Box, style: TextStyle) -> float:
    """Return the size of the em in mm at which ink (in em) fits a box, between the letter heights of the style."""
    em_mm = min(
        box.width / ink.width if ink.width else math.inf,
        box.height / ink.height if ink.height else math.inf,
        style.most_mm / font.letter_height_em,
    )
    return max(em_mm, style.least_mm / font.letter_height_em)


def room_taken(font: Font, ink: Box, style: TextStyle) -> Box:
    """Return the room that ink (in em) takes up: its own, or as far above the middle of the capitals as below it.

    Aligned by that, texts of one size have their base line at one height, whatever hangs below it or rises above.
    """
    if style.vertical != "capitals":
        return ink
    middle = -font.letter_height_em / 2
    reach = max(middle - ink.top, ink.bottom - middle)
    return Box(ink.left, middle - reach, ink.right, middle + reach)


def placed_in_box(
    font: Font,
    em_outline: Outline,
    box: Box,
    style: TextStyle,
    missing: tuple[str, ...] = (),
    lines: tuple[str, ...] = (),
) -> Laid:
    """Place what is drawn in em into a box, as large as its ink fits, aligned by its ink or by its capitals."""
    drawn = em_outline.bounds
    if drawn is None:
        return Laid(Outline.empty(), style.least_mm, missing, lines)
    ink = room_taken(font, drawn, style)
    em_mm = size_in_box(font, ink, box, style)
    sized = Box(*(edge * em_mm for edge in ink))
    x = {"left": box.left - sized.left, "right": box.right - sized.right}.get(
        style.align, box.middle[0] - sized.middle[0]
    )
    y = {
        "top": box.top - sized.top,
        "middle": box.middle[1] - sized.middle[1],
        "capitals": box.middle[1] - sized.middle[1],
        "bottom": box.bottom - sized.bottom,
    }[style.vertical]
    placed = em_outline.mapped(Matrix(em_mm, 0, 0, em_mm, x, y))
    return Laid(placed, em_mm * font.letter_height_em, missing, lines)
