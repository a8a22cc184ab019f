"""Advice on set-ups: what is told, and what isn't."""

import pytest

from tests.core.conftest import board
from yenzo.core.documents.advice import find_advice
from yenzo.core.documents.reading import read_setup


def advised(charge=None, **field):
    document = board()
    document["fields"].append({"key": "more", "kind": "line", "label": "More", **field})
    if charge is not None:
        document["charges"].append({"key": "more", "field": "more", "kind": "fixed", "amount": "2.00", **charge})
    return find_advice(read_setup(document))


def test_set_up_that_serves_gets_no_advice():
    assert find_advice(read_setup(board())) == []


def test_flat_charge_on_a_line_that_is_always_needed_belongs_into_the_base_price():
    assert advised({}, required=True) == ["“More” is needed and always adds 2.00: put that into the base price."]
    asked = {"conditions": [{"field": "with_photo", "value": True}]}
    assert advised({}, required=True, ask_when=asked) == advised({}) == advised({"per": "order"}, required=True) == []


@pytest.mark.parametrize(
    ("field", "is_told"),
    [
        ({"label": "Motto (three words at most)"}, True),
        ({"label": "Motto", "help": "Up to 20 characters"}, True),
        ({"label": "Motto", "hint": "max. 12 letters", "most_characters": 12}, False),
        ({"label": "Motto", "help": "no more than 2 words", "most_words": 2}, False),
        ({"label": "Motto", "help": "Up to 20 characters", "most_characters": 30}, True),
        ({"label": "Motto", "help": "no more than 3 lines"}, True),
        ({"label": "Motto", "kind": "paragraph", "help": "no more than 3 lines", "most_lines": 3}, False),
        ({"label": "Motto", "help": "The first 6 are free"}, False),
    ],
)
def test_limit_that_is_stated_and_not_set_is_told(field, is_told):
    assert any("that limit isn't set" in advice for advice in advised(**field)) is is_told


@pytest.mark.parametrize(
    ("label", "is_told"),
    [
        ("Name and date", True),
        ("Name, port", True),
        ("Name / port", True),
        ("Sandbank", False),
        ("Name of boat", False),
    ],
)
def test_one_box_for_several_facts_is_told(label, is_told):
    assert any("several facts" in advice for advice in advised(label=label)) is is_told
