"""Breaks of lines, characters and words against Unicode's own cases, and the script that brackets are set in."""

import re
from collections.abc import Iterator
from itertools import pairwise
from pathlib import Path

import pytest

from tests.core.text.test_lettering import FONTS
from yenzo.core.asking.texts import characters, words
from yenzo.core.text.block import line_parts
from yenzo.core.text.scripts import bracket_pairs, scripts_of
from yenzo.core.text.shaping import shape_line
from yenzo.core.text.styles import TextStyle

CASES = Path("/usr/share/unicode/auxiliary")
LATIN, HEBREW, CYRILLIC = "Latn", "Hebr", "Cyrl"
# Debian's cases are of Unicode 15.0, our library follows 16.0: rules came in between for a hyphen that begins a word
# (LB20a) or stands between Hebrew letters (LB21a), a decimal mark that begins a number (LB15c), and quotation marks
# beside spaces (LB15a, LB15b).
NEWER = re.compile(r"^-|[,.]\u0308?[0-9]|[\"\u00ab\u00bb]|\u05d0-\u05d0")


def cases(name) -> Iterator[tuple[str, list[str]]]:
    """Yield each text and the parts that it falls into."""
    for line in (CASES / name).read_text("utf-8").splitlines():
        said = line.partition("#")[0].split()
        if not said or any(0xD800 <= int(code, 16) <= 0xDFFF for code in said if code not in "÷×"):
            continue
        text, ends = "", []
        for mark in said:
            if mark == "÷":
                ends.append(len(text))
            elif mark != "×":
                text += chr(int(mark, 16))
        yield text, [text[start:end] for start, end in pairwise([0, *(end for end in ends if end)])]


def test_lines_break_where_unicode_says_so():
    looked_at, others = 0, []
    for text, parts in cases("LineBreakTest.txt"):
        looked_at += 1
        if [text[start:end] for start, end in line_parts(text)] != parts:
            others.append(text)
    assert looked_at > 7000
    assert [text for text in others if not NEWER.search(text)] == []
    assert len(others) <= 31


def test_characters_are_those_that_unicode_tells_apart():
    looked_at = 0
    for text, parts in cases("GraphemeBreakTest.txt"):
        looked_at += 1
        assert characters(text) == parts
    assert looked_at > 500


def test_words_are_those_that_unicode_tells_apart():
    looked_at = 0
    for text, parts in cases("WordBreakTest.txt"):
        looked_at += 1
        assert words(text) == [part for part in parts if any(char.isalnum() for char in part)]
    assert looked_at > 1500


@pytest.mark.parametrize(
    ("text", "scripts"),
    [
        ("ab (שלום) cd", [LATIN] * 3 + [HEBREW] * 6 + [LATIN] * 3),
        ("(я) b", [CYRILLIC] * 4 + [LATIN]),
        ("a (2027) b", [LATIN] * 10),
        ("a [(я] b", [LATIN] * 2 + [CYRILLIC] * 4 + [LATIN] * 2),
        ("я ((b)) я", [CYRILLIC] * 2 + [LATIN] * 5 + [CYRILLIC] * 2),
        ("()", [LATIN] * 2),
    ],
)
def test_brackets_of_a_pair_are_set_in_the_script_of_what_they_enclose(text, scripts):
    assert scripts_of(text) == scripts


def test_brackets_that_have_no_partner_stand_alone():
    assert bracket_pairs("a ] (b [c) d]") == [(4, 9)]
    assert bracket_pairs("([x])") == [(1, 3), (0, 4)]
    assert scripts_of("я (b", in_pairs=False) == scripts_of("я (b")


def test_texts_that_were_ordered_before_keep_the_scripts_of_then():
    text = "ab (שלום) cd"
    assert scripts_of(text, in_pairs=False)[8] == HEBREW
    assert scripts_of(text, in_pairs=False)[3] == LATIN
    # They are set all the same, letter for letter.
    font = FONTS["levant"]
    now, before = (shape_line(font, text, TextStyle(1, 1, old_setting=old)) for old in (False, True))
    assert [glyph.cluster for glyph in now.glyphs] == [glyph.cluster for glyph in before.glyphs]


@pytest.mark.parametrize(("name", "holds_on"), [("bowline", True), ("wavelet", True), ("quayside", False)])
def test_handwriting_that_is_set_apart_is_torn_between_capitals_and_words_only(name, holds_on):
    font = FONTS[name]

    def wider_by(text):
        """By how many em a text is longer when its letters are set apart by a fifth."""
        return shape_line(font, text, TextStyle(1, 1, spacing_em=0.2)).advance_em - shape_line(font, text).advance_em

    assert font.is_connected is holds_on
    assert wider_by("minimum") == pytest.approx(0.2 * (1 if holds_on else 7), abs=1e-6)
    assert wider_by("WR") == pytest.approx(0.4, abs=1e-6)
    assert shape_line(font, "minimum", TextStyle(1, 1, spacing_em=0.2, old_setting=True)).advance_em == pytest.approx(
        shape_line(font, "minimum").advance_em + 1.4, abs=1e-6
    )
