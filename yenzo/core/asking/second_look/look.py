"""The second look at entries: what was asked and typed comes in; questions, each with its mend, go out.

It refuses nothing: whoever answers that it is right so isn't asked again, as long as the text stays the same.
"""

from collections.abc import Iterator, Mapping
from functools import lru_cache

from yenzo.core.asking.ask import Asked
from yenzo.core.asking.second_look import capitals, days, digits, look_alikes, repeats, spacing
from yenzo.core.asking.second_look.interface import Doubt, Looked, SecondLook
from yenzo.core.documents.entries import Meant
from yenzo.core.documents.fields import AnyField, TextField
from yenzo.core.documents.own_field import OwnItemsField
from yenzo.core.documents.own_items import OwnText
from yenzo.core.documents.setup import Setup
from yenzo.core.documents.values import Frozen
from yenzo.core.translation import current_language

LOOKS: tuple[SecondLook, ...] = (spacing.look, look_alikes.look, capitals.look, digits.look, days.look, repeats.look)


class Question(Frozen):
    """A doubt about an entry: of which field (and own item), about which text, and whether it was answered.

    `suggestion` is the whole text mended; `is_meant` tells that the customer said that it is right so.
    """

    field: str
    code: str
    message: str
    text: str
    suggestion: str | None = None
    item: str = ""
    is_meant: bool = False

    @property
    def answer(self) -> Meant:
        """What is kept when it is right so."""
        return Meant(code=self.code, text=self.text)


def second_look(setup: Setup, asked: Asked, typed: Mapping[str, object] | None = None) -> tuple[Question, ...]:
    """Return what is probably wrong with what is asked, in the order of the form; `typed` are the raw entries."""
    return tuple(
        _question(field, item, doubt, text, asked)
        for field in setup.fields
        if field.key in asked.values
        for item, text in _texts(field, asked)
        for doubt in doubts(Looked(text, _typed(typed, field, text, is_own=bool(item)), asked.language))
    )


def doubts(looked: Looked) -> tuple[Doubt, ...]:
    """Return what is probably wrong with a text, looked for once: of many texts one is typed."""
    return _doubts(looked, current_language())


@lru_cache(maxsize=500)
def _doubts(looked: Looked, _said_in: str) -> tuple[Doubt, ...]:
    return tuple(doubt for look in LOOKS for doubt in look(looked))


def _texts(field: AnyField, asked: Asked) -> Iterator[tuple[str, str]]:
    """Yield the texts of a field that land on goods, with the own item that each is of."""
    value = asked.values[field.key]
    if isinstance(field, TextField) and isinstance(value, str) and value:
        yield "", value
    elif isinstance(field, OwnItemsField) and isinstance(value, tuple):
        yield from ((item.key, item.text) for item in value if isinstance(item, OwnText) and item.text)


def _typed(typed: Mapping[str, object] | None, field: AnyField, text: str, *, is_own: bool) -> str:
    given = None if typed is None or is_own else typed.get(field.key)
    return given.strip() if isinstance(given, str) else text


def _question(field: AnyField, item: str, doubt: Doubt, text: str, asked: Asked) -> Question:
    answered = asked.meant.get(field.key, ())
    return Question(
        field=field.key,
        code=doubt.code,
        message=doubt.message,
        text=text,
        suggestion=doubt.suggestion,
        item=item,
        is_meant=Meant(code=doubt.code, text=text) in answered,
    )
