"""Example set-ups to start from: a key comes in; the lines, sections and charges of a new draft go out."""

from dataclasses import dataclass
from typing import Any

from yenzo.apps.products.kinds import beginning_of
from yenzo.core.documents.setup import Setup

Lines = tuple[dict[str, Any], ...]
WANTS_GIFT = {"conditions": [{"field": "gift", "value": True}]}
NAME = {"key": "name", "kind": "line", "label": "Name", "required": True, "most_characters": 18, "sample": "HALCYON"}
CENTIMETRES = {"kind": "number", "unit": "cm", "least": "20", "width": "half"}
LETTERING = {"key": "lettering", "kind": "typeface", "label": "Lettering", "required": True}


@dataclass(frozen=True)
class Example:
    """A set-up to start from: what it is called, what it shows, and what it asks."""

    name: str
    shows: str
    fields: Lines
    charges: Lines = ()
    sections: Lines = ()


EXAMPLES = {
    "name": Example(
        "A name in a typeface that customers choose",
        "charged by the letter beyond the first six",
        ({**NAME, "case": "upper"}, LETTERING),
        ({"key": "letters", "kind": "per_character", "field": "name", "amount": "0.40", "beyond": 6},),
    ),
    "photo": Example(
        "A photo with a caption",
        "an upload that must be sharp enough, and a line that may stay empty",
        (
            {"key": "photo", "kind": "artwork", "label": "Your photo", "required": True, "least_pixels": 800},
            {"key": "caption", "kind": "line", "label": "Caption", "most_words": 6, "most_characters": 40},
            LETTERING,
        ),
    ),
    "gift": Example(
        "A name, and a gift wrapping on demand",
        "lines that are asked only when they are needed, in a section of their own",
        (
            NAME,
            {"key": "gift", "kind": "yes_no", "label": "Wrap it as a gift", "section": "gift"},
            {
                "key": "greeting",
                "kind": "paragraph",
                "label": "Greeting on the card",
                "most_lines": 4,
                "most_characters": 160,
                "required": True,
                "ask_when": WANTS_GIFT,
                "section": "gift",
            },
            {"key": "sent-to", "kind": "address", "label": "Sent to", "ask_when": WANTS_GIFT, "section": "gift"},
            {"key": "by", "kind": "date", "label": "Needed by", "section": "gift", "after_working_days": 3},
        ),
        ({"key": "gift", "kind": "fixed", "field": "gift", "amount": "4.50", "label": "Gift wrapping"},),
        ({"key": "gift", "title": "As a gift"},),
    ),
    "form": Example(
        "A form only, without a picture",
        "what is entered goes on order and ticket",
        (
            {**NAME, "label": "Name as it is to be written"},
            {"key": "mail", "kind": "email", "label": "Mail address", "width": "half"},
            {"key": "phone", "kind": "phone", "label": "Telephone", "width": "half"},
            {"key": "note", "kind": "note", "label": "Anything else we should know"},
        ),
    ),
    "sizes": Example(
        "Made to measure, priced by its size",
        "numbers with bounds, a computed value and a charge by formula",
        (
            {
                "key": "width",
                "kind": "number",
                "label": "Width",
                "unit": "cm",
                "least": "20",
                "most": "200",
                "width": "half",
            },
            {
                "key": "height",
                "kind": "number",
                "label": "Height",
                "unit": "cm",
                "least": "20",
                "most": "120",
                "width": "half",
            },
            {
                "key": "size",
                "kind": "computed",
                "label": "Size",
                "formula": "width * height / 10000",
                "unit": "m²",
                "decimals": 2,
            },
            NAME,
        ),
        ({"key": "size", "kind": "formula", "field": "size", "formula": "size * 24", "least": "0"},),
    ),
}


def begin_from(setup: Setup, key: str) -> dict[str, Any]:
    """Return what an example adds to a new draft; nothing for no example."""
    example = EXAMPLES.get(key)
    if example is None:
        return {}
    fields = [{**beginning_of(setup, field["kind"]), **field} for field in example.fields]
    return {"fields": fields, "charges": list(example.charges), "sections": list(example.sections)}
