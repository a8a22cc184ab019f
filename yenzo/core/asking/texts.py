"""Texts counted as people count: a text comes in, characters, room left and what isn't allowed go out."""

import icu

from yenzo.core.documents.fields import Allowed, NoteField, ParagraphField, TextField
from yenzo.core.translation import translate

# Beyond these nothing is laid out, so that a book that is pasted in costs nobody a second.
MOST_IN_A_LINE, MOST_IN_A_PARAGRAPH = 500, 5000
# The selector that asks for a character's picture.
EMOJI_STYLE = "\ufe0f"


def most_in(field: TextField) -> int:
    """Return how many code points a text may have at all, whatever its own limit."""
    return MOST_IN_A_PARAGRAPH if isinstance(field, ParagraphField) else MOST_IN_A_LINE


def characters(text: str) -> list[str]:
    """Return the characters as people see them (extended grapheme clusters, UAX 29)."""
    if text.isascii() and "\r" not in text:
        return list(text)
    breaks = icu.BreakIterator.createCharacterInstance(icu.Locale.getRoot())
    unicode_text = icu.UnicodeString(text)
    breaks.setText(unicode_text)
    found, start = [], 0
    for end in breaks:
        found.append(str(unicode_text[start:end]))
        start = end
    return found


def is_emoji(char: str) -> bool:
    """Tell whether a character is shown as a picture by default, or asks to be (UTS 51)."""
    return icu.Char.hasBinaryProperty(ord(char[0]), icu.UProperty.EMOJI_PRESENTATION) or EMOJI_STYLE in char


def words(text: str, language: str = "en") -> list[str]:
    """Return the words as people count them (UAX 29): what has a letter or a digit between two breaks."""
    breaks = icu.BreakIterator.createWordInstance(icu.Locale(language))
    unicode_text = icu.UnicodeString(text)
    breaks.setText(unicode_text)
    parts, start = [], 0
    for end in breaks:
        parts.append(str(unicode_text[start:end]))
        start = end
    return [part for part in parts if any(char.isalnum() for char in part)]


def room_left(field: TextField | NoteField, text: str) -> int | None:
    """Return how many characters still fit (negative when there are too many), or None when there is no limit."""
    return None if field.most_characters is None else field.most_characters - len(characters(text))


def not_allowed(allowed: Allowed, text: str) -> list[str]:
    """Return the characters of a text that aren't allowed, each once, in order."""
    others = set(allowed.others)
    return list(dict.fromkeys(char for char in characters(text) if not _passes(allowed, char, others)))


def _passes(allowed: Allowed, char: str, others: set[str]) -> bool:
    if char in others:
        return True
    if char == "\n":
        return True
    if char == " ":
        return allowed.space
    base = char[0]
    # Marks of a cluster (accents, joiners) go with their letter.
    return (allowed.letters and base.isalpha()) or (allowed.digits and base.isdecimal())


def describe_allowed(allowed: Allowed) -> str:
    """Return the allowed characters in words: "letters, digits, space, - & '"."""
    named = (
        (translate("letters"), allowed.letters),
        (translate("digits"), allowed.digits),
        (translate("space"), allowed.space),
    )
    parts = [name for name, is_on in named if is_on]
    if allowed.others.strip():
        parts.append(" ".join(dict.fromkeys(allowed.others.replace(" ", ""))))
    return ", ".join(parts) or translate("nothing")
