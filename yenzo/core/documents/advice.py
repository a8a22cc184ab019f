"""Advice on a set-up that would work as it is: a set-up comes in, sentences that say what would serve better go out."""

import re
from collections.abc import Iterator

from yenzo.core.documents.charges import FixedCharge
from yenzo.core.documents.field_base import TypedField
from yenzo.core.documents.fields import AnyField, LineField, TextField
from yenzo.core.documents.setup import Setup

NUMBERS = ("one", "two", "three", "four", "five", "six", "seven", "eight", "nine", "ten", "eleven", "twelve")
A_NUMBER = rf"(?P<number>\d{{1,4}}|{'|'.join(NUMBERS)})"
UNIT = r"(?P<unit>words?|characters?|letters?|lines?)"
STATED = (
    re.compile(rf"\b(?:at most|up to|max(?:imum|\.)?(?: of)?|no more than|not more than) {A_NUMBER} {UNIT}\b", re.I),
    re.compile(rf"\b{A_NUMBER} {UNIT}(?: at most| max(?:imum|\.)?| or (?:less|fewer))\b", re.I),
)
LIMITS = {"word": "most_words", "character": "most_characters", "letter": "most_characters", "line": "most_lines"}
SEVERAL_FACTS = re.compile(r"\w\s*(?:,|/|&|\+|\band\b|\bplus\b)\s*\w", re.I)


def find_advice(setup: Setup) -> list[str]:
    """Return what would serve seller and customers better, each as a sentence."""
    return [advice for find in (_flat_charges, _stated_limits, _several_facts) for advice in find(setup)]


def _flat_charges(setup: Setup) -> Iterator[str]:
    for charge in setup.charges:
        field = setup.field(charge.field or "")
        if not isinstance(charge, FixedCharge) or field is None or charge.per != "piece":
            continue
        section = setup.section(field.section)
        is_always = field.ask_when is None and (section is None or section.ask_when is None)
        if field.required and is_always:
            yield f"“{field.label}” is needed and always adds {charge.amount}: put that into the base price."


def _stated_limits(setup: Setup) -> Iterator[str]:
    for field in setup.fields:
        for said in (field.label, field.help, field.explanation, field.hint if isinstance(field, TypedField) else ""):
            for found in (match for pattern in STATED for match in pattern.finditer(said)):
                if _is_unset(field, found):
                    yield f"“{field.label}” says “{found.group()}”, but that limit isn't set: nobody is held to it."


def _is_unset(field: AnyField, found: re.Match[str]) -> bool:
    written = found["number"].lower()
    number = int(written) if written.isdecimal() else NUMBERS.index(written) + 1
    limit = LIMITS[found["unit"].lower().rstrip("s")]
    if limit == "most_lines" and isinstance(field, LineField):
        return number > 1
    return isinstance(field, TextField) and getattr(field, limit, None) != number


def _several_facts(setup: Setup) -> Iterator[str]:
    for field in setup.fields:
        if isinstance(field, LineField) and SEVERAL_FACTS.search(field.label):
            yield (
                f"“{field.label}” may ask for several facts in one box. A line for each is easier to check, "
                "and they can be joined in one text."
            )
