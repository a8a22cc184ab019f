"""A line as large as fits: a text, a font and a box come in, an outline in mm with its letter height goes out."""

from dataclasses import dataclass
from typing import Literal

from yenzo.core.shapes.box import Box
from yenzo.core.shapes.matrix import Matrix
from yenzo.core.shapes.outline import Outline
from yenzo.core.text.fonts import Font
from yenzo.core.text.shaping import shape_line

Align = Literal["left", "center", "right"]
Vertical = Literal["top", "middle", "bottom"]


@dataclass(frozen=True)
class LineStyle:
    """How a line is set: letter heights between which it may be, and where it stands in its box."""

    least_mm: float
    most_mm: float
    align: Align = "center"
    vertical: Vertical = "middle"


@dataclass(frozen=True)
class Line:
    """A line that is set: its outline in mm, the letter height used and the characters that the font lacks."""

    outline: Outline
    letter_height_mm: float
    missing: tuple[str, ...]


def outline_of(font: Font, text: str, language: str = "en") -> tuple[Outline, tuple[str, ...]]:
    """Return a text's outline in em, base line at y = 0, and the characters the font lacks (which aren't drawn)."""
    shaped = shape_line(font, text, language)
    parts = []
    for glyph in shaped.glyphs:
        drawn = font.outline(glyph.glyph_id) if glyph.glyph_id else Outline.empty()
        if drawn:
            parts.append(Outline(drawn.verbs, drawn.points + (glyph.x_em, glyph.y_em)))
    return Outline.joined(parts), shaped.missing


def fit_line(font: Font, text: str, box: Box, style: LineStyle, language: str = "en") -> Line:
    """Set a line as large as its ink fits the box, never beyond the letter heights given.

    At the least letter height it may stick out of the box: that is for preflight to find.
    """
    em_outline, missing = outline_of(font, text, language)
    ink = em_outline.bounds
    if ink is None:
        return Line(Outline.empty(), style.least_mm, missing)
    em_mm = min(
        box.width / ink.width if ink.width else float("inf"),
        box.height / ink.height if ink.height else float("inf"),
        style.most_mm / font.letter_height_em,
    )
    em_mm = max(em_mm, style.least_mm / font.letter_height_em)
    sized = Box(*(edge * em_mm for edge in ink))
    x = {
        "left": box.left - sized.left,
        "center": box.middle[0] - sized.middle[0],
        "right": box.right - sized.right,
    }[style.align]
    y = {
        "top": box.top - sized.top,
        "middle": box.middle[1] - sized.middle[1],
        "bottom": box.bottom - sized.bottom,
    }[style.vertical]
    placed = em_outline.mapped(Matrix(em_mm, 0, 0, em_mm, x, y))
    return Line(placed, em_mm * font.letter_height_em, missing)
