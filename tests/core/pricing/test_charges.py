"""What each kind of charge comes to, for which pieces, and how it is rounded and shown."""

from dataclasses import replace
from decimal import Decimal

import pytest
from hypothesis import given
from hypothesis import strategies as st

from tests.core.conftest import board, entries, upload
from tests.sweeping import examples
from yenzo.core.documents.faults import find_nonsense
from yenzo.core.documents.reading import read_setup
from yenzo.core.errors import DocumentError
from yenzo.core.evaluation import evaluate, quoted_together
from yenzo.core.pricing.words import charge_words


def charged(assets, charge, values=None, more=(), **others):
    """The row of a charge on a board, as (label, amount), or None."""
    document = board()
    document["fields"] += more
    document["charges"] = [{"key": "more", "field": "name", **charge}]
    evaluation = evaluate(read_setup(document), entries({"name": "Tern", **(values or {})}, **others), assets)
    line = next((line for line in evaluation.quote.lines if line.key == "more"), None)
    return line and (line.label, str(line.amount))


SIZE = {"key": "size", "kind": "number", "label": "Size"}
WITH_PHOTO = {"values": {"with_photo": True}, "uploads": {"photo": upload()}}


@pytest.mark.parametrize(
    ("charge", "given", "row"),
    [
        ({"kind": "per_upload", "field": "photo", "amount": "4"}, WITH_PHOTO, ("Photo: 1 file, at £4.00", "4.00")),
        ({"kind": "per_upload", "field": "photo", "amount": "4"}, {}, None),
        ({"kind": "per_color", "amount": "3"}, {}, ("Name of the boat: 1 color, at £3.00", "3.00")),
        ({"kind": "per_side", "amount": "3", "field": None}, WITH_PHOTO, ("Board: 1 side, at £3.00", "3.00")),
        ({"kind": "per_placed", "amount": "3", "field": None}, WITH_PHOTO, ("Board: 2 items placed, at £3.00", "6.00")),
        ({"kind": "per_cm2", "amount": "1", "field": "photo", "measured": "area"}, WITH_PHOTO, ("48", "48.00")),
        ({"kind": "bands", "bands": [{"begins": "5", "amount": "2"}]}, {"pieces": 4}, None),
        ({"kind": "bands", "bands": [{"begins": "5", "percent": "-10"}]}, {"pieces": 5}, ("-10 %", "-8.60")),
        (
            {
                "kind": "bands",
                "field": "size",
                "of": "entry",
                "bands": [{"begins": "1"}, {"begins": "9", "amount": "5"}],
            },
            {"values": {"size": "9,5"}, "more": [SIZE]},
            ("Size: from 9 on", "5.00"),
        ),
        (
            {"kind": "formula", "field": None, "formula": "size * 2 + (1 if wood == 'oak' else 0)", "label": "Sawing"},
            {"values": {"size": "3", "wood": "oak"}, "more": [SIZE]},
            ("Sawing", "7.00"),
        ),
        ({"kind": "formula", "formula": "10 / size", "least": "2"}, {"more": [SIZE]}, ("Name of the boat", "2.00")),
        ({"kind": "formula", "formula": "colors * 3 + up(ink_cm2 / 100000)"}, {}, ("Name of the boat", "4.00")),
        (
            {"kind": "fixed", "amount": "1.13", "rounding": {"step": "0.25", "way": "up"}},
            {},
            ("Name of the boat", "1.25"),
        ),
    ],
)
def test_charge_comes_to_what_it_says(assets, charge, given, row):
    found = charged(assets, charge, **given)
    if row is None:
        assert found is None
    else:
        assert row[0] in found[0]
        assert found[1] == row[1]


def priced(assets, charges, pieces=1, **changes):
    document = board()
    document["charges"] = charges
    document["offer"] |= changes.pop("offer", {})
    document["form"] = changes
    return evaluate(read_setup(document), entries({"name": "Tern"}, pieces=pieces), assets)


def adds_up(quote):
    """Whether the rows of a quote, for each piece and once, are its total."""
    per = {name: sum(line.amount for line in quote.lines if line.per == name) for name in ("piece", "line", "order")}
    return per["piece"] * quote.pieces + per["line"] + per["order"] == quote.total


def test_charge_for_all_pieces_is_added_once(assets):
    charges = [{"key": "plate", "kind": "fixed", "amount": "30", "per": "line", "label": "Plate"}]
    quote = priced(assets, charges, pieces=10).quote
    assert (str(quote.each), str(quote.total)) == ("86.00", "890.00")


def test_charge_once_an_order_stands_in_one_line_of_it(assets):
    charges = [{"key": "dispatch", "kind": "fixed", "amount": "5", "per": "order"}]
    first, second = quoted_together([("1", priced(assets, charges)), ("1", priced(assets, charges))])
    assert (str(first.quote.total), str(second.quote.total)) == ("91.00", "86.00")


def test_charge_once_an_order_is_that_of_one_product_though_others_have_its_name(assets):
    dear = [{"key": "dispatch", "kind": "fixed", "amount": "25", "per": "order"}]
    dearer = [{"key": "dispatch", "kind": "fixed", "amount": "50", "per": "order"}]
    lines = [("1", priced(assets, dear)), ("2", priced(assets, dearer)), ("1", priced(assets, dear))]
    without_sku = [
        (
            key,
            replace(one, setup=one.setup.model_copy(update={"offer": one.setup.offer.model_copy(update={"sku": ""})})),
        )
        for key, one in lines
    ]
    assert [str(one.quote.total) for one in quoted_together(without_sku)] == ["111.00", "136.00", "86.00"]


@pytest.mark.parametrize(("of", "totals"), [("pieces", ["430.00", "602.00"]), ("product_pieces", ["380.00", "532.00"])])
def test_bands_count_one_design_or_all_pieces_of_the_product_in_the_order(assets, of, totals):
    charges = [{"key": "many", "kind": "bands", "of": of, "bands": [{"begins": "10", "amount": "-10"}]}]
    lines = [("1", priced(assets, charges, pieces=5)), ("1", priced(assets, charges, pieces=7))]
    assert [str(one.quote.total) for one in quoted_together(lines)] == totals
    other = [("1", priced(assets, charges, pieces=5)), ("2", priced(assets, charges, pieces=7))]
    assert [str(one.quote.total) for one in quoted_together(other)] == ["430.00", "602.00"]


@pytest.mark.parametrize("formula", ["100 / (pieces - 10) + 500", "9 ** 20 * pieces", "1000000 * pieces"])
def test_formula_that_comes_to_nothing_blocks_in_words(assets, formula):
    charges = [{"key": "sawing", "kind": "formula", "formula": formula, "label": "Sawing"}]
    failed = priced(assets, charges, pieces=10)
    assert [item.code for item in failed.verdict.blocking] == ["no_price"]
    assert failed.verdict.blocking[0].message.startswith("What “Sawing” adds to the price can't be worked out")


def test_formula_that_comes_to_something_does_not_block(assets):
    charges = [{"key": "sawing", "kind": "formula", "formula": "100 / (pieces - 10) + 500"}]
    good = priced(assets, charges, pieces=9)
    assert (good.verdict.blocked, str(good.quote.each)) == (False, "486.00")


def test_computed_value_that_comes_to_nothing_blocks_in_words(assets):
    document = board()
    document["fields"].append({"key": "share", "kind": "computed", "label": "Share", "formula": "100 / (pieces - 2)"})
    document["charges"].append({"key": "more", "kind": "formula", "formula": "share * 3"})
    failed, good = (evaluate(read_setup(document), entries({"name": "A"}, pieces=count), assets) for count in (2, 3))
    assert [(item.code, item.field) for item in failed.verdict.blocking] == [("no_result", "share")]
    assert not good.verdict.blocked


@pytest.mark.parametrize(("included", "total", "tax"), [(True, "86.00", "14.33"), (False, "103.20", "17.20")])
def test_taxes_are_in_the_total_or_come_on_top(assets, included, total, tax):
    quote = priced(assets, [], offer={"tax_percent": "20", "taxes_included": included}).quote
    assert (str(quote.total), str(quote.tax)) == (total, tax)
    assert adds_up(quote)


def test_extras_show_as_one_sum_that_is_theirs(assets):
    charges = [
        {"key": "a", "kind": "fixed", "amount": "5"},
        {"key": "b", "kind": "fixed", "amount": "7"},
        {"key": "c", "kind": "fixed", "amount": "2", "per": "line"},
    ]
    quote = priced(assets, charges, extras="sum").quote
    assert [(line.label, str(line.amount)) for line in quote.shown_lines] == [
        ("Board", "86.00"),
        ("Personalization", "12.00"),
        ("Personalization", "2.00"),
    ]


amount = st.decimals(0, 99, places=3).map(str)
any_charge = st.one_of(
    st.fixed_dictionaries({"kind": st.just("fixed"), "amount": amount}),
    st.fixed_dictionaries({"kind": st.just("per_character"), "amount": amount, "field": st.just("name")}),
    st.fixed_dictionaries({"kind": st.just("per_cm2"), "amount": amount}),
    st.fixed_dictionaries({"kind": st.just("percent"), "percent": amount}),
    st.fixed_dictionaries(
        {"kind": st.just("formula"), "formula": st.sampled_from(["pieces / 3", "base_price * 0.07"])}
    ),
)
charges = st.lists(st.tuples(any_charge, st.sampled_from(["piece", "line", "order"]), st.booleans()), max_size=6)


@given(
    charges=charges,
    pieces=st.integers(1, 300),
    currency=st.sampled_from(["JPY", "GBP", "KWD"]),
    percent=st.sampled_from(["0", "19", "7.7"]),
    included=st.booleans(),
)
@examples(40)
def test_lines_add_up_to_the_total_in_every_currency(assets, charges, pieces, currency, percent, included):
    made = [{**one, "key": f"c{n}", "per": per, "shown": shown} for n, (one, per, shown) in enumerate(charges)]
    offer = {"currency": currency, "tax_percent": percent, "taxes_included": included}
    quote = priced(assets, made, pieces, offer=offer).quote
    assert adds_up(quote)
    assert adds_up(quote.model_copy(update={"lines": quote.shown_lines}))


@pytest.mark.parametrize(
    ("charge", "said"),
    [
        ({"kind": "per_character", "amount": "1"}, "counts what is entered; hang it on a field"),
        ({"kind": "per_upload", "amount": "1", "field": "name"}, "it isn't an upload"),
        ({"kind": "formula", "formula": "nobody"}, "names “nobody”, which isn't there"),
        ({"kind": "formula", "formula": "__import__('os')", "field": "name"}, "names “__import__”|can't be"),
        ({"kind": "bands", "of": "entry", "field": "name", "bands": [{"begins": "1"}]}, "no number that bands"),
        ({"kind": "bands", "bands": [{"begins": "5"}, {"begins": "5"}]}, "must begin above the one before"),
    ],
)
def test_charge_that_can_not_be_worked_out_is_refused(charge, said):
    document = board()
    document["charges"].append({"key": "more", **charge})
    with pytest.raises(DocumentError, match=said):
        read_setup(document)


def test_formula_that_may_take_off_anything_must_say_its_least():
    document = board()
    document["charges"].append({"key": "more", "kind": "formula", "formula": "0 - pieces"})
    assert "may take off more and more" in find_nonsense(read_setup(document))[0]
    document["charges"][-1]["least"] = "-10"
    assert find_nonsense(read_setup(document)) == []


def test_amounts_measure_what_lands(assets):
    evaluation = evaluate(
        read_setup(board()), entries({"name": "Tern", "with_photo": True}, uploads={"photo": upload()}), assets
    )
    photo = evaluation.amounts.of("photo")
    assert (photo.area_cm2, photo.placed, photo.sides, photo.colors) == (Decimal("48.00"), 1, 1, 0)
    name = evaluation.amounts.of("name")
    ink = next(next(evaluation.scene.areas).letterings).bounds
    assert float(name.ink_cm2) == pytest.approx(ink.width * ink.height / 100, abs=0.01)
    assert evaluation.amounts.whole.placed == 2


def test_discount_that_is_rounded_to_more_than_the_price_is_found():
    document = board()
    rounding = {"step": "100", "way": "down"}
    document["charges"].append({"key": "more", "kind": "fixed", "field": "name", "amount": "-1", "rounding": rounding})
    assert "can push the price below zero" in find_nonsense(read_setup(document))[0]


def test_total_alone_is_shown_where_the_seller_wants_nothing_else_seen(assets):
    charges = [{"key": "a", "kind": "fixed", "amount": "5"}]
    quote = priced(assets, charges, extras="none", offer={"tax_percent": "20", "taxes_included": False}).quote
    assert [line.key for line in quote.shown_lines] == ["tax"]
    assert str(quote.total) == "109.20"
    assert adds_up(quote)


def test_charge_for_all_pieces_is_paid_by_each_line_of_an_order(assets):
    charges = [{"key": "plate", "kind": "fixed", "amount": "30", "per": "line"}]
    first, second = quoted_together([("1", priced(assets, charges)), ("1", priced(assets, charges))])
    assert (str(first.quote.total), str(second.quote.total)) == ("116.00", "116.00")


@pytest.mark.parametrize(
    ("charge", "said"),
    [
        ({"kind": "fixed", "amount": "5"}, ["5"]),
        ({"kind": "fixed", "amount": "5", "per": "line"}, ["5 once for all pieces"]),
        ({"kind": "fixed", "amount": "5", "per": "order"}, ["5 once an order"]),
        ({"kind": "percent", "percent": "10", "least": "2"}, ["10 % of the base price (at least 2)"]),
        ({"kind": "percent", "percent": "10", "most": "8"}, ["10 % of the base price (at most 8)"]),
        (
            {"kind": "per_choice", "field": "wood", "amounts": {"cedar": "1", "oak": "3"}, "least": "2", "most": "8"},
            ["1 for Cedar", "3 for Oak (at least 2 and at most 8)"],
        ),
    ],
)
def test_charge_says_for_which_pieces_it_is_and_within_which_bounds(charge, said):
    setup = read_setup({**board(), "charges": [{"key": "more", "field": "name", **charge}]})
    assert charge_words(setup, setup.charges[0], str) == said


def test_amount_just_below_the_most_does_not_block(assets):
    charges = [{"key": "sawing", "kind": "formula", "formula": "1000000 * pieces - 1"}]
    assert not priced(assets, charges, pieces=10).verdict.blocked
