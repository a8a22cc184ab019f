"""Low letters: a text and a font come in; how high its lowest letter is, and which one that is, goes out.

The letter height is that of capitals. Small letters are lower, and so are small capitals, and figures of some faces.
"""

import unicodedata
from dataclasses import dataclass

from yenzo.core.text.fonts import Font
from yenzo.core.text.shaping import shape_line
from yenzo.core.text.styles import TextStyle

# Scripts without capitals have no small letters either: a table names the letter that they are measured by.
MEASURED = frozenset({"Lu", "Ll", "Lt", "Nd"})
# What is this near to the letter height is as high as capitals: faces draw their figures a little lower.
NEARLY = 0.9


@dataclass(frozen=True)
class LowLetter:
    """The lowest letter of a text, and its height in mm."""

    at: str
    height_mm: float


def lowest_letter(font: Font, text: str, style: TextStyle, letter_height_mm: float) -> LowLetter | None:
    """Return the lowest of a text's letters and figures at a letter height; None where all are as high as capitals."""
    em_mm = letter_height_mm / font.letter_height_em
    heights: dict[str, float] = {}
    for line in filter(None, text.splitlines()):
        own: dict[int, float] = {}
        for glyph in shape_line(font, line, style).glyphs:
            # Marks are drawn beside the letter that they belong to.
            if glyph.glyph_id and unicodedata.category(line[glyph.cluster]) in MEASURED:
                bounds = font.outline(glyph.glyph_id).bounds
                own[glyph.cluster] = max(own.get(glyph.cluster, 0.0), bounds.height if bounds else 0.0)
        for cluster, height in own.items():
            if 0 < height < NEARLY * font.letter_height_em:
                heights[line[cluster]] = min(heights.get(line[cluster], height), height)
    if not heights:
        return None
    at = min(heights, key=lambda char: (heights[char], char))
    return LowLetter(at, heights[at] * em_mm)
