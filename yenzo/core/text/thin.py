"""Thin places of a text: a text and a font come in; its thinnest stroke and gap, with the character, go out."""

from dataclasses import dataclass

from yenzo.core.text.fonts import Font
from yenzo.core.text.shaping import shape_line
from yenzo.core.text.styles import TextStyle


@dataclass(frozen=True)
class ThinPlaces:
    """The thinnest stroke and the thinnest gap or counter of a text in mm, each with the character that has it."""

    stroke_mm: float
    stroke_at: str
    gap_mm: float
    gap_at: str


def thin_places(font: Font, text: str, style: TextStyle, letter_height_mm: float) -> ThinPlaces | None:
    """Return the thin places of a text at a letter height, or None for a text without ink. Glyphs are kept in em."""
    em_mm = letter_height_mm / font.letter_height_em
    places = [
        (font.thinnest(glyph.glyph_id), line[glyph.cluster])
        for line in text.splitlines()
        if line
        for glyph in shape_line(font, line, style).glyphs
        if glyph.glyph_id and font.outline(glyph.glyph_id)
    ]
    if not places:
        return None
    (stroke, stroke_at), (gap, gap_at) = (min((thin[which], char) for thin, char in places) for which in (0, 1))
    return ThinPlaces(stroke * em_mm, stroke_at, gap * em_mm, gap_at)
