"""Patterns that texts must have, written as people write examples: a shape comes in, whether a text has it goes out.

In a shape A stands for a letter, 9 for a digit, * for any character; what is in brackets may be missing; everything
else stands for itself. "AA 9999" is two letters, a space and four digits.
"""

import re
from functools import lru_cache

from yenzo.core.documents.fields import Pattern
from yenzo.core.translation import (
    current_language,
    is_source_language,
    listed,
    translate,
    translate_noop,
    translate_plural,
)

SIGNS = {
    " ": translate_noop("a space"),
    "-": translate_noop("a hyphen"),
    ".": translate_noop("a full stop"),
    ",": translate_noop("a comma"),
    "/": translate_noop("a slash"),
    "'": translate_noop("an apostrophe"),
}
COUNTS = ("", "one", "two", "three", "four", "five", "six", "seven", "eight", "nine", "ten", "eleven", "twelve")
CLASSES = {"A": r"[^\W\d_]", "9": r"\d", "*": r".", "[": "(?:", "]": ")?"}
SIGN_MARKS = r"[\u0300-\u036f]*"


def has_pattern(pattern: Pattern, text: str) -> bool:
    """Tell whether a text has one of the pattern's shapes, from its beginning to its end."""
    return any(_compiled(shape).fullmatch(text) for shape in pattern.shapes)


@lru_cache(maxsize=500)
def _compiled(shape: str) -> re.Pattern[str]:
    parts = [CLASSES.get(sign, re.escape(sign)) + (SIGN_MARKS if sign == "A" else "") for sign in shape]
    return re.compile("".join(parts))


def pattern_words(pattern: Pattern) -> str:
    """Return a pattern in plain words: its own, or those of its shapes."""
    return pattern.words or translate(", or ").join(shape_words(shape) for shape in pattern.shapes)


def shape_words(shape: str) -> str:
    """Return a shape in plain words."""
    said: list[str] = []
    at, is_maybe = 0, False
    while at < len(shape):
        sign = shape[at]
        count = len(shape[at:]) - len(shape[at:].lstrip(sign))
        if sign in "[]":
            is_maybe = sign == "["
            at += 1
            continue
        words = _run_words(sign, count)
        said.append(translate("perhaps {what}", what=words) if is_maybe else words)
        at += count
    return listed(said)


def _run_words(sign: str, count: int) -> str:
    # Numbers in words are English; other languages have digits.
    number = COUNTS[count] if count < len(COUNTS) and is_source_language(current_language()) else str(count)
    match sign:
        case "A":
            return translate_plural("one letter", "{number} letters", count, number=number)
        case "9":
            return translate_plural("one digit", "{number} digits", count, number=number)
        case "*":
            return translate_plural("one character", "{number} characters", count, number=number)
    name = translate(SIGNS[sign]) if sign in SIGNS else translate("“{word}”", word=sign)
    if count == 1:
        return name
    return translate("{number} times {sign}", number=number, sign=name.removeprefix("a ").removeprefix("an "))


def pattern_fault(pattern: Pattern) -> str | None:
    """Return what is the matter with a pattern's examples: one that should pass and doesn't, or the other way round."""
    if not has_pattern(pattern, pattern.passes):
        return f"“{pattern.passes}” should pass, but hasn't the shape {' or '.join(pattern.shapes)}."
    if has_pattern(pattern, pattern.fails):
        return f"“{pattern.fails}” should not pass, but has the shape {' or '.join(pattern.shapes)}."
    return None
