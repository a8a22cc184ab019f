"""Conditions of rules: in words, as the codes of a form, and back."""

from typing import Any

from django import forms

from yenzo.apps.editor.aspects.choosing import possibilities
from yenzo.apps.pages.fields import LineField
from yenzo.core.asking.words import value_name
from yenzo.core.documents.field_base import TypedField
from yenzo.core.documents.fields import AnyField, YesNoField
from yenzo.core.documents.rules import SIGNED_IN, Condition, Rule, Test
from yenzo.core.documents.setup import Setup
from yenzo.core.documents.subjects import product_subjects, subject_name, subject_of

# What takes what is written beside it, and how it is said.
WRITTEN = {
    "is": "is",
    "is_not": "is not",
    "more": "is more than",
    "less": "is less than",
    "contains": "contains",
    "one_of": "is one of",
    "has": "has",
    "has_not": "hasn't",
}
# How the code of a comparison ends that takes what is written beside it.
OPEN = " …"


def rule_words(setup: Setup, rule: Rule) -> str:
    """Return a rule in words."""
    said = [condition_words(setup, condition) for condition in rule.conditions]
    for group in rule.groups:
        inner = [condition_words(setup, condition) for condition in group.conditions]
        said.append(f"({_together(group.match, inner)})")
    return _together(rule.match, said)


def _together(match: str, said: list[str]) -> str:
    if match == "none":
        return f"neither {' nor '.join(said)}" if len(said) > 1 else f"not: {said[0]}"
    return (" and " if match == "all" else " or ").join(said)


def condition_words(setup: Setup, condition: Condition) -> str:
    """Return a condition in words."""
    name, test, value = subject_name(setup, condition.field), condition.test, condition.value
    if condition.field == SIGNED_IN:
        return f"the customer is{'' if (test == 'is') == value else ' not'} signed in"
    if test in {"filled", "empty"}:
        return f"{name} is {test}"
    if isinstance(value, bool):
        return f"{name} is{'' if test == 'is' else ' not'} {'yes' if value else 'no'}"
    if test == "one_of":
        return f"{name} is one of {', '.join(_value_words(setup, condition.field, one) for one in condition.values)}"
    if value == "":
        return f"{name} is{'' if test == 'is' else ' not'} empty"
    return f"{name} {WRITTEN[test]} {_value_words(setup, condition.field, value)}"


def _value_words(setup: Setup, subject: str, value: str) -> str:
    found = subject_of(setup, subject)
    if found and found.field and not isinstance(found.field, TypedField):
        return value_name(setup, found.field, value)
    names = found.values if found and found.values else {}
    return names.get(value, f"“{value}”")


def comparisons(setup: Setup, but: str) -> list[tuple[str, str]]:
    """Return every comparison with the customer, the variant or a field but one, as (code, words)."""
    found = []
    for subject in product_subjects(setup):
        values: tuple[str | bool, ...] = (True, False) if subject.is_yes_no else tuple(subject.values or ())
        tests: tuple[Test, ...] = ("is",) if subject.is_yes_no else ("is", "is_not")
        conditions = (Condition(field=subject.key, test=test, value=value) for value in values for test in tests)
        found += [_coded(setup, condition) for condition in conditions]
    for field in setup.fields:
        if field.key != but and field.has_entry:
            found += _comparisons_with(setup, field)
    return found


def _comparisons_with(setup: Setup, field: AnyField) -> list[tuple[str, str]]:
    if isinstance(field, YesNoField):
        return [_coded(setup, Condition(field=field.key, value=value)) for value in (True, False)]
    found = [_coded(setup, Condition(field=field.key, test=test)) for test in ("filled", "empty")]
    offered = possibilities(setup, field)
    for key, _ in offered:
        found += [_coded(setup, Condition(field=field.key, test=test, value=key)) for test in field.tests]
    if offered or "per_choice" in field.charged_by:
        return found
    return found + [(f"{field.key} {test}{OPEN}", f"{field.label} {WRITTEN[test]}{OPEN}") for test in field.tests]


def _coded(setup: Setup, condition: Condition) -> tuple[str, str]:
    return code_of(condition, {}), condition_words(setup, condition)


def code_of(condition: Condition, offered: dict[str, str]) -> str:
    """Return a condition as a form has it: open, when that is offered and something stands beside it."""
    is_open = f"{condition.field} {condition.test}{OPEN}"
    if is_open in offered and condition.value != "":
        return is_open
    if condition.test in {"filled", "empty"}:
        return f"{condition.field} {condition.test}"
    if condition.test == "one_of":
        return is_open
    value = {True: "yes", False: "no"}[condition.value] if isinstance(condition.value, bool) else condition.value
    return f"{condition.field} {condition.test} {value}"


def written_beside(condition: Condition, code: str) -> str:
    """Return what is written beside the code of a condition."""
    if not code.endswith(OPEN):
        return ""
    return ", ".join(condition.values) if condition.test == "one_of" else str(condition.value)


def condition_of(setup: Setup, code: str, beside: str) -> dict[str, Any]:
    """Return the condition that a code and what is written beside it mean; raises ValidationError."""
    key, test, *rest = code.split(" ", 2)
    if test in {"filled", "empty"}:
        return {"field": key, "test": test}
    if code.endswith(OPEN):
        if not beside:
            raise forms.ValidationError("Write beside the condition what it is to be compared with.")
        if test == "one_of":
            return {"field": key, "test": test, "values": [part.strip() for part in beside.split(",") if part.strip()]}
        return {"field": key, "test": test, "value": beside}
    value = rest[0] if rest else ""
    subject = subject_of(setup, key)
    return {"field": key, "test": test, "value": value == "yes" if subject and subject.is_yes_no else value}


def beside_field(label: str, initial: str) -> forms.Field:
    """Return the box beside a condition, to be shown only while that takes what is written."""
    field = LineField(required=False, max_length=500, initial=initial, label=label)
    field.is_beside = True  # type: ignore[attr-defined]
    return field
