"""Directions: a paragraph comes in, the runs of one of its lines from left to right go out (UAX 9, computed by ICU)."""

import unicodedata
from bisect import bisect_left
from dataclasses import dataclass
from functools import lru_cache
from itertools import accumulate

import icu

# The first letter that has a direction decides that of its paragraph; without any, it is left to right (UAX 9, P2, P3).
BY_FIRST_LETTER: int = icu.Bidi.DEFAULT_LTR
# What ends a paragraph (bidi class B) stands for a blank inside of a line.
AS_BLANKS = dict.fromkeys("\n\r\x1c\x1d\x1e\x85\u2029", " ")


@dataclass(frozen=True)
class Run:
    """Characters of one direction, as a part of their text: from `start` up to but not including `end`."""

    start: int
    end: int
    is_right_to_left: bool


@dataclass(frozen=True)
class DirectedLine:
    """The runs of a line from left to right, and the direction of its paragraph."""

    runs: tuple[Run, ...]
    is_right_to_left: bool

    @property
    def order(self) -> list[int]:
        """The places of the line's characters in its text, from left to right."""
        return [
            place
            for run in self.runs
            for place in (reversed(range(run.start, run.end)) if run.is_right_to_left else range(run.start, run.end))
        ]


def directed(text: str, part: tuple[int, int] | None = None, base: int = BY_FIRST_LETTER) -> DirectedLine:
    """Return the runs of a line, which is a part of a text (all of it by default) and lies within one paragraph.

    `base` is the embedding level of the paragraph: 0 left to right, 1 right to left, or by its first letter.
    """
    start, end = part or (0, len(text))
    if text.isascii() and base == BY_FIRST_LETTER:
        return DirectedLine((Run(start, end, is_right_to_left=False),) if start < end else (), is_right_to_left=False)
    if any(char in AS_BLANKS for char in text[start:end]):
        text = text[:start] + "".join(AS_BLANKS.get(char, char) for char in text[start:end]) + text[end:]
    paragraph = _paragraph(text, base)
    places = paragraph.places
    first, last = bisect_left(paragraph.kept, start), bisect_left(paragraph.kept, end)
    if first == last:
        return DirectedLine((), is_right_to_left=False)
    # Not asked of the line: ICU gives a line of one level that level as its base.
    _, _, level, _ = paragraph.bidi.getParagraph(places[first])
    line = paragraph.bidi.setLine(places[first], places[last])

    def place(utf16: int) -> int:
        """Return where in the text a place of the line is, which ICU counts in UTF-16 units."""
        return paragraph.kept[bisect_left(places, places[first] + utf16)]

    visual = [line.getVisualRun(index) for index in range(line.countRuns())]
    runs = tuple(Run(place(at), place(at + length), bool(direction)) for at, length, direction in visual)
    return DirectedLine(runs, is_right_to_left=bool(level % 2))


@dataclass(frozen=True)
class _Paragraph:
    """A text as ICU ordered it: where each character that was kept stands in the text, and in ICU's own count."""

    bidi: icu.Bidi
    kept: list[int]
    places: list[int]


# The lines of a block ask for their paragraph one after the other.
@lru_cache(maxsize=32)
def _paragraph(text: str, base: int) -> _Paragraph:
    kept = [at for at in range(len(text)) if not _is_on_bracket(text, at)]
    ordered = "".join(text[at] for at in kept)
    bidi = icu.Bidi()
    bidi.setPara(icu.UnicodeString(ordered), base)
    return _Paragraph(bidi, [*kept, len(text)], utf16_places(ordered))


def _is_on_bracket(text: str, at: int) -> bool:
    """Tell whether a character is a mark on a bracket: it goes wherever that goes (UAX 9, N0), which ICU forgets."""
    if not unicodedata.combining(text[at]):
        return False
    while at > 0 and icu.Char.charDirection(text[at]) == icu.UCharDirection.DIR_NON_SPACING_MARK:
        at -= 1
    return bool(icu.Char.getIntPropertyValue(text[at], icu.UProperty.BIDI_PAIRED_BRACKET_TYPE))


def utf16_places(text: str) -> list[int]:
    """Return where each character of a text begins in UTF-16, in which ICU counts, and where the last one ends."""
    return [0, *accumulate(2 if ord(char) > 0xFFFF else 1 for char in text)]
