"""Whole numbers in what is sent: figures that a table can hold, and nothing that only looks like some."""

import pytest

from yenzo.apps.pages.numbers import whole_number, whole_numbers


@pytest.mark.parametrize(
    ("sent", "number"), [("7", 7), (" 12\n", 12), ("0", 0), ("007", 7), ("999999999", 999_999_999)]
)
def test_figures_are_read(sent, number):
    assert whole_number(sent) == number


@pytest.mark.parametrize(
    "sent", ["", " ", "-1", "+1", "1.0", "1_000", "٣", "²", "1 2", "0x1", "1000000000", "9" * 5000]
)
def test_nothing_else_is(sent):
    assert whole_number(sent) is None


def test_of_many_those_are_kept_that_are_numbers():
    assert whole_numbers(["3", "x", "0", "9" * 12]) == [3, 0]
