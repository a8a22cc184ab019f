"""Controls that are typed in: lines, paragraphs, numbers, ways to reach somebody, notes."""

from dataclasses import dataclass
from typing import Any

from yenzo.apps.slip.controls.interface import Control, Details, Drawn, F
from yenzo.core.asking.texts import room_left, words
from yenzo.core.documents.field_base import FieldBase
from yenzo.core.documents.fields import (
    EmailField,
    LineField,
    LinkField,
    NoteField,
    NumberField,
    ParagraphField,
    PhoneField,
    TextField,
)


@dataclass(frozen=True)
class TextDetails(Details):
    """Which way the writing runs, and how many characters and words still fit: below zero when there are too many."""

    direction: str = "auto"
    room: int | None = None
    word_room: int | None = None

    @property
    def beside(self) -> str:
        """The room that is left."""
        return "" if self.room is None and self.word_room is None else f"{self.room} {self.word_room}"

    @property
    def over(self) -> int:
        """By how many characters the entry is too long."""
        return max(-(self.room or 0), 0)

    @property
    def words_over(self) -> int:
        """By how many words the entry is too long."""
        return max(-(self.word_room or 0), 0)


class TypedControl(Control[F]):
    """A control that is typed in."""

    template = "slip/_text_control.html"

    def details(self, field: F, drawn: Drawn) -> TextDetails:  # noqa: ARG002 - the interface says what there is
        """Return that it has no limits to tell of."""
        return TextDetails()


class TextControl(TypedControl[TextField]):
    """A text, with the room that is left in it."""

    def details(self, field: TextField, drawn: Drawn) -> TextDetails:
        """Return its direction and the room that is left."""
        asked, word_room = drawn.evaluation.asked, None
        if field.most_words is not None:
            word_room = field.most_words - len(words(asked.text(field.key), asked.language))
        direction = {"right_to_left": "rtl", "left_to_right": "ltr"}.get(field.direction, "auto")
        return TextDetails(direction, room_left(field, asked.text(field.key)), word_room)


class NoteControl(TypedControl[NoteField]):
    """A note, with the room that is left in it."""

    def details(self, field: NoteField, drawn: Drawn) -> TextDetails:
        """Return the room that is left."""
        return TextDetails(room=room_left(field, drawn.evaluation.asked.text(field.key)))


class NumberControl(TypedControl[NumberField]):
    """A number."""

    input_mode = "decimal"


class EmailControl(TypedControl[EmailField]):
    """A mail address."""

    input_mode = "email"


class PhoneControl(TypedControl[PhoneField]):
    """A telephone number."""

    input_mode = "tel"


class LinkControl(TypedControl[LinkField]):
    """An address in the web."""

    input_mode = "url"


CONTROLS: dict[type[FieldBase], Control[Any]] = {
    LineField: TextControl(),
    ParagraphField: TextControl(),
    NoteField: NoteControl(),
    NumberField: NumberControl(),
    EmailField: EmailControl(),
    PhoneField: PhoneControl(),
    LinkField: LinkControl(),
}
