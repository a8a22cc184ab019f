"""What every second look does: a text comes in; what is probably wrong with it, each with its mend, goes out."""

from collections.abc import Callable, Iterator
from dataclasses import dataclass


@dataclass(frozen=True)
class Looked:
    """A text as it is made and as it was typed, and the language of what is made (BCP 47)."""

    text: str
    typed: str
    language: str


@dataclass(frozen=True)
class Doubt:
    """Something that is probably wrong: a code for programs, the question in words, and the whole text mended."""

    code: str
    message: str
    suggestion: str | None = None


SecondLook = Callable[[Looked], Iterator[Doubt]]
