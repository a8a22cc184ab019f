"""A word that stands twice in a row: “Salt and and Rye”."""

import re
from collections.abc import Iterator

from yenzo.core.asking.second_look.interface import Doubt, Looked
from yenzo.core.translation import translate

TWICE = re.compile(r"(?<![\w'’-])([^\W\d_]{2,})(\s+)\1(?![\w'’-])")
# “Bora Bora” and “Duran Duran” are names; in a longer text nobody writes so.
LEAST_WORDS = 3


def look(looked: Looked) -> Iterator[Doubt]:
    """Yield words that follow themselves."""
    if len(looked.text.split()) < LEAST_WORDS:
        return
    for found in TWICE.finditer(looked.text):
        suggestion = looked.text[: found.start()] + found[1] + looked.text[found.end() :]
        yield Doubt(
            "word_twice", translate("“{word}” stands twice in a row. Is that meant?", word=found[1]), suggestion
        )
