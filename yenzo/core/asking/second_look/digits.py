"""Digits among letters and letters among digits that look alike: 0 and O, 1 and I or l, 5 and S."""

import re
from collections.abc import Iterator

from yenzo.core.asking.second_look.interface import Doubt, Looked
from yenzo.core.translation import translate, translate_noop

LETTER_OF = {"0": "O", "1": "I", "5": "S"}
DIGIT_OF = {"O": "0", "o": "0", "I": "1", "l": "1"}
WORD = re.compile(r"[^\W_]+")
# Of a code of letters and digits (AB10, K1T5) nobody knows what is meant: only words of many letters are asked about.
LEAST_LETTERS = 3


def look(looked: Looked) -> Iterator[Doubt]:
    """Yield words that a digit stands in, and numbers that a letter stands in."""
    for found in WORD.finditer(looked.text):
        word = found[0]
        mended = _as_letters(word) or _as_number(word)
        if mended is None:
            continue
        suggestion = looked.text[: found.start()] + mended + looked.text[found.end() :]
        ask = translate_noop("Digits and letters that look alike stand in “{word}”. Should it be “{mended}”?")
        message = translate(ask, word=word, mended=mended)
        yield Doubt("digit_for_letter", message, suggestion)


def _as_letters(word: str) -> str | None:
    """Return a word with letters for its digits: each between letters, or a nought before small ones."""
    letters = sum(char.isalpha() for char in word)
    digits = [at for at, char in enumerate(word) if char.isdigit()]
    if letters < LEAST_LETTERS or not digits or len(digits) * 2 > letters:
        return None
    for at in digits:
        is_between = 0 < at < len(word) - 1 and word[at - 1].isalpha() and word[at + 1].isalpha()
        begins = at == 0 and word[at] == "0" and word[1:].isalpha()
        if word[at] not in LETTER_OF or not (is_between or begins):
            return None
    return "".join(_letter(word, at) if char in LETTER_OF else char for at, char in enumerate(word))


def _letter(word: str, at: int) -> str:
    """Return the letter for a digit, as large as the letters beside it."""
    beside = word[at - 1] if at else word[1]
    if beside.isupper() or (at == 0):
        return LETTER_OF[word[at]]
    return "l" if word[at] == "1" else LETTER_OF[word[at]].lower()


def _as_number(word: str) -> str | None:
    """Return a number whose noughts or ones were typed as letters: each stands between digits."""
    if not re.fullmatch(r"\d+(?:[OoIl]+\d+)+", word):
        return None
    return "".join(DIGIT_OF.get(char, char) for char in word)
