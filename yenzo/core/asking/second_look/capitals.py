"""Capitals where none belong: “HALcYON”, “JOhn”, “hELLO”. Names that are written so pass: MacDonald, O'Brien, d'Arc."""

import re
from collections.abc import Iterator

from yenzo.core.asking.second_look.interface import Doubt, Looked
from yenzo.core.translation import translate

LETTERS = re.compile(r"[^\W\d_]+")
LEAST_LETTERS = 3
# What is written like this everywhere; plurals of abbreviations (“DVDs”) are told by their shape.
WRITTEN_SO = frozenset({"PhD", "GmbH", "MPhil", "DPhil", "MSc", "BSc", "LLB", "kWh", "MHz", "GHz", "LaTeX"})
# Dutch writes both letters of its IJ as capitals; Irish and Gaelic put a small letter before a capital (nÓg, hÉireann),
# and so do makers of devices.
TWO_AS_ONE = ("IJ",)
SMALL_BEFORE_CAPITAL = "nthbgdmie"
# Parts of names that capitals or a small rest may follow: MacDONALD, DeWITT.
LEAST_PART = 2


def look(looked: Looked) -> Iterator[Doubt]:
    """Yield words in which capitals and small letters are mixed as no name mixes them."""
    for found in LETTERS.finditer(looked.text):
        word = found[0]
        if len(word) >= LEAST_LETTERS and word not in WRITTEN_SO and _is_mixed_up(word):
            mended = _mended(word)
            suggestion = looked.text[: found.start()] + mended + looked.text[found.end() :]
            message = translate("Capitals and small letters are mixed in “{word}”. Is it written so?", word=word)
            yield Doubt("stray_capital", message, suggestion)


def _shape(word: str) -> str:
    """Return a capital as A, a small letter as a, and letters that are neither as nothing."""
    return "".join("A" if char.isupper() or char.istitle() else "a" for char in word if char.lower() != char.upper())


def _is_mixed_up(word: str) -> bool:
    shape = _shape(word)
    if len(shape) < len(word) or shape in {"A" * len(shape), "a" * len(shape)}:
        return False
    # A plain word, and a plural of an abbreviation.
    if re.fullmatch(r"Aa+|A+a", shape) and not (shape.endswith("Aa") and word[-1] != "s" and len(shape) > LEAST_PART):
        return False
    if word.startswith(TWO_AS_ONE) and re.fullmatch(r"AAa+", shape):
        return False
    if word[0] in SMALL_BEFORE_CAPITAL and re.fullmatch(r"aAa*", shape):
        return False
    # Names of several parts: each begins with a capital and goes on small (FitzGerald, isiXhosa), the last may go on in
    # capitals as the whole name does (MacDONALD).
    return re.fullmatch(r"(?:a{2,}|Aa+)(?:Aa+)+|Aa{1,3}A{2,}|a{2,}A{2,}(?!.)", shape) is None or _ends_alone(shape)


def _ends_alone(shape: str) -> bool:
    """Tell whether small letters are followed by capitals only, with nothing of a name before: “heLLO”."""
    return re.fullmatch(r"a{2,}A{2,}", shape) is not None


def _mended(word: str) -> str:
    """Return a word as most of its letters are written: in capitals, or with one at its beginning."""
    capitals = sum(char.isupper() for char in word)
    if capitals > len(word) / 2 and not word[0].islower():
        return word.upper()
    return word[0].upper() + word[1:].lower()
