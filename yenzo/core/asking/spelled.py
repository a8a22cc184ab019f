"""Spelling aloud: a text comes in; its letters one by one, with names for those easily mistaken, go out."""

from dataclasses import dataclass

from yenzo.core.asking.texts import characters
from yenzo.core.translation import translate, translate_noop

# Letters and figures that look alike in many typefaces, and what shows nothing at all.
MISTAKEN = {
    "0": translate_noop("zero"),
    "O": translate_noop("letter O"),
    "o": translate_noop("small letter O"),
    "1": translate_noop("one"),
    "I": translate_noop("capital I"),
    "l": translate_noop("small L"),
    "5": translate_noop("five"),
    "S": translate_noop("letter S"),
    "8": translate_noop("eight"),
    "B": translate_noop("letter B"),
    "2": translate_noop("two"),
    "Z": translate_noop("letter Z"),
    " ": translate_noop("space"),
    "\u00a0": translate_noop("space that keeps together"),
    "-": translate_noop("hyphen"),
    "\u2013": translate_noop("dash"),
    "'": translate_noop("straight apostrophe"),
    "\u2019": translate_noop("curved apostrophe"),
}


@dataclass(frozen=True)
class SpelledLetter:
    """A letter as people see it, and what it is called where it is easily mistaken."""

    letter: str
    name: str


def spelled(text: str) -> tuple[SpelledLetter, ...]:
    """Return the letters of one line of text, marks with the letters that they stand on."""
    return tuple(SpelledLetter(one, translate(MISTAKEN[one]) if one in MISTAKEN else "") for one in characters(text))
