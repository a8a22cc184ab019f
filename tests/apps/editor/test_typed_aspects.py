"""Aspects of single kinds of field: each says what was given, and saving it as it opened changes nothing."""

import pytest

from tests.apps.editor.test_aspects import line_of, posted, saved, words
from tests.core.asking.test_kinds import NEEDED
from tests.core.conftest import board
from yenzo.apps.editor.aspects import ASPECTS, FormLine
from yenzo.core.documents.reading import dump_document, read_setup

TYPED = {
    "number": [
        ({"unit": "cm", "least": "20", "most": "60", "step": "2.5"}, "range", "20 to 60 cm, in steps of 2.5"),
        ({"least": "3"}, "range", "from 3"),
        ({}, "range", "any number"),
    ],
    "date": [
        (
            {
                "after_working_days": "5",
                "closed_weekdays": ["5", "6"],
                "closed_days": "2031-12-25",
                "within_days": "90",
            },
            "days",
            "5 working days ahead or later, within 90 days, never on Saturdays or Sundays, not on 1 closed day",
        ),
        ({}, "days", "any day"),
    ],
    "phone": [({"region": "DE"}, "region", "of DE when no country is written")],
    "several": [
        ({"least": "1", "most": "2"}, "how-many", "1 to 2 of A or B; at first none"),
        ({"default": ["b"]}, "default", "at first B"),
        ({"options": "B\nC"}, "options", "any number of B or C"),
    ],
    "address": [
        ({"country": "DE", "countries": "DE, FR"}, "countries", "in DE, FR, at first DE"),
        ({}, "countries", "in any country, at first GB"),
    ],
    "computed": [
        (
            {"formula": "up(pieces / 2)", "unit": "m", "decimals": "1", "way": "up", "shown": False},
            "formula",
            "what “up(pieces / 2)” comes to in m, rounded up to 1 decimal, not shown to customers",
        ),
    ],
    "extra": [
        ({"price": "6.5", "most": "4", "sku": "ROPE"}, "extra", "6.50 each, up to 4, counted as ROPE"),
        ({"price": "6.5"}, "extra", "6.50 each, up to 10, its stock not counted"),
    ],
    "fixed_text": [({"text": "Tern & Tiller"}, "fixed-text", "always made: “Tern & Tiller”. Goes on")],
    "method": [({"methods": ["carving"]}, "methods", "may stay empty: Carving; at first nothing")],
    "note": [({"most": "40"}, "note-limit", "up to 40 characters")],
}


@pytest.mark.parametrize(
    ("kind", "given", "aspect_key", "said"),
    [(kind, *case) for kind, cases in TYPED.items() for case in cases],
)
def test_typed_kinds_say_what_was_given_and_stay_as_they_open(product, kind, given, aspect_key, said):
    document = board()
    document["fields"].append({"key": "more", "kind": kind, "label": "More", **NEEDED.get(kind, {})})
    line, aspect = line_of(read_setup(document), "more", ""), ASPECTS[aspect_key]
    again = saved(document, line, aspect, posted(aspect.form(line), **given))
    assert said in words(again, "more")
    opened = FormLine(again, again.field("more"))
    kept = saved(dump_document(again), opened, aspect, posted(aspect.form(opened)))
    assert kept.field("more") == again.field("more")
