"""A piece in words, for whoever checks or makes it: a walked piece comes in; its texts and other entries go out."""

from dataclasses import dataclass

from yenzo.core.asking.words import SaidEntry, say_entries
from yenzo.core.documents.fields import TypedField
from yenzo.core.scene.said import MadeText, made_texts
from yenzo.core.spine import Walked


@dataclass(frozen=True)
class LabelledText:
    """A text as it is made, under what people call it."""

    label: str
    made: MadeText

    @property
    def place(self) -> str:
        """The side and area where it stands."""
        return f"{self.made.side} / {self.made.area}"


@dataclass(frozen=True)
class SaidPiece:
    """All that a piece says: the texts as they are made, and the entries that aren't said by them already."""

    texts: tuple[LabelledText, ...]
    entries: tuple[SaidEntry, ...]


def said_piece(walked: Walked) -> SaidPiece:
    """Return what a piece says. An entry that stands on the goods as it was typed isn't repeated."""
    made = made_texts(walked.scene)
    shown = {(text.fields[0], " ".join(text.words.split())) for text in made if len(text.fields) == 1}
    entries = say_entries(walked.setup, walked.asked)
    return SaidPiece(
        tuple(LabelledText(_label(walked, text), text) for text in made),
        tuple(entry for entry in entries if (entry.field, " ".join(entry.words.split())) not in shown),
    )


def _label(walked: Walked, text: MadeText) -> str:
    """Return a text's own line's label where it says that line's entry, else where it stands."""
    field = walked.setup.field(text.fields[0]) if len(text.fields) == 1 else None
    return field.label if isinstance(field, TypedField) else text.area
