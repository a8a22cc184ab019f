"""Characters that show nothing: a text comes in; the text without them, what was left out and what reorders go out.

By Unicode: default ignorable code points (Standard, section 5.21), joiners where scripts need them (RFC 5892, appendix
A), explicit directional formatting (UAX 9, section 2) and implicit marks, which stay where they change the order.
"""

import unicodedata
from collections.abc import Iterable

import icu
import idna.core

from yenzo.core.translation import listed, translate

# Embeddings, overrides and isolates: they turn the order of what follows, unseen.
REORDERING = frozenset("\u202a\u202b\u202c\u202d\u202e\u2066\u2067\u2068\u2069")
MARKS = frozenset("\u200e\u200f\u061c")
ZWNJ, ZWJ = "\u200c", "\u200d"
EMOJI_STYLE = "\ufe0f"


def without_invisible(text: str) -> tuple[str, tuple[str, ...]]:
    """Return a text without what changes nothing that can be seen, and each kind of what was left out, once."""
    if text.isascii():
        return text, ()
    kept: list[str] = []
    dropped: dict[str, None] = {}
    for at, char in enumerate(text):
        if _shows_nothing(text, at):
            dropped[char] = None
        else:
            kept.append(char)
    cleaned = "".join(kept)
    if MARKS & set(cleaned):
        plain = "".join(char for char in cleaned if char not in MARKS)
        if _visual(plain) == _visual(cleaned):
            dropped |= dict.fromkeys(char for char in cleaned if char in MARKS)
            cleaned = plain
    return cleaned, tuple(dropped)


def reordering(text: str) -> tuple[str, ...]:
    """Return the characters of a text that turn the order of others, each once."""
    return tuple(dict.fromkeys(char for char in text if char in REORDERING))


def has_both_directions(text: str) -> bool:
    """Tell whether letters or digits of a text run in both directions."""
    bidi = icu.Bidi()
    bidi.setPara(icu.UnicodeString(text), icu.Bidi.DEFAULT_LTR)
    return not text.isascii() and bidi.getDirection() == icu.UBiDiDirection.MIXED


def shown(word: str) -> str:
    """Return a word as people can see it: one of blanks and invisible characters only, by the names of those."""
    if any(not char.isspace() and not is_ignorable(char) for char in word) or word == " ":
        return word
    return ", ".join(character_name(char) for char in word)


def character_name(char: str) -> str:
    """Return what Unicode calls a character, with its code."""
    return f"{unicodedata.name(char, 'unnamed').lower()} (U+{ord(char):04X})"


def is_ignorable(char: str) -> bool:
    """Tell whether a character is shown as nothing unless a font knows better."""
    return bool(icu.Char.hasBinaryProperty(ord(char), icu.UProperty.DEFAULT_IGNORABLE_CODE_POINT))


def _shows_nothing(text: str, at: int) -> bool:
    char = text[at]
    if char.isascii() or not is_ignorable(char) or char in REORDERING or char in MARKS:
        return False
    if char in {ZWNJ, ZWJ}:
        return not (_joins(text, at) or (char == ZWJ and _joins_emoji(text, at)))
    # Selectors choose the form of the character before them, if there is one.
    is_selector = icu.Char.hasBinaryProperty(ord(char), icu.UProperty.VARIATION_SELECTOR)
    return not (is_selector and at > 0 and not text[at - 1].isspace())


def _joins(text: str, at: int) -> bool:
    try:
        return bool(idna.core.valid_contextj(text, at))
    except ValueError:
        return False


def _joins_emoji(text: str, at: int) -> bool:
    before, after = text[:at].rstrip(EMOJI_STYLE)[-1:], text[at + 1 : at + 2]
    return all(
        one and icu.Char.hasBinaryProperty(ord(one), icu.UProperty.EXTENDED_PICTOGRAPHIC) for one in (before, after)
    ) or (bool(after) and unicodedata.category(before or " ") == "Sk")


def _visual(text: str) -> list[str]:
    """Return the characters of a text from left to right, without marks, as a paragraph of its own direction."""
    bidi = icu.Bidi()
    bidi.setPara(icu.UnicodeString(text), icu.Bidi.DEFAULT_LTR)
    written = str(bidi.writeReordered(0))
    return [char for char in written if char not in MARKS]


def turning_words(turning: Iterable[str]) -> str:
    """Return the refusal of characters that turn the order of letters."""
    return translate(
        "There is an invisible character that turns the order of letters: {names}. Please type the text anew.",
        names=listed(map(character_name, turning)),
    )


def dropped_words(dropped: Iterable[str]) -> str:
    """Return what is told of characters that were left out."""
    return translate("Left out, as it shows nothing: {names}.", names=listed(map(character_name, dropped)))
