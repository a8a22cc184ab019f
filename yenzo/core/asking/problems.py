"""Problems with entries, and what is asked of the typefaces to find them."""

from collections.abc import Iterable
from typing import Protocol

from yenzo.core.asking.invisible import shown
from yenzo.core.documents.values import Frozen
from yenzo.core.translation import listed, translate

# What a problem with the goods themselves, and no field, is of.
GOODS = "variant"
# What is told of an entry and doesn't keep it from being made.
LEFT_OUT = "left_out"
TYPED_ORDER = "typed_order"


class Problem(Frozen):
    """Something about an entry: a code for programs, the field, and what, why and the remedy in words."""

    code: str
    field: str
    message: str


class Coverage(Protocol):
    """Which characters the typefaces of a set-up have."""

    def missing(self, typeface: str, text: str, language: str) -> tuple[str, ...]:
        """Return the characters of a text that the typeface lacks, each once, in order."""
        ...

    def having(self, text: str, language: str, among: Iterable[str]) -> tuple[str, ...]:
        """Return which of the typefaces have all characters of a text."""
        ...


def quoted(words: Iterable[str]) -> str:
    """Return words in quotes as a list in a sentence."""
    return listed(translate("“{word}”", word=shown(word)) for word in words)
