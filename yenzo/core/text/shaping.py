"""Shaping: a line of text and a font come in, placed glyphs in visual order go out (HarfBuzz)."""

import itertools
import unicodedata
from collections.abc import Iterable, Iterator
from dataclasses import dataclass, replace
from functools import lru_cache
from operator import attrgetter

import uharfbuzz as hb

from yenzo.core.shapes.outline import Outline
from yenzo.core.text.bidi import Run, directed
from yenzo.core.text.fonts import Font
from yenzo.core.text.scripts import DEFAULT_SCRIPT, scripts_of
from yenzo.core.text.styles import TextStyle

# Scripts whose letters join, where a gap would tear them (OpenType's cursive scripts that fonts commonly have).
JOINING_SCRIPTS = frozenset({"Arab", "Syrc", "Mand", "Mong", "Nkoo", "Phag", "Adlm", "Rohg", "Deva", "Beng", "Guru"})
# Letters and marks; figures stand by themselves.
LETTERS = frozenset("LM")
NO_LIGATURES = {"liga": 0, "clig": 0}
PLAIN = TextStyle(1, 1)
by_start = attrgetter("start")


@dataclass(frozen=True)
class Glyph:
    """One glyph, its place on the base line in em, y down, and the index of the character that it begins with.

    `joins` tells that it is of a script whose letters are written in one.
    """

    glyph_id: int
    x_em: float
    y_em: float
    cluster: int = 0
    is_space: bool = False
    joins: bool = False


@dataclass(frozen=True)
class ShapedLine:
    """A line of glyphs from left to right, how far it advances, and the characters that the font lacks."""

    glyphs: tuple[Glyph, ...]
    advance_em: float
    missing: tuple[str, ...]
    is_right_to_left: bool = False

    def stretched(self, advance_em: float) -> "ShapedLine":
        """Return the line with its spaces widened alike until it advances this far (never narrowed)."""
        spaces = sum(glyph.is_space for glyph in self.glyphs)
        extra = (advance_em - self.advance_em) / spaces if spaces else 0.0
        if extra <= 0:
            return self
        moved, passed = [], 0
        for glyph in self.glyphs:
            moved.append(replace(glyph, x_em=glyph.x_em + passed * extra))
            passed += glyph.is_space
        return replace(self, glyphs=tuple(moved), advance_em=advance_em)


def shape_line(font: Font, text: str, style: TextStyle = PLAIN, part: tuple[int, int] | None = None) -> ShapedLine:
    """Shape one line, which is a text or a part of a paragraph: runs by direction and script, each by HarfBuzz."""
    start, end = part or (0, len(text))
    if style.in_typed_order:
        # As it was set when it was ordered: each line by itself.
        text, start, end = text[start:end], 0, end - start
    if text.isascii():
        # No letter of it turns, so that lines of a block need not know their paragraph.
        text, start, end = text[start:end], 0, end - start
    asked = (style.language, style.spacing_em, style.features, style.in_typed_order, style.old_setting)
    return _shaped(font, text, (start, end), *asked)


# Words of a block come again with every key; the bound keeps it at some megabytes.
@lru_cache(maxsize=1000)
def _shaped(
    font: Font,
    text: str,
    part: tuple[int, int],
    language: str,
    spacing_em: float,
    tags: tuple[str, ...],
    in_typed_order: bool,
    old_setting: bool,
) -> ShapedLine:
    glyphs: list[Glyph] = []
    missing: dict[str, None] = {}
    pen_em = 0.0
    # Letters that are set apart aren't drawn together (CSS Text 3, 8.2), unless that is asked for by name.
    features = {**(NO_LIGATURES if spacing_em and not old_setting else {}), **dict.fromkeys(tags, 1)}
    is_handwriting = bool(spacing_em) and font.is_connected and not old_setting
    line = directed(text, part)
    runs = sorted(line.runs, key=by_start) if in_typed_order else line.runs
    for run in _by_script(text, runs, in_pairs=not old_setting):
        buffer = hb.Buffer()
        buffer.add_str(text, run.start, run.end - run.start)
        buffer.direction = "rtl" if run.is_right_to_left else "ltr"
        buffer.script = run.script
        buffer.language = language
        hb.shape(font.hb_font, buffer, features)
        infos, positions = buffer.glyph_infos, buffer.glyph_positions
        ends = _cluster_ends([info.cluster for info in infos], run.end)
        is_joining = run.script in JOINING_SCRIPTS
        gap_em = 0.0 if is_joining else spacing_em
        for index, (info, position) in enumerate(zip(infos, positions, strict=True)):
            if info.codepoint == 0:
                missing.setdefault(text[info.cluster : ends[info.cluster]])
            x = pen_em + position.x_offset / font.units_per_em
            is_space = text[info.cluster] == " "
            y = -position.y_offset / font.units_per_em
            joins = is_joining and unicodedata.category(text[info.cluster])[0] in LETTERS
            glyphs.append(Glyph(info.codepoint, x, y, info.cluster, is_space, joins))
            pen_em += position.x_advance / font.units_per_em
            is_last = index + 1 == len(infos)
            follows = "" if is_last else text[infos[index + 1].cluster]
            holds_on = is_handwriting and text[info.cluster].islower() and follows.islower()
            if gap_em and not holds_on and (is_last or infos[index + 1].cluster != info.cluster):
                pen_em += gap_em
    return ShapedLine(tuple(glyphs), pen_em, tuple(missing), line.is_right_to_left)


def drawn(font: Font, line: ShapedLine) -> Outline:
    """Return the outline of a shaped line in em, base line at y = 0; missing glyphs aren't drawn."""
    return Outline.placed([(font.outline(one.glyph_id), one.x_em, one.y_em) for one in line.glyphs if one.glyph_id])


def outline_of(font: Font, text: str, style: TextStyle = PLAIN) -> tuple[Outline, tuple[str, ...]]:
    """Return a text's outline in em, base line at y = 0, and the characters the font lacks (which aren't drawn)."""
    shaped = shape_line(font, text, style)
    return drawn(font, shaped), shaped.missing


@dataclass(frozen=True)
class _ScriptRun(Run):
    script: str


def _by_script(text: str, runs: Iterable[Run], *, in_pairs: bool) -> Iterator[_ScriptRun]:
    """Split runs where the script changes, each from left to right."""
    if text.isascii():
        yield from (_ScriptRun(run.start, run.end, run.is_right_to_left, DEFAULT_SCRIPT) for run in runs)
        return
    scripts = scripts_of(text, in_pairs=in_pairs)
    for run in runs:
        changes = [at for at in range(run.start + 1, run.end) if scripts[at] != scripts[at - 1]]
        parts = list(itertools.pairwise([run.start, *changes, run.end]))
        for start, end in reversed(parts) if run.is_right_to_left else parts:
            yield _ScriptRun(start, end, run.is_right_to_left, scripts[start])


def _cluster_ends(clusters: list[int], end: int) -> dict[int, int]:
    starts = sorted(set(clusters))
    return dict(zip(starts, [*starts[1:], end], strict=True))
