"""Formulas: what they come to, and that nothing else can be had from them."""

import contextlib
from decimal import Decimal

import pytest
from hypothesis import given
from hypothesis import strategies as st

from yenzo.core.errors import FormulaError
from yenzo.core.formulas.evaluate import evaluate, names_in

NAMES = {"width": Decimal("1.5"), "height": Decimal(2), "wood": "oak", "gates": ("main", "slip"), "wet": True}


@pytest.mark.parametrize(
    ("formula", "result"),
    [
        ("width * height", "3.0"),
        ("0.1 + 0.2", "0.3"),
        ("width * height * 24.5 if wood == 'oak' else 0", "73.50"),
        ("up(width)", "2"),
        ("down(width, 0.4)", "1.2"),
        ("round(2.5)", "3"),
        ("max(width, height, 1) - min(1, 2)", "1"),
        ("count(gates) * 2 + count(wood)", "7"),
        ("2 ** 3", "8"),
        ("wet and 5", "5"),
        ("-abs(0 - 3)", "-3"),
    ],
)
def test_formula_comes_to_its_result(formula, result):
    assert evaluate(formula, NAMES) == Decimal(result)


@pytest.mark.parametrize(
    ("formula", "said"),
    [
        ("", "can't be read"),
        ("2 +", "can't be read"),
        ("width; height", "can't be read"),
        ("wood.upper()", "has what no formula may have"),
        ("().__class__", "has what no formula may have"),
        ("[1, 2][0]", "has what no formula may have"),
        ("[x for x in gates]", "has what no formula may have"),
        ("lambda: 1", "has what no formula may have"),
        ("open('/etc/passwd')", "no function “open”"),
        ("nobody + 1", "nothing is called “nobody”"),
        ("1 / (height - 2)", "divides by zero"),
        ("9 ** 9 ** 9", "too large"),
        ("10 ** 20 ** 20", "too large"),
        ("wood + 1", "don't go together"),
        ("wood", "comes to no number"),
        ("'a' * 999999999", "comes to nothing"),
        ("(" * 300 + "1" + ")" * 300, "can't be read"),
        ("1 + " * 400 + "1", "longer than"),
        ("0,5 * width", "0.5 and not 0,5"),
        ("width * 1,25", "0.5 and not 0,5"),
        ("1e999", "has what no formula may have"),
    ],
)
def test_formula_that_gives_nothing_says_why(formula, said):
    with pytest.raises(FormulaError, match=said):
        evaluate(formula, NAMES)


def test_names_are_found_without_functions():
    assert names_in("max(width, height) * (1 if wood == 'oak' else width)") == ("width", "height", "wood")


@given(st.text(alphabet="0123456789.+-*/()% widtheg,<>=", max_size=30))
def test_whatever_is_written_gives_a_number_or_an_error_of_ours(formula):
    with contextlib.suppress(FormulaError):
        assert evaluate(formula, NAMES).is_finite()
