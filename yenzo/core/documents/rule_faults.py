"""Rules that can't be right: what they compare with isn't there or can't be, they never hold, or they always do."""

from collections.abc import Iterator
from datetime import date, timedelta
from itertools import product
from typing import TYPE_CHECKING

from yenzo.core.documents.fields import (
    AnyField,
    ArtworkField,
    ChoiceField,
    ColorField,
    DateField,
    NumberField,
    TypefaceField,
    YesNoField,
)
from yenzo.core.documents.rules import Condition, Entry, Rule, holds, read_number

if TYPE_CHECKING:
    from yenzo.core.documents.setup import Setup

# Beyond this many combinations nobody waits for an answer.
MOST_TRIED = 4000
ANYTHING_ELSE = "\u0001"
ONE_DAY = timedelta(days=1)


def find_rule_faults(setup: "Setup") -> Iterator[str]:
    """Yield a sentence for each rule that looks at what isn't there or can't be, or waits for itself."""
    by_key = {field.key: field for field in setup.fields}
    for rule, what in _rules(setup):
        for condition in rule.all_conditions:
            other = by_key.get(condition.field)
            if other is None:
                yield f"{what} when “{condition.field}” matches, but no field has that key."
            elif fault := _impossible(other, condition):
                yield f"{what} when “{other.label}” matches, but {fault}"
    yield from _circles(by_key)


def find_constant_rules(setup: "Setup") -> Iterator[str]:
    """Yield a sentence for each rule that never or always holds."""
    by_key = {field.key: field for field in setup.fields}
    for rule, what in _rules(setup):
        yield from _constant(rule, what, by_key)


def _rules(setup: "Setup") -> Iterator[tuple[Rule, str]]:
    for field in setup.fields:
        if field.ask_when:
            yield field.ask_when, f"“{field.label}” is asked"
        if field.required_when:
            yield field.required_when, f"“{field.label}” must be filled"
    for placement in setup.placements:
        if placement.when:
            yield placement.when, f"A placement in “{placement.area}” lands"


def _impossible(field: AnyField, condition: Condition) -> str | None:
    value = condition.value
    if condition.test in {"filled", "empty"}:
        return None
    if condition.test in {"more", "less"} and not isinstance(field, NumberField | DateField):
        return f"only numbers and days are more or less than others, which “{field.label}” is not."
    if isinstance(field, NumberField) and condition.test in {"more", "less"} and read_number(str(value)) is None:
        return f"“{value}” is no number."
    if isinstance(field, YesNoField):
        return None if isinstance(value, bool) else f"“{field.label}” is answered with yes or no, never with “{value}”."
    offered = _offered(field)
    for one in condition.values if condition.test == "one_of" else (value,):
        if offered is None or not one or condition.test == "contains":
            continue
        if one not in offered:
            what = "the typeface" if isinstance(field, TypefaceField) else "choice"
            has = "doesn't offer" if isinstance(field, TypefaceField) else "has no"
            return f"“{field.label}” {has} {what} “{one}”."
    if isinstance(field, ArtworkField) and value != "":
        return f"“{field.label}” is an upload; compare it with an empty entry only."
    return None


def _offered(field: AnyField) -> tuple[str, ...] | None:
    """Return what may be chosen, or None where anything can be."""
    if isinstance(field, ChoiceField):
        return tuple(option.key for option in field.options)
    if isinstance(field, TypefaceField):
        return field.typefaces
    return field.colors or None if isinstance(field, ColorField) else None


def _constant(rule: Rule, what: str, by_key: dict[str, AnyField]) -> Iterator[str]:
    """Yield a sentence for a rule that comes out the same whatever is entered."""
    keys = list(dict.fromkeys(condition.field for condition in rule.all_conditions))
    domains = [_domain(by_key[key], [c for c in rule.all_conditions if c.field == key]) for key in keys]
    count = 1
    for domain in domains:
        count *= len(domain)
    if count > MOST_TRIED:
        return
    outcomes = set()
    for values in product(*domains):
        entries = dict(zip(keys, values, strict=True))
        outcomes.add(holds(rule, entries.__getitem__))
        if len(outcomes) > 1:
            return
    names = " and ".join(f"“{by_key[key].label}”" for key in keys)
    how = "always, whatever is entered for" if outcomes == {True} else "never, whatever is entered for"
    yield f"{what} {how} {names}. Please change the rule or take it away."


def _domain(field: AnyField, conditions: list[Condition]) -> list[Entry]:
    """Return entries that stand for all there can be, as far as the conditions can tell them apart."""
    if isinstance(field, YesNoField):
        return [True, False]
    offered = _offered(field)
    if offered is not None:
        return ["", *offered]
    named = [str(value) for condition in conditions for value in (condition.value, *condition.values)]
    around = [near for value in named for near in _near(value)]
    return list(dict.fromkeys(["", ANYTHING_ELSE, *named, *around, "".join(named)]))


def _near(value: str) -> Iterator[str]:
    """Yield what is just below and above a number or a day."""
    number = read_number(value)
    if number is not None:
        yield from (f"{number - 1:f}", f"{number + 1:f}")
        return
    try:
        day = date.fromisoformat(value)
    except ValueError:
        return
    yield from ((day - ONE_DAY).isoformat(), (day + ONE_DAY).isoformat())


def _circles(by_key: dict[str, AnyField]) -> Iterator[str]:
    done: set[str] = set()

    def visit(key: str, path: tuple[str, ...]) -> Iterator[str]:
        if key in path:
            names = [by_key[step].label for step in (*path[path.index(key) :], key)]
            yield "These fields wait for each other: " + " → ".join(f"“{name}”" for name in names) + "."
            return
        if key in done or key not in by_key:
            return
        rule = by_key[key].ask_when
        for condition in rule.all_conditions if rule else ():
            yield from visit(condition.field, (*path, key))
        done.add(key)

    for key in by_key:
        yield from visit(key, ())
