"""Spaces and commas: two spaces in a row, a space before a comma, none behind one, a comma or bracket left open."""

import re
from collections.abc import Iterator

from yenzo.core.asking.second_look.interface import Doubt, Looked
from yenzo.core.translation import translate

BEFORE_COMMA = re.compile(r"(?<=\w)[ \t]+(?=,(?:\s|\w|$))")
AFTER_COMMA = re.compile(r"(?<=[^\W\d_]),(?=[^\W\d_])")
BRACKETS = {"(": ")", "[": "]", "{": "}"}


def look(looked: Looked) -> Iterator[Doubt]:
    """Yield what is the matter with the spaces of a text, and with commas and brackets that nothing follows."""
    text = looked.text
    if re.search(r"\S {2,}\S", looked.typed):
        mended = re.sub(r"(?<=\S) {2,}(?=\S)", " ", text)
        message = translate("There are two spaces in a row in “{text}”. Should it be one?", text=looked.typed)
        yield Doubt("two_spaces", message, mended)
    if BEFORE_COMMA.search(text):
        message = translate("A space stands before a comma in “{text}”. Is that meant?", text=text)
        yield Doubt("space_before_comma", message, BEFORE_COMMA.sub("", text))
    if AFTER_COMMA.search(text):
        message = translate("No space stands behind a comma in “{text}”. Is that meant?", text=text)
        yield Doubt("no_space_after_comma", message, AFTER_COMMA.sub(", ", text))
    if text.endswith(",") and len(text) > 1:
        message = translate("“{text}” ends with a comma. Is anything missing?", text=text)
        yield Doubt("ends_with_comma", message, text.rstrip(", "))
    for opening, closing in BRACKETS.items():
        if text.count(opening) != text.count(closing):
            message = translate("A bracket in “{text}” has no other one. Is that meant?", text=text)
            yield Doubt("bracket_alone", message)
