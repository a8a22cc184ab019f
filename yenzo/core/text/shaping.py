"""Shaping: a line of text and a font come in, placed glyphs in visual order go out (HarfBuzz, bidi by ICU)."""

import itertools
from collections.abc import Iterator
from dataclasses import dataclass

import icu
import uharfbuzz as hb

from yenzo.core.text.fonts import Font

# Scripts whose characters go along with their neighbours' (UAX 24).
NEUTRAL_SCRIPTS = {"Zyyy", "Zinh", "Zzzz"}
DEFAULT_SCRIPT = "Latn"
RIGHT_TO_LEFT = 1


@dataclass(frozen=True)
class Glyph:
    """One glyph, its place on the base line in em, y down."""

    glyph_id: int
    x_em: float
    y_em: float


@dataclass(frozen=True)
class ShapedLine:
    """A line of glyphs from left to right, how far it advances, and the characters that the font lacks."""

    glyphs: tuple[Glyph, ...]
    advance_em: float
    missing: tuple[str, ...]


def shape_line(font: Font, text: str, language: str = "en") -> ShapedLine:
    """Shape one line: runs by the Unicode bidi algorithm (UAX 9) and by script, each shaped by HarfBuzz."""
    glyphs: list[Glyph] = []
    missing: dict[str, None] = {}
    pen_em = 0.0
    for run in _visual_runs(text):
        buffer = hb.Buffer()
        buffer.add_str(text, run.start, run.end - run.start)
        buffer.direction = "rtl" if run.is_right_to_left else "ltr"
        buffer.script = run.script
        buffer.language = language
        hb.shape(font.hb_font, buffer)
        ends = _cluster_ends([info.cluster for info in buffer.glyph_infos], run.end)
        for info, position in zip(buffer.glyph_infos, buffer.glyph_positions, strict=True):
            if info.codepoint == 0:
                missing.setdefault(text[info.cluster : ends[info.cluster]])
            x = pen_em + position.x_offset / font.units_per_em
            glyphs.append(Glyph(info.codepoint, x, -position.y_offset / font.units_per_em))
            pen_em += position.x_advance / font.units_per_em
    return ShapedLine(tuple(glyphs), pen_em, tuple(missing))


@dataclass(frozen=True)
class _Run:
    start: int
    end: int
    is_right_to_left: bool
    script: str


def _visual_runs(text: str) -> Iterator[_Run]:
    if text.isascii():
        if text:
            yield _Run(0, len(text), is_right_to_left=False, script=DEFAULT_SCRIPT)
        return
    levels = _levels(text)
    scripts = _scripts(text)
    runs = [
        (start, end, levels[start], scripts[start])
        for start, end in itertools.pairwise(
            [
                0,
                *(i for i in range(1, len(text)) if (levels[i], scripts[i]) != (levels[i - 1], scripts[i - 1])),
                len(text),
            ]
        )
    ]
    order = icu.Bidi.reorderVisual([level for _, _, level, _ in runs])
    for index in order:
        start, end, level, script = runs[index]
        yield _Run(start, end, is_right_to_left=level % 2 == RIGHT_TO_LEFT, script=script)


def _levels(text: str) -> list[int]:
    """Return the bidi level of each code point (ICU counts UTF-16 units)."""
    bidi, paragraph = icu.Bidi(), icu.UnicodeString(text)
    bidi.setPara(paragraph, icu.Bidi.DEFAULT_LTR)
    by_unit = bidi.getLevels()
    levels, unit = [], 0
    for char in text:
        levels.append(by_unit[unit])
        unit += 2 if ord(char) > 0xFFFF else 1
    return levels


def _scripts(text: str) -> list[str]:
    found = [icu.Script.getScript(char).getShortName() for char in text]
    strong = [script for script in found if script not in NEUTRAL_SCRIPTS]
    current = strong[0] if strong else DEFAULT_SCRIPT
    for index, script in enumerate(found):
        current = current if script in NEUTRAL_SCRIPTS else script
        found[index] = current
    return found


def _cluster_ends(clusters: list[int], end: int) -> dict[int, int]:
    starts = sorted(set(clusters))
    return dict(zip(starts, [*starts[1:], end], strict=True))
