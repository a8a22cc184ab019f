"""The script that each character is set in (UAX 24): a text comes in, a script a character goes out."""

import icu

NEUTRAL_SCRIPTS = {"Zyyy", "Zinh", "Zzzz"}
DEFAULT_SCRIPT = "Latn"
OPENS, CLOSES = 1, 2


def scripts_of(text: str, *, in_pairs: bool = True) -> list[str]:
    """Return the script of each character by its four letters (ISO 15924).

    What belongs to no script takes that of what stands before it. Brackets of a pair (UAX 9, BD16) take one script,
    that of what they enclose, unless `in_pairs` is off: each by what stands before it, as texts were set before.
    """
    found = [icu.Script.getScript(char).getShortName() for char in text]
    current = next((script for script in found if script not in NEUTRAL_SCRIPTS), DEFAULT_SCRIPT)
    opens, closes = _pairs_around(text, found) if in_pairs else ({}, {})
    around: list[str] = []
    for index, script in enumerate(found):
        if index in opens:
            around.append(current)
            current = opens[index]
        elif script not in NEUTRAL_SCRIPTS:
            current = script
        found[index] = current
        if index in closes:
            # What comes behind belongs to what stands before.
            found[index], current = opens[closes[index]], around.pop()
    return found


def _pairs_around(text: str, scripts: list[str]) -> tuple[dict[int, str], dict[int, int]]:
    """Return by where a bracket opens the script that its pair encloses, and by where one closes where it opened."""
    opens: dict[int, str] = {}
    closes: dict[int, int] = {}
    for opening, closing in bracket_pairs(text):
        inside = (script for script in scripts[opening + 1 : closing] if script not in NEUTRAL_SCRIPTS)
        if script := next(inside, ""):
            opens[opening], closes[closing] = script, opening
    return opens, closes


def bracket_pairs(text: str) -> list[tuple[int, int]]:
    """Return where brackets open and close that belong together, the inner ones first (UAX 9, BD16)."""
    waiting: list[int] = []
    pairs: list[tuple[int, int]] = []
    for index, char in enumerate(text):
        kind = icu.Char.getIntPropertyValue(char, icu.UProperty.BIDI_PAIRED_BRACKET_TYPE)
        if kind == OPENS:
            waiting.append(index)
        elif kind == CLOSES:
            partner = icu.Char.getBidiPairedBracket(char)
            at = next((place for place in reversed(waiting) if text[place] == partner), None)
            if at is not None:
                del waiting[waiting.index(at) :]
                pairs.append((at, index))
    return pairs
