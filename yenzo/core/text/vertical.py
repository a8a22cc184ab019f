"""Letters below each other: a text, a font and a box come in, the outline of the stack goes out."""

from dataclasses import replace
from itertools import pairwise

import icu

from yenzo.core.shapes.box import Box
from yenzo.core.shapes.outline import Outline
from yenzo.core.text.fonts import Font
from yenzo.core.text.line import placed_in_box
from yenzo.core.text.shaping import outline_of
from yenzo.core.text.styles import Laid, TextStyle

# From base line to base line, in letter heights; a space takes less.
PITCH, SPACE = 1.35, 0.7
# Dual, left and right joining, as ICU counts the values of Joining_Type.
JOINING_TYPES = frozenset({2, 3, 4})


def fit_stack(font: Font, text: str, box: Box, style: TextStyle) -> Laid:
    """Set the characters of a text below each other, each centered, as large as they fit the box."""
    parts: list[Outline] = []
    missing: dict[str, None] = {}
    y_em = 0.0
    for char in _characters(text):
        if char.isspace():
            y_em += font.letter_height_em * (SPACE + style.spacing_em)
            continue
        drawn, lacks = outline_of(font, char, style)
        missing |= dict.fromkeys(lacks)
        if drawn.bounds:
            parts.append(drawn.shifted(-drawn.bounds.middle[0], y_em))
        y_em += font.letter_height_em * (PITCH + style.spacing_em)
    stack = Outline.joined(parts)
    laid = placed_in_box(font, stack, box, style, tuple(missing), (text,))
    return replace(laid, breaks_joins=_joins(text))


def _characters(text: str) -> list[str]:
    breaks = icu.BreakIterator.createCharacterInstance(icu.Locale.getRoot())
    unicode_text = icu.UnicodeString(text)
    breaks.setText(unicode_text)
    return [str(unicode_text[start:end]) for start, end in pairwise([0, *breaks])]


def _joins(text: str) -> bool:
    """Tell whether any two neighbours of a text are of a script whose letters join (Unicode's Joining_Type)."""
    kinds = [icu.Char.getIntPropertyValue(char, icu.UProperty.JOINING_TYPE) in JOINING_TYPES for char in text]
    return any(first and second for first, second in pairwise(kinds))
