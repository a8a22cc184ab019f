"""A block that wraps: a text, a font and a box come in, lines as large as they fit the box go out.

Lines break by the Unicode rules (UAX 14); words are never hyphenated.
"""

import math
from collections.abc import Callable, Iterator
from dataclasses import dataclass, replace
from itertools import pairwise

import icu

from yenzo.core.shapes.box import Box
from yenzo.core.shapes.outline import Outline
from yenzo.core.text.bidi import utf16_places
from yenzo.core.text.fonts import Font
from yenzo.core.text.line import placed_in_box, size_in_box
from yenzo.core.text.shaping import ShapedLine, drawn, shape_line
from yenzo.core.text.styles import BlockStyle, Laid

SEARCH_ROUNDS = 14
TIGHTENING = (0.0, 0.34, 0.67, 1.0)
# A hair of the width, so that what fits exactly isn't broken for rounding.
SLACK = 1e-9
SOFT_HYPHEN, HYPHEN = "\u00ad", "-"


def fit_block(font: Font, text: str, box: Box, style: BlockStyle) -> Laid:
    """Set a text in lines as large as it fits the box; at its least letter height it is tightened as far as allowed.

    What doesn't fit even then sticks out of the box: that is for preflight to find.
    """
    laid = None
    for share in TIGHTENING:
        tightened = _tightened(style, share)
        laid = _fit(font, text, box, tightened)
        ink = laid.outline.bounds
        if ink is None or ink.excess_over(box) <= SLACK or tightened == _tightened(style, 1.0):
            break
    assert laid is not None
    return laid


def _tightened(style: BlockStyle, share: float) -> BlockStyle:
    letters = style.spacing_em if style.least_spacing_em is None else min(style.least_spacing_em, style.spacing_em)
    lines = (
        style.line_spacing if style.least_line_spacing is None else min(style.least_line_spacing, style.line_spacing)
    )
    return replace(
        style,
        spacing_em=style.spacing_em + share * (letters - style.spacing_em),
        line_spacing=style.line_spacing + share * (lines - style.line_spacing),
    )


@dataclass(frozen=True)
class _Piece:
    """What may not be broken: where it stands in the text, its advance with and without the space that ends it."""

    start: int
    end: int
    advance_em: float
    inked_em: float
    ends_line: bool


def _fit(font: Font, text: str, box: Box, style: BlockStyle) -> Laid:
    pieces = list(_pieces(font, text, style))
    if not pieces:
        return Laid(Outline.empty(), style.least_mm)
    height_em = font.letter_height_em
    pitch_em = height_em * style.line_spacing

    def fits(em_mm: float) -> bool:
        """Tell whether the lines fit into the box at this size of the em."""
        lines = _broken(pieces, box.width / em_mm)
        widest = max(_width(line) for line in lines)
        return widest * em_mm <= box.width * (1 + SLACK) and (
            height_em + (len(lines) - 1) * pitch_em
        ) * em_mm <= box.height * (1 + SLACK)

    em_mm = _largest(fits, style.least_mm / height_em, style.most_mm / height_em)
    lines = _broken(pieces, box.width / em_mm)
    outline, missing = _drawn_lines(font, text, lines, style, pitch_em, box.width / em_mm)
    ink = outline.bounds
    if ink is None:
        return Laid(Outline.empty(), style.least_mm, missing, (text,))
    if size_in_box(font, ink, box, style) < em_mm and len(lines) > 1:
        # The ink is larger than the advances told (swashes, tails): break for what it will be.
        em_mm = size_in_box(font, ink, box, style)
        lines = _broken(pieces, box.width / em_mm)
        outline, missing = _drawn_lines(font, text, lines, style, pitch_em, box.width / em_mm)
    laid = placed_in_box(font, outline, box, style)
    said = tuple(text[line[0].start : line[-1].end].strip() for line in lines)
    return replace(laid, missing=missing, lines=said)


def _pieces(font: Font, text: str, style: BlockStyle) -> Iterator[_Piece]:
    space_em = shape_line(font, " ", style).advance_em
    for start, end in line_parts(text):
        piece = text[start:end]
        inked = piece.rstrip()
        inked_em = shape_line(font, inked, style).advance_em if inked else 0.0
        advance_em = inked_em
        if inked.endswith(SOFT_HYPHEN):
            # Only where the line breaks there is a hyphen.
            inked_em = shape_line(font, inked[:-1] + HYPHEN, style).advance_em
        spaces = sum(char == " " for char in piece[len(inked) :])
        yield _Piece(start, end, advance_em + spaces * space_em, inked_em, piece.endswith("\n"))


def line_parts(text: str) -> Iterator[tuple[int, int]]:
    """Yield where the parts of a text begin and end that a line may break between (UAX 14)."""
    breaks = icu.BreakIterator.createLineInstance(icu.Locale.getRoot())
    breaks.setText(icu.UnicodeString(text))
    at = {place: index for index, place in enumerate(utf16_places(text))}
    return pairwise([0, *(at[place] for place in breaks)])


def _broken(pieces: list[_Piece], width_em: float) -> list[list[_Piece]]:
    """Return lines of pieces, each as full as it gets; a piece that is too wide has a line of its own."""
    lines: list[list[_Piece]] = []
    line: list[_Piece] = []
    advance = 0.0
    for piece in pieces:
        if line and advance + piece.inked_em > width_em * (1 + SLACK):
            lines.append(line)
            line, advance = [], 0.0
        line.append(piece)
        advance += piece.advance_em
        if piece.ends_line:
            lines.append(line)
            line, advance = [], 0.0
    return [*lines, line] if line else lines


def _width(line: list[_Piece]) -> float:
    return sum(piece.advance_em for piece in line[:-1]) + line[-1].inked_em


def _largest(fits: Callable[[float], bool], least: float, most: float) -> float:
    """Return the largest size that fits (or the least one, when none does)."""
    if fits(most):
        return most
    low, high = math.log(least), math.log(most)
    for _ in range(SEARCH_ROUNDS):
        middle = (low + high) / 2
        low, high = (middle, high) if fits(math.exp(middle)) else (low, middle)
    return math.exp(low)


def _drawn_lines(
    font: Font, text: str, lines: list[list[_Piece]], style: BlockStyle, pitch_em: float, width_em: float
) -> tuple[Outline, tuple[str, ...]]:
    parts: list[Outline] = []
    missing: dict[str, None] = {}
    shaped = [_shaped_line(font, text, line, style) for line in lines]
    widest = max(line.advance_em for line in shaped)
    if style.align == "justified":
        widest = max(widest, width_em)
    for row, (line, pieces) in enumerate(zip(shaped, lines, strict=True)):
        is_last = row == len(lines) - 1 or pieces[-1].ends_line
        stretched = line.stretched(widest) if style.align == "justified" and not is_last else line
        spare = widest - stretched.advance_em
        x = {"right": spare, "center": spare / 2}.get(style.align, 0.0)
        if style.align == "justified" and line.is_right_to_left:
            x = spare
        missing |= dict.fromkeys(line.missing)
        part = drawn(font, stretched)
        if part:
            parts.append(part.shifted(x, row * pitch_em))
    return Outline.joined(parts), tuple(missing)


def _shaped_line(font: Font, text: str, line: list[_Piece], style: BlockStyle) -> ShapedLine:
    """Return a line as it is drawn: with a hyphen where it ends within a word."""
    begin, end = _stripped(text, line[0].start, line[-1].end)
    if text[begin:end].endswith(SOFT_HYPHEN) and end < len(text):
        text = text[: end - 1] + HYPHEN + text[end:]
    return shape_line(font, text, style, (begin, end))


def _stripped(text: str, start: int, end: int) -> tuple[int, int]:
    """Return a part of a text without the blanks at its ends."""
    line = text[start:end]
    begins = start + len(line) - len(line.lstrip())
    return begins, begins + len(line.strip())
