"""Spelling aloud: a text comes in; its letters one by one, with names for those easily mistaken, go out."""

from dataclasses import dataclass

from yenzo.core.asking.texts import characters
from yenzo.core.speaking import say, say_noop

# Letters and figures that look alike in many typefaces, and what shows nothing at all.
MISTAKEN = {
    "0": say_noop("zero"),
    "O": say_noop("letter O"),
    "o": say_noop("small letter O"),
    "1": say_noop("one"),
    "I": say_noop("capital I"),
    "l": say_noop("small L"),
    "5": say_noop("five"),
    "S": say_noop("letter S"),
    "8": say_noop("eight"),
    "B": say_noop("letter B"),
    "2": say_noop("two"),
    "Z": say_noop("letter Z"),
    " ": say_noop("space"),
    "\u00a0": say_noop("space that keeps together"),
    "-": say_noop("hyphen"),
    "\u2013": say_noop("dash"),
    "'": say_noop("straight apostrophe"),
    "\u2019": say_noop("curved apostrophe"),
}


@dataclass(frozen=True)
class SpelledLetter:
    """A letter as people see it, and what it is called where it is easily mistaken."""

    letter: str
    name: str


def spelled(text: str) -> tuple[SpelledLetter, ...]:
    """Return the letters of one line of text, marks with the letters that they stand on."""
    return tuple(SpelledLetter(one, say(MISTAKEN[one]) if one in MISTAKEN else "") for one in characters(text))
