"""A piece in words, for whoever checks or makes it: what was made comes in; its texts and other entries go out."""

from collections.abc import Sequence
from dataclasses import dataclass, replace

from yenzo.core.asking.words import EntryInWords, entries_in_words
from yenzo.core.documents.field_base import TypedField
from yenzo.core.documents.own_field import OwnItemsField
from yenzo.core.documents.setup import Setup
from yenzo.core.record import Recorded, TextRecord


@dataclass(frozen=True)
class LabelledText:
    """A text as it is made, under what people call it, with the side and area where it stands."""

    label: str
    place: str
    made: TextRecord


@dataclass(frozen=True)
class PieceInWords:
    """All that a piece says: the texts as they are made, and the entries that aren't said by them already."""

    texts: tuple[LabelledText, ...]
    entries: tuple[EntryInWords, ...]


def piece_in_words(recorded: Recorded) -> PieceInWords:
    """Return what a piece says. An entry that stands on the goods as it was typed isn't repeated."""
    made = [(area, text) for area in recorded.areas for text in area.texts]
    shown = {(text.fields[0], " ".join(text.words.split())) for _, text in made if len(text.fields) == 1}
    entries = entries_in_words(recorded.setup, recorded.asked)
    return PieceInWords(
        tuple(LabelledText(_label(recorded.setup, text, area.area.name), area.name, text) for area, text in made),
        tuple(entry for entry in entries if (entry.field, " ".join(entry.words.split())) not in shown),
    )


def told_apart(pieces: Sequence[PieceInWords]) -> tuple[tuple[EntryInWords, ...], tuple[PieceInWords, ...]]:
    """Return the entries that all pieces of a list share, and each piece with what it has of its own."""
    shared = tuple(entry for entry in pieces[0].entries if all(entry in piece.entries for piece in pieces))
    own = (replace(piece, entries=tuple(one for one in piece.entries if one not in shared)) for piece in pieces)
    return shared, tuple(own)


def _label(setup: Setup, text: TextRecord, area_name: str) -> str:
    """Return a text's own line's label where it says that line's entry, else where it stands."""
    field = setup.field(text.fields[0]) if len(text.fields) == 1 else None
    return field.label if isinstance(field, TypedField | OwnItemsField) else area_name
