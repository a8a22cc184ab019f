from decimal import Decimal

import pytest
from hypothesis import given
from hypothesis import strategies as st

from tests.core.conftest import board, entries, upload
from yenzo.core.asking.ask import ask
from yenzo.core.documents.faults import find_nonsense
from yenzo.core.documents.reading import read_setup
from yenzo.core.errors import DocumentError
from yenzo.core.pricing.amounts import Amounts
from yenzo.core.pricing.quote import price


def quote(values, document=None, **others):
    setup = read_setup(document or board())
    return price(setup, ask(setup, entries(values, **others)), Amounts())


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


def charged(charge, values, field=None, **others):
    """What one charge comes to, and its label."""
    document = board()
    document["charges"] = [{"key": "it", "field": "name", **charge}]
    if field:
        document["fields"][0] |= field
        document["fields"][0].pop("case", None)
    return next(
        ((line.amount, line.label) for line in quote(values, document, **others).lines if line.key == "it"), None
    )


PARAGRAPH = {"kind": "paragraph", "most_characters": 200}


@pytest.mark.parametrize(
    ("charge", "text", "expected"),
    [
        (
            {"kind": "per_word", "amount": "0.50", "beyond": 2},
            "fair winds, old friend",
            ("1.00", "2 words beyond the first 2, at £0.50"),
        ),
        ({"kind": "per_word", "amount": "0.50"}, "ship's — 1931", ("1.00", "2 words, at £0.50")),
        (
            {"kind": "per_line", "amount": "3", "beyond": 1},
            "one\n\ntwo\nthree",
            ("6.00", "2 lines beyond the first one, at £3.00"),
        ),
        ({"kind": "percent", "percent": "12.5"}, "x", ("10.75", "12.5 % of the base price")),
        ({"kind": "percent", "percent": "-10"}, "x", ("-8.60", "-10 % of the base price")),
        ({"kind": "per_character", "amount": "1", "most": "2.50"}, "abcdef", ("2.50", "6 characters, at £1.00")),
        ({"kind": "per_character", "amount": "1", "least": "4"}, "ab", ("4.00", "2 characters, at £1.00")),
    ],
)
def test_charge_counts_what_it_says_within_its_bounds(charge, text, expected):
    amount, label = charged(charge, {"name": text}, PARAGRAPH)
    assert (amount, label) == (Decimal(expected[0]), f"Name of the boat: {expected[1]}")


def test_share_of_the_base_price_counts_the_variant():
    document = board()
    document["offer"]["variants"] = [{"key": "large", "name": "Large", "price_difference": "14.00"}]
    document["charges"] = [{"key": "it", "kind": "percent", "field": "name", "percent": "10"}]
    assert amounts(quote({"name": "A"}, document, variant="large"))["it"] == Decimal("10.00")


def test_text_that_is_not_there_is_charged_nothing_even_with_a_least():
    assert charged({"kind": "per_word", "amount": "1", "least": "5"}, {"name": ""}) is None
    assert charged({"kind": "per_word", "amount": "1", "beyond": 3, "least": "5"}, {"name": "two words"}) is None


@pytest.mark.parametrize(
    ("charges", "said"),
    [
        ([{"kind": "per_line", "amount": "1"}], "can't be charged by the line"),
        ([{"kind": "per_word", "field": "wood", "amount": "1"}], "can't be charged by the word"),
        ([{"kind": "fixed", "amount": "1", "least": "9", "most": "3"}], "is above the most"),
    ],
)
def test_charge_that_cannot_be_right_is_refused(charges, said):
    document = board()
    document["charges"] = [{"key": f"c{number}", "field": "name", **charge} for number, charge in enumerate(charges)]
    with pytest.raises(DocumentError, match=said):
        read_setup(document)


@pytest.mark.parametrize(
    ("charges", "said"),
    [
        ([{"kind": "fixed", "amount": "-90"}], "“Name of the boat” can push the price below zero, to -4.00"),
        ([{"kind": "percent", "percent": "-60"}, {"kind": "fixed", "amount": "-40"}], "can push the price below zero"),
        ([{"kind": "per_character", "amount": "-1"}], "say the least that it comes to"),
    ],
)
def test_charge_that_can_push_the_price_below_zero_makes_no_sense(charges, said):
    document = board()
    document["charges"] = [{"key": f"c{number}", "field": "name", **charge} for number, charge in enumerate(charges)]
    assert said in " ".join(find_nonsense(read_setup(document)))


@given(st.text(max_size=60), st.text(max_size=20))
def test_more_words_and_lines_never_cost_less(text, more):
    for kind in ("per_word", "per_line"):
        short, longer = (
            charged({"kind": kind, "amount": "1"}, {"name": typed}, PARAGRAPH) or (Decimal(0), "")
            for typed in (text, f"{text}\n{more}")
        )
        assert longer[0] >= short[0]


def test_reduction_with_an_end_is_taken():
    assert charged({"kind": "per_character", "amount": "-1", "least": "-3"}, {"name": "abcdef"})[0] == Decimal("-3")


def test_each_of_several_chosen_adds_its_amount():
    document = board()
    options = [{"key": key, "label": key.title()} for key in ("rope", "hook", "oar")]
    document["fields"].append({"key": "extras", "kind": "several", "label": "Extras", "options": options})
    charge = {"key": "extras", "kind": "per_choice", "field": "extras", "amounts": {"rope": "2.00", "oar": "3.50"}}
    document["charges"].append(charge)
    made = quote({"extras": ("rope", "hook", "oar")}, document)
    line = next(line for line in made.lines if line.key == "extras")
    assert (line.label, line.amount) == ("Extras: Rope, Oar", Decimal("5.50"))
