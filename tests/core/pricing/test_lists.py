"""The rows of a list are one line: their pieces count together, and what is once a line is charged once."""

from decimal import Decimal

from tests.core.conftest import board
from yenzo.core.asking.ask import ask
from yenzo.core.documents.entries import Entries
from yenzo.core.documents.reading import read_setup
from yenzo.core.pricing.amounts import Amounts
from yenzo.core.pricing.order import OrderLine, quote_of_list, quote_order

CHARGES = [
    {"key": "set-up", "kind": "fixed", "amount": "9.00", "per": "line"},
    {"key": "once", "kind": "fixed", "amount": "5.00", "per": "order"},
    {"key": "many", "kind": "bands", "of": "pieces", "bands": [{"begins": 3, "percent": "-10"}]},
    {"key": "formula", "kind": "formula", "formula": "pieces * 0.1", "per": "piece"},
]


def rows(*pieces, of_list="crew", **offer):
    document = board()
    document["offer"] |= offer
    setup = read_setup(document | {"charges": CHARGES})
    asked = (ask(setup, Entries(values={"name": "Otter"}, pieces=count)) for count in pieces)
    return [OrderLine("board", setup, one, Amounts(), of_list) for one in asked]


def test_bands_and_formulas_count_all_rows_of_the_list():
    first, second = quote_order(rows(1, 2))
    alone = quote_order(rows(1, 2, of_list=""))
    amounts = {line.key: line.amount for line in second.lines}
    assert (amounts["many"], amounts["formula"]) == (Decimal("-8.60"), Decimal("0.30"))
    assert all("many" not in {line.key for line in quote.lines} for quote in alone)
    assert {line.key for line in first.lines} >= {"set-up", "once", "many"}


def test_what_is_once_a_line_stands_in_the_first_row_only():
    quotes = quote_order(rows(1, 1, 1))
    charged = [[line.key for line in quote.lines if line.per != "piece"] for quote in quotes]
    assert charged == [["set-up", "once"], [], []]


def test_two_lists_are_two_lines_of_one_order():
    quotes = quote_order([*rows(1, 1), *rows(1, 1, of_list="guests")])
    charged = [[line.key for line in quote.lines if line.per != "piece"] for quote in quotes]
    assert charged == [["set-up", "once"], [], ["set-up"], []]


def test_quote_of_a_list_is_the_sum_of_its_rows_to_the_last_digit():
    quotes = quote_order(rows(1, 2, 4, tax_percent="19", taxes_included=False))
    whole = quote_of_list(quotes)
    assert whole.total == sum(quote.total for quote in quotes) == sum(line.amount for line in whole.lines)
    assert (whole.pieces, whole.is_list, whole.tax) == (7, True, sum(quote.tax for quote in quotes))
    assert whole.lines[-1].key == "tax"
    assert all(line.per != "piece" for line in whole.lines)
