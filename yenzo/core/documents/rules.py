"""Rules: conditions on other entries, and whether they hold."""

from collections.abc import Callable, Iterator
from decimal import Decimal, InvalidOperation
from typing import Annotated, Literal, Self

from pydantic import Field, model_validator

from yenzo.core.documents.entries import Address, Files
from yenzo.core.documents.own_items import OwnItems
from yenzo.core.documents.values import Frozen, Text

Match = Literal["all", "any", "none"]
Test = Literal["is", "is_not", "one_of", "filled", "empty", "more", "less", "contains", "has", "has_not"]
Entry = str | bool | Files | tuple[str, ...] | Address | OwnItems
# What is compared beside entries: the chosen variant, what the product itself is, and whether the customer is known.
VARIANT, CATEGORY, SKU, SIGNED_IN = "@variant", "@category", "@sku", "@signed_in"
# Along an axis: the value that the chosen variant stands at.
AXIS = "@axis/"
Subject = Annotated[
    str, Field(pattern=r"^(@(variant|category|sku|signed_in)|(@axis/)?[a-z0-9][a-z0-9_-]{0,59})$", max_length=70)
]
ValueOf = Callable[[str], Entry]
MOST_DIGITS = 15


class Condition(Frozen):
    """One comparison: with the entry of another field, the variant or its place on an axis, the product, the customer.

    An entry that is not asked is as if empty. Several of a choice have, or have not, one of its options.
    More and less compare numbers, and days written YYYY-MM-DD; nothing is more or less than an entry that is neither.
    """

    field: Subject
    test: Test = "is"
    value: Text | bool = ""
    values: tuple[Text, ...] = Field(default=(), max_length=200, description="for one_of")


class Group(Frozen):
    """Conditions that hold together: all, any or none of them."""

    match: Match = "all"
    conditions: tuple[Condition, ...] = Field(min_length=1, max_length=20)


class Rule(Frozen):
    """Conditions, and groups of conditions, of which all, any or none hold."""

    match: Match = "all"
    conditions: tuple[Condition, ...] = Field(default=(), max_length=20)
    groups: Annotated[tuple[Group, ...], Field(max_length=10)] = ()

    @model_validator(mode="after")
    def _says_something(self) -> Self:
        if not self.conditions and not self.groups:
            raise ValueError("a rule needs a condition")
        return self

    @property
    def all_conditions(self) -> Iterator[Condition]:
        """Every condition, those of groups included."""
        yield from self.conditions
        for group in self.groups:
            yield from group.conditions


def compared_otherwise(rule: Rule, field: str, named: Callable[[str], str]) -> Rule:
    """Return a rule whose comparisons with one field's entry have other values: what `named` makes of each."""

    def renamed(conditions: tuple[Condition, ...]) -> tuple[Condition, ...]:
        """Return the conditions, those on the field with another value."""
        return tuple(_renamed(one, named) if one.field == field else one for one in conditions)

    groups = tuple(group.model_copy(update={"conditions": renamed(group.conditions)}) for group in rule.groups)
    return rule.model_copy(update={"conditions": renamed(rule.conditions), "groups": groups})


def _renamed(condition: Condition, named: Callable[[str], str]) -> Condition:
    value = condition.value if isinstance(condition.value, bool) else named(condition.value)
    return condition.model_copy(update={"value": value, "values": tuple(map(named, condition.values))})


def holds(rule: Rule, value_of: ValueOf) -> bool:
    """Tell whether a rule holds; `value_of` gives the entry of a field, empty when it isn't asked."""
    results = [_matches(condition, value_of(condition.field)) for condition in rule.conditions]
    for group in rule.groups:
        inner = [_matches(condition, value_of(condition.field)) for condition in group.conditions]
        results.append(_together(group.match, inner))
    return _together(rule.match, results)


def _together(match: Match, results: list[bool]) -> bool:
    if match == "all":
        return all(results)
    return any(results) if match == "any" else not any(results)


def _matches(condition: Condition, value: Entry) -> bool:
    match condition.test:
        case "is":
            return _same(condition.value, value)
        case "is_not":
            return not _same(condition.value, value)
        case "one_of":
            return value in condition.values
        case "has":
            return isinstance(value, tuple) and condition.value in value
        case "has_not":
            return not isinstance(value, tuple) or condition.value not in value
        case "filled":
            return bool(value)
        case "empty":
            return not value
        case "contains":
            return isinstance(value, str) and str(condition.value).casefold() in value.casefold()
        case "more":
            return _order(value, condition.value) > 0
        case "less":
            return _order(value, condition.value) < 0


def _same(wanted: str | bool, value: Entry) -> bool:
    # An entry that isn't asked is as if empty, which for a question means no.
    return bool(value) == wanted if isinstance(wanted, bool) else value == wanted


def _order(value: Entry, bound: str | bool) -> int:
    """Return 1, 0 or -1 as a value is more than, the same as, or less than a bound; 0 when they can't be compared."""
    if not isinstance(value, str) or not isinstance(bound, str) or not value:
        return 0
    one, two = read_number(value), read_number(bound)
    if one is not None and two is not None:
        return (one > two) - (one < two)
    if len(value) == len(bound) == len("2031-06-14"):
        return (value > bound) - (value < bound)
    return 0


def read_number(typed: str) -> Decimal | None:
    """Return a number that was typed with a point or a comma before its decimals; None for anything else."""
    plain = typed.replace(" ", "").replace("\u00a0", "").replace("−", "-").replace(",", ".")
    digits = plain.lstrip("+-").replace(".", "", 1)
    if not digits.isdecimal() or len(digits) > MOST_DIGITS:
        return None
    try:
        return Decimal(plain)
    except InvalidOperation:
        return None
