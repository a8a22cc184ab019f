"""The order of mixed directions against Unicode's own cases (a sweep takes all), and what is seen on the goods."""

from collections.abc import Iterator
from itertools import islice
from pathlib import Path

import pytest

from tests.core.text.test_lettering import BOX, FONTS
from tests.sweeping import shards
from yenzo.core.asking.invisible import reordering, without_invisible
from yenzo.core.text.bidi import BY_FIRST_LETTER, directed
from yenzo.core.text.block import fit_block
from yenzo.core.text.shaping import shape_line
from yenzo.core.text.styles import BlockStyle, TextStyle

UNICODE_DATA = Path("/usr/share/unicode")
# In how many parts they are tried: no divisor of how they are laid out, so that every kind of them comes in each.
EVERY = 29
BASES = (BY_FIRST_LETTER, 0, 1)
# One character of each bidi class; of L, R, AL, EN, ES and ON two, so that brackets stay out of it.
OF_CLASS = {
    "L": "a",
    "R": "\u05d0",
    "AL": "\u0627",
    "EN": "1",
    "ES": "+",
    "ET": "%",
    "AN": "\u0661",
    "CS": ",",
    "B": "\u2029",
    "S": "\t",
    "WS": " ",
    "ON": "!",
    "BN": "\u00ad",
    "NSM": "\u0300",
    "LRE": "\u202a",
    "LRO": "\u202d",
    "RLE": "\u202b",
    "RLO": "\u202e",
    "PDF": "\u202c",
    "LRI": "\u2066",
    "RLI": "\u2067",
    "FSI": "\u2068",
    "PDI": "\u2069",
}
LEVANT = FONTS["levant"]


def cases_of_characters() -> Iterator[tuple[str, int, tuple[int, ...]]]:
    for line in (UNICODE_DATA / "BidiCharacterTest.txt").read_text("utf-8").splitlines():
        if line and line[0] != "#":
            codes, base, _, _, order = line.split(";")
            text = "".join(chr(int(code, 16)) for code in codes.split())
            yield text, (0, 1, BY_FIRST_LETTER)[int(base)], tuple(map(int, order.split()))


def cases_of_classes() -> Iterator[tuple[str, int, tuple[int, ...]]]:
    order: tuple[int, ...] = ()
    for line in (UNICODE_DATA / "BidiTest.txt").read_text("utf-8").splitlines():
        if line.startswith("@Reorder:"):
            order = tuple(map(int, line.removeprefix("@Reorder:").split()))
        elif line and line[0] not in "#@":
            classes, bases = line.split(";")
            text = "".join(OF_CLASS[one] for one in classes.split())
            for bit, base in enumerate(BASES):
                if int(bases, 16) & 1 << bit:
                    yield text, base, order


def is_beyond_us(text: str) -> bool:
    """Tell of texts that are refused (characters that turn others), never come (joiners on brackets), or nest too deep.

    Unicode gives up at 63 brackets in each other, where ICU goes on.
    """
    return bool(reordering(text) or without_invisible(text)[1]) or text.count("(") > 63


@pytest.mark.parametrize("part", shards(EVERY))
@pytest.mark.parametrize(
    ("cases", "count", "known"), [(cases_of_characters, 91_707, 24), (cases_of_classes, 770_241, 40)]
)
def test_cases_of_unicode_stand_in_their_order(cases, count, known, part):
    wrong, seen = [], 0
    for text, base, order in islice(cases(), part, None, EVERY):
        seen += 1
        shown = set(order)
        # What rule X9 takes away has no place.
        if tuple(place for place in directed(text, base=base).order if place in shown) != order:
            wrong.append((text, base, order))
    assert [case for case in wrong if not is_beyond_us(case[0])] == []
    assert seen == -(-(count - part) // EVERY)
    assert len(wrong) <= known


def letters(text: str, style: TextStyle | None = None) -> str:
    """Return the characters of a shaped line from left to right."""
    line = shape_line(LEVANT, text, *([style] if style else []))
    assert [glyph.x_em for glyph in line.glyphs] == sorted(glyph.x_em for glyph in line.glyphs)
    return "".join(text[glyph.cluster] for glyph in line.glyphs)


@pytest.mark.parametrize(
    ("typed", "seen"),
    [
        ("22 مايو 2027", "2027 ويام 22"),
        ("رقم 123", "123 مقر"),
        ("Tern مرحبا Gull", "Tern ابحرم Gull"),
        # Brackets turn with the letters in them.
        ("مرحبا (12)", ")12( ابحرم"),
        ("Tern (مرحبا) 7", "Tern (ابحرم) 7"),
    ],
)
def test_mixed_directions_stand_as_they_are_read(typed, seen):
    assert letters(typed) == seen


def test_an_order_of_before_keeps_its_texts_as_they_were_set():
    assert letters("22 مايو 2027", TextStyle(1, 1, in_typed_order=True)) == "22 ويام 2027"


def test_lines_of_a_block_go_in_the_direction_of_their_paragraph():
    text = "مرحبا بكم يا ضيوف Gull 12"
    laid = fit_block(LEVANT, text, BOX._replace(right=240), BlockStyle(20, 20))
    last = laid.lines[-1]
    assert last == "Gull 12"
    part = (len(text) - len(last), len(text))
    line = shape_line(LEVANT, text, TextStyle(1, 1), part)
    assert line.is_right_to_left
    # "12 Gull" alone reads 12 first; after an Arabic word it stands to the right.
    assert directed("مرحبا 12 Gull", (6, 13)).order == [9, 10, 11, 12, 8, 6, 7]
