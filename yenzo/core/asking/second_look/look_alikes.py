"""Letters of another script that look the same: a Cyrillic а in a Latin word (UTS 39, mixed-script confusables)."""

import re
from collections import Counter
from collections.abc import Iterator

import icu

from yenzo.core.asking.second_look.interface import Doubt, Looked
from yenzo.core.translation import translate

WORD = re.compile(r"[^\W\d_]+")
# Letters that look the same in the fonts of most people, one row a shape (Unicode's confusables.txt, single letters).
SHAPES = {
    "Cyrillic": dict(zip("АаВСсЕеНІіЈјКМОоРрЅѕТХхУуԌԛԝ", "AaBCcEeHIiJjKMOoPpSsTXxYyGqw", strict=True)),
    "Greek": dict(zip("ΑΒΕΖΗΙΚΜΝΟοΡΤΥΧν", "ABEZHIKMNOoPTYXv", strict=True)),
}
BACK = {script: {latin: own for own, latin in shapes.items()} for script, shapes in SHAPES.items()}
MIXED = {"Latin", *SHAPES}


def look(looked: Looked) -> Iterator[Doubt]:
    """Yield words of letters of two scripts, and words whose letters only look like those of all others."""
    if looked.text.isascii():
        return
    words = [(found, _scripts(found[0])) for found in WORD.finditer(looked.text)]
    most = Counter(script for _, scripts in words for script in scripts.elements() if script in MIXED).most_common(1)
    for found, scripts in words:
        known = [script for script in scripts if script in MIXED]
        main = scripts.most_common(1)[0][0] if scripts else ""
        if len(known) > 1:
            mended = _in_script(found[0], main) or _in_script(found[0], known[-1])
        elif known and most and most[0][0] == "Latin" and main in SHAPES and len(found[0]) > 1:
            mended = _in_script(found[0], "Latin")
            if mended is None:
                continue
        else:
            continue
        names = translate("“{word}” has letters of two scripts that look alike. Is that meant?", word=found[0])
        text = looked.text
        suggestion = None if mended is None else text[: found.start()] + mended + text[found.end() :]
        yield Doubt("look_alike", names, suggestion)


def _scripts(word: str) -> Counter[str]:
    return Counter(icu.Script.getScript(char).getName() for char in word if char.isalpha())


def _in_script(word: str, script: str) -> str | None:
    """Return a word with letters of one script only; None where one has no look-alike there."""
    letters = []
    for char in word:
        own = icu.Script.getScript(char).getName()
        if own == script or own not in MIXED:
            letters.append(char)
            continue
        latin = char if own == "Latin" else SHAPES[own].get(char)
        other = latin if script == "Latin" else BACK.get(script, {}).get(latin or "")
        if other is None:
            return None
        letters.append(other)
    return "".join(letters)
