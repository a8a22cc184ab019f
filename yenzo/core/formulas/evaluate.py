"""Formulas: what a seller wrote and the values of its names come in, a decimal number goes out.

Numbers are decimal throughout, as money is. What can be written: numbers, names, + - * / // % **, comparisons, and, or,
not, `a if b else c`, texts in quotes, and the functions of FUNCTIONS.
"""

import ast
import math
import re
from collections.abc import Callable, Mapping
from decimal import ROUND_CEILING, ROUND_FLOOR, ROUND_HALF_UP, Decimal, InvalidOperation, localcontext
from functools import lru_cache
from typing import Any

import simpleeval

from yenzo.core.errors import FormulaError

Named = Decimal | str | bool | tuple[str, ...]
MOST_CHARACTERS = 1000
MOST_DIGITS = 40
MOST_POWER = 20
DECIMAL_COMMA = re.compile(r"\d,\d")

READABLE = (
    ast.expr_context,
    ast.operator,
    ast.unaryop,
    ast.boolop,
    ast.cmpop,
    ast.BinOp,
    ast.UnaryOp,
    ast.BoolOp,
    ast.Compare,
    ast.IfExp,
    ast.Call,
    ast.Name,
    ast.Constant,
)


def _rounded(mode: str) -> Callable[..., Decimal]:
    def rounded(number: Decimal, step: Decimal = Decimal(1)) -> Decimal:
        """Return a number at a whole multiple of `step`, rounded as `mode` says."""
        return (Decimal(number) / step).to_integral_value(mode) * step

    return rounded


def _least(*numbers: Decimal) -> Decimal:
    return min(numbers)


def _most(*numbers: Decimal) -> Decimal:
    return max(numbers)


def _root(number: Decimal) -> Decimal:
    return Decimal(number).sqrt()


def _count(value: Named) -> Decimal:
    return Decimal(len(value)) if isinstance(value, str | tuple) else Decimal(bool(value))


FUNCTIONS: dict[str, Callable[..., Any]] = {
    "round": _rounded(ROUND_HALF_UP),
    "up": _rounded(ROUND_CEILING),
    "down": _rounded(ROUND_FLOOR),
    "min": _least,
    "max": _most,
    "abs": abs,
    "root": _root,
    "count": _count,
}


def names_in(formula: str) -> tuple[str, ...]:
    """Return the names that a formula looks at, each once, in order; raises FormulaError when it can't be read."""
    tree = _parsed(formula)
    found = (node.id for node in ast.walk(tree) if isinstance(node, ast.Name))
    return tuple(dict.fromkeys(name for name in found if name not in FUNCTIONS))


def evaluate(formula: str, names: Mapping[str, Named]) -> Decimal:
    """Return what a formula comes to; raises FormulaError with what is the matter, in words."""
    tree = _parsed(formula)
    try:
        with localcontext() as context:
            context.prec = MOST_DIGITS
            found = _Evaluator(names).eval(formula, previously_parsed=tree)
            number = Decimal(found) if isinstance(found, bool | Decimal | int) else None
    except (ArithmeticError, ValueError, TypeError, simpleeval.InvalidExpression, RecursionError) as error:
        raise FormulaError("no_result", formula, f"“{formula}” comes to nothing: {_why(error)}.") from error
    if number is None or not number.is_finite():
        raise FormulaError("no_number", formula, f"“{formula}” comes to no number.")
    return number


def _why(error: Exception) -> str:
    if isinstance(error, simpleeval.NameNotDefined):
        return f"nothing is called “{error.name}”"
    if isinstance(error, simpleeval.FunctionNotDefined):
        return f"there is no function “{error.func_name}”"
    if isinstance(error, ZeroDivisionError | InvalidOperation):
        return "it divides by zero, or by something that isn't filled in"
    if isinstance(error, ArithmeticError):
        return "its numbers become too large"
    return "its parts don't go together"


def _power(base: Decimal, exponent: Decimal) -> Decimal:
    if abs(exponent) > MOST_POWER:
        raise OverflowError
    return Decimal(base) ** exponent


class _Evaluator(simpleeval.SimpleEval):  # type: ignore[misc]
    def __init__(self, names: Mapping[str, Named]) -> None:
        operators = {**simpleeval.DEFAULT_OPERATORS, ast.Pow: _power}
        super().__init__(operators=operators, functions=FUNCTIONS, names=names)
        self.nodes[ast.Constant] = _constant


def _constant(node: ast.Constant) -> Named:
    if isinstance(node.value, bool | str):
        return node.value
    return Decimal(str(node.value))


@lru_cache(maxsize=1000)
def _parsed(formula: str) -> ast.expr:
    if len(formula) > MOST_CHARACTERS:
        raise FormulaError("too_long", formula[:40], f"The formula is longer than {MOST_CHARACTERS} characters.")
    try:
        tree = ast.parse(formula.strip(), mode="eval").body
    except (SyntaxError, ValueError, RecursionError, MemoryError) as error:
        raise FormulaError("unreadable", formula, f"“{formula}” can't be read as a formula.") from error
    if any(isinstance(node, ast.Tuple) for node in ast.walk(tree)) and DECIMAL_COMMA.search(formula):
        message = f"“{formula}” has a comma in a number: write decimals with a point, 0.5 and not 0,5."
        raise FormulaError("decimal_comma", formula, message)
    if not all(isinstance(node, READABLE) and _is_plain(node) for node in ast.walk(tree)):
        raise FormulaError("unreadable", formula, f"“{formula}” has what no formula may have.")
    return tree


def _is_plain(node: ast.AST) -> bool:
    if isinstance(node, ast.Call):
        return isinstance(node.func, ast.Name) and not node.keywords
    if isinstance(node, ast.Constant):
        return isinstance(node.value, str | int) or (isinstance(node.value, float) and math.isfinite(node.value))
    return True
