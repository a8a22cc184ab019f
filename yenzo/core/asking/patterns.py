"""Patterns that texts must have, written as people write examples: a shape comes in, whether a text has it goes out.

In a shape A stands for a letter, 9 for a digit, * for any character; what is in brackets may be missing; everything
else stands for itself. "AA 9999" is two letters, a space and four digits.
"""

import re
from functools import lru_cache

from yenzo.core.documents.fields import Pattern

NAMES = {"A": ("letter", "letters"), "9": ("digit", "digits"), "*": ("character", "characters")}
SIGNS = {" ": "a space", "-": "a hyphen", ".": "a full stop", ",": "a comma", "/": "a slash", "'": "an apostrophe"}
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
    return pattern.words or ", or ".join(shape_words(shape) for shape in pattern.shapes)


def shape_words(shape: str) -> str:
    """Return a shape in plain words."""
    said: list[str] = []
    at, maybe = 0, ""
    while at < len(shape):
        sign = shape[at]
        count = len(shape[at:]) - len(shape[at:].lstrip(sign))
        if sign in "[]":
            maybe = "perhaps " if sign == "[" else ""
            at += 1
            continue
        said.append(maybe + _run_words(sign, count))
        at += count
    return said[0] if len(said) == 1 else f"{', '.join(said[:-1])} and {said[-1]}"


def _run_words(sign: str, count: int) -> str:
    number = COUNTS[count] if count < len(COUNTS) else str(count)
    if sign in NAMES:
        return f"{number} {NAMES[sign][count > 1]}"
    name = SIGNS.get(sign, f"“{sign}”")
    return name if count == 1 else f"{number} times {name.removeprefix('a ').removeprefix('an ')}"


def pattern_fault(pattern: Pattern) -> str | None:
    """Return what is the matter with a pattern's examples: one that should pass and doesn't, or the other way round."""
    if not has_pattern(pattern, pattern.passes):
        return f"“{pattern.passes}” should pass, but hasn't the shape {' or '.join(pattern.shapes)}."
    if has_pattern(pattern, pattern.fails):
        return f"“{pattern.fails}” should not pass, but has the shape {' or '.join(pattern.shapes)}."
    return None
