"""Thin places of a text: a text and a font come in; its thinnest stroke and gap, with the character, go out."""

import math
from dataclasses import dataclass
from itertools import pairwise

from yenzo.core.shapes.thickness import Thinnest
from yenzo.core.text.fonts import Font
from yenzo.core.text.shaping import shape_line
from yenzo.core.text.styles import TextStyle

# Neighbours nearer than this touch: they are meant to.
TOUCHING_EM = 1e-4


@dataclass(frozen=True)
class ThinPlaces:
    """The thinnest stroke and the thinnest gap or counter of a text in mm, each with the characters that have it."""

    stroke_mm: float
    stroke_at: str
    gap_mm: float
    gap_at: str


def thin_places(
    font: Font, text: str, style: TextStyle, letter_height_mm: float, *, is_straight: bool = True
) -> ThinPlaces | None:
    """Return the thin places of a text at a letter height, or None for a text without ink. Glyphs are kept in em.

    Gaps between neighbours count on a straight line only, where they don't touch.
    """
    em_mm = letter_height_mm / font.letter_height_em
    places: list[tuple[Thinnest, str]] = []
    for line in filter(None, text.splitlines()):
        glyphs = [g for g in shape_line(font, line, style).glyphs if g.glyph_id and font.outline(g.glyph_id)]
        places += [(font.thinnest(glyph.glyph_id), line[glyph.cluster]) for glyph in glyphs]
        for first, second in pairwise(glyphs if is_straight else ()):
            away = (second.x_em - first.x_em, second.y_em - first.y_em)
            gap = font.gap_between(first.glyph_id, second.glyph_id, *away)
            if gap > TOUCHING_EM:
                places.append((Thinnest(math.inf, gap), line[first.cluster] + line[second.cluster]))
    if not places:
        return None
    (stroke, stroke_at), (gap, gap_at) = (min((thin[which], chars) for thin, chars in places) for which in (0, 1))
    return ThinPlaces(stroke * em_mm, stroke_at, gap * em_mm, gap_at)
