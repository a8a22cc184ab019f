from decimal import Decimal

import pytest
from hypothesis import given
from hypothesis import strategies as st

from tests.core.conftest import board, entries, upload
from yenzo.core.asking.ask import ask
from yenzo.core.documents.reading import read_setup
from yenzo.core.pricing.quote import price


def quote(values, document=None, **others):
    setup = read_setup(document or board())
    return price(setup, ask(setup, entries(values, **others)))


def amounts(made):
    return {line.key: line.amount for line in made.lines}


def test_each_kind_of_charge_adds_its_line():
    made = quote({"name": "Wind & Whey", "with_photo": True, "wood": "oak"})
    assert amounts(made) == {
        "base": Decimal("86.00"),
        "letters": Decimal("1.20"),
        "photo": Decimal("12.00"),
        "wood": Decimal("24.00"),
        "finish": Decimal("9.50"),
    }
    assert made.total == Decimal("132.70")


def test_entry_that_is_not_asked_is_not_charged():
    document = board()
    document["fields"][4]["ask_when"] = {"conditions": [{"field": "with_photo", "value": True}]}
    assert "wood" not in amounts(quote({"with_photo": False, "wood": "oak"}, document))


@pytest.mark.parametrize(("currency", "expected"), [("GBP", "0.41"), ("JPY", "0"), ("KWD", "0.405")])
def test_amounts_are_rounded_to_the_currencys_smallest_unit(currency, expected):
    document = board()
    document["offer"]["currency"] = currency
    document["charges"][0]["amount"] = "0.405"
    line = next((line for line in quote({"name": "Seventh"}, document).lines if line.key == "letters"), None)
    assert line is not None
    assert line.amount == Decimal(expected)


@given(st.text(max_size=40), st.text(max_size=10), st.integers(1, 500))
def test_more_characters_never_cost_less_and_lines_add_up(text, more, pieces):
    short, longer = quote({"name": text}, pieces=pieces), quote({"name": text + more}, pieces=pieces)
    assert longer.total >= short.total
    assert sum(line.amount for line in longer.lines) * pieces == longer.total


def test_variant_adds_its_difference():
    document = board()
    document["offer"]["variants"] = [
        {"key": "small", "name": "Small"},
        {"key": "large", "name": "Large", "price_difference": "10.00"},
    ]
    assert quote({}, document, variant="large").total - quote({}, document).total == Decimal("10.00")


def test_upload_in_an_unasked_field_changes_nothing():
    assert quote({}, uploads={"photo": upload()}) == quote({})
