"""Answers to questions of the second look: what a form was sent with comes in; entries that have them go out."""

import json
from collections.abc import Iterable
from dataclasses import dataclass
from typing import Any

from django.http import QueryDict
from pydantic import ValidationError

from yenzo.core.asking.second_look.look import Question
from yenzo.core.documents.entries import MOST_MEANT, Entries, Meant
from yenzo.core.documents.own_items import OwnText
from yenzo.core.documents.reading import dump_document, read_entries
from yenzo.core.documents.setup import Setup
from yenzo.core.documents.values import clean_text
from yenzo.core.errors import DocumentError

# Of all fields: more can't be asked on one form, and more isn't read.
MOST_SENT = 200
MOST_TEXT = 20_000


def meant_value(field: str, answer: Meant) -> str:
    """Return what a form is sent with when an entry is right so."""
    return json.dumps([field, answer.code, answer.text], ensure_ascii=False)


@dataclass(frozen=True)
class Asking:
    """A question as a page asks it: in words, with what a form is sent with by each of its answers."""

    question: Question

    @property
    def means(self) -> str:
        """What is sent when it is right so."""
        return meant_value(self.question.field, self.question.answer)

    @property
    def takes(self) -> str:
        """What is sent when the suggestion is taken."""
        return json.dumps([self.question.field, self.question.item, self.question.suggestion], ensure_ascii=False)


def still_asked(questions: Iterable[Question]) -> tuple[Asking, ...]:
    """Return the questions that nobody has answered."""
    return tuple(Asking(one) for one in questions if not one.is_meant)


def meant_of_form(setup: Setup, form: QueryDict) -> dict[str, tuple[Meant, ...]]:
    """Return by field of a set-up what a form says that is right so; what can't be read isn't said."""
    meant: dict[str, dict[Meant, None]] = {}
    for field, code, text in _triples(form, "means"):
        if setup.field(field) is None:
            continue
        try:
            answer = Meant(code=code, text=text)
        except ValidationError:
            continue
        meant.setdefault(field, {})[answer] = None
    # What was answered last counts: earlier answers are of texts that are others by now.
    return {field: tuple(answers)[-MOST_MEANT:] for field, answers in meant.items()}


def taken_of_form(form: QueryDict) -> list[tuple[str, str, str]]:
    """Return field, own item (or nothing) and the new text of each suggestion that was taken."""
    return [(field, item, clean_text(text)) for field, item, text in _triples(form, "takes")]


def answered(setup: Setup, entries: Entries, form: QueryDict) -> Entries:
    """Return entries with the answers that a form was sent with beside those they have; none that could not be kept."""
    meant = dict(entries.meant)
    for field, answers in meant_of_form(setup, form).items():
        meant[field] = tuple(dict.fromkeys((*meant.get(field, ()), *answers)))[-MOST_MEANT:]
    values: dict[str, Any] = dict(entries.values)
    items = dict(entries.items)
    for field, item, text in taken_of_form(form):
        if field in items:
            items[field] = tuple(
                one.model_copy(update={"text": text}) if one.key == item and isinstance(one, OwnText) else one
                for one in items[field]
            )
        elif isinstance(values.get(field), str):
            values[field] = text
    try:
        return read_entries(
            dump_document(entries.model_copy(update={"meant": meant, "values": values, "items": items}))
        )
    except DocumentError:
        return entries


def _triples(form: QueryDict, name: str) -> list[tuple[str, str, str]]:
    found = []
    for sent in form.getlist(name)[-MOST_SENT:]:
        try:
            values = json.loads(sent[:MOST_TEXT])
        except ValueError:
            continue
        if isinstance(values, list) and len(values) == 3 and all(isinstance(value, str) for value in values):
            found.append((values[0], values[1], values[2]))
    return found
