"""When a line is asked, and when its entry lands somewhere."""

from abc import abstractmethod
from typing import Any

from django import forms

from yenzo.apps.catalogue.aspects.choosing import possibilities
from yenzo.apps.catalogue.aspects.interface import Aspect, FormLine, Operations
from yenzo.core.asking.words import value_name
from yenzo.core.documents.fields import AnyField, DateField, NumberField, TypedField, YesNoField
from yenzo.core.documents.rules import Condition, Group, Rule
from yenzo.core.documents.setup import Setup

ROWS = 3
MATCHES = (("all", "all of these hold"), ("any", "any of these holds"), ("none", "none of these holds"))
# What takes what is written beside it, and how it is said.
WRITTEN = {
    "is": "is",
    "is_not": "is not",
    "more": "is more than",
    "less": "is less than",
    "contains": "contains",
    "one_of": "is one of",
}


class RuleAspect(Aspect):
    """A rule over the entries of other lines; what it decides is the subclass's."""

    label = "Asked when"
    unruled = "always"

    @abstractmethod
    def rule(self, line: FormLine) -> Rule | None:
        """Return the rule there is."""

    @abstractmethod
    def put(self, line: FormLine, rule: dict[str, Any] | None) -> dict[str, Any]:
        """Return the operation that puts a rule in place."""

    def words(self, line: FormLine) -> str:
        rule = self.rule(line)
        if rule is None:
            return self.unruled
        said = [_condition_words(line.setup, condition) for condition in rule.conditions]
        said += [f"({_group_words(line.setup, group)})" for group in rule.groups]
        return _joined(rule.match, said)

    def form_fields(self, line: FormLine) -> dict[str, forms.Field]:
        rule = self.rule(line)
        tests = [("", "—"), *_tests(line)]
        conditions = rule.conditions if rule else ()
        kept = [_coded(condition, dict(tests)) for condition in conditions]
        tests += [(code, code) for code in kept if code not in dict(tests)]
        fields: dict[str, forms.Field] = {
            "match": forms.ChoiceField(
                choices=MATCHES,
                initial=rule.match if rule else "all",
                label=self.label,
            )
        }
        for row in range(max(ROWS, len(kept) + 1)):
            initial = kept[row] if row < len(kept) else ""
            fields[f"test-{row}"] = forms.ChoiceField(
                required=False, choices=tests, initial=initial, label=f"Condition {row + 1}"
            )
            beside = _beside(conditions[row]) if initial.endswith(OPEN) else ""
            fields[f"value-{row}"] = _beside_field(row, beside)
        return fields

    def operations(self, line: FormLine, given: dict[str, Any]) -> Operations:
        rows = [(given[name], given[f"value-{name[5:]}"]) for name in given if name.startswith("test-") and given[name]]
        conditions = [_decoded(line.setup, code, beside.strip()) for code, beside in dict.fromkeys(rows)]
        rule = self.rule(line)
        groups = [group.model_dump() for group in rule.groups] if rule else []
        if not conditions and not groups:
            return [self.put(line, None)]
        made = {"match": given["match"], "conditions": conditions}
        return [self.put(line, {**made, "groups": groups} if groups else made)]


class RequiredWhenAspect(RuleAspect):
    key, heading, offer = "required-when", "When must it be filled?", "needed when"
    label = "Must be filled when"
    unruled = "as said above"

    def rule(self, line: FormLine) -> Rule | None:
        return line.field.required_when

    def put(self, line: FormLine, rule: dict[str, Any] | None) -> dict[str, Any]:
        return line.set("required_when", rule)

    def is_plain(self, line: FormLine) -> bool:
        return self.rule(line) is None


class AskWhenAspect(RuleAspect):
    key, heading = "ask-when", "When is it asked?"

    def rule(self, line: FormLine) -> Rule | None:
        return line.field.ask_when

    def put(self, line: FormLine, rule: dict[str, Any] | None) -> dict[str, Any]:
        return line.set("ask_when", rule)


class LandsWhenAspect(RuleAspect):
    key, heading, offer = "lands-when", "When does it land here?", "only when"
    label = "Lands here when"
    unruled = "whenever it is filled"

    def rule(self, line: FormLine) -> Rule | None:
        return line.placement.when if line.placement else None

    def put(self, line: FormLine, rule: dict[str, Any] | None) -> dict[str, Any]:
        return line.set_placement("when", rule)

    def is_plain(self, line: FormLine) -> bool:
        return self.rule(line) is None

    def words(self, line: FormLine) -> str:
        said = super().words(line)
        return said if self.rule(line) is None else f"when {said}"


# How the code of a comparison ends that takes what is written beside it.
OPEN = " …"


def _beside_field(row: int, initial: str) -> forms.Field:
    """Return the box beside a condition, to be shown only while that takes what is written."""
    field = forms.CharField(required=False, max_length=500, initial=initial, label=f"… of condition {row + 1}")
    field.is_beside = True  # type: ignore[attr-defined]
    return field


def _joined(match: str, said: list[str]) -> str:
    if match == "none":
        return f"neither {' nor '.join(said)}" if len(said) > 1 else f"not: {said[0]}"
    return (" and " if match == "all" else " or ").join(said)


def _group_words(setup: Setup, group: Group) -> str:
    return _joined(group.match, [_condition_words(setup, condition) for condition in group.conditions])


def _condition_words(setup: Setup, condition: Condition) -> str:
    field = setup.field(condition.field)
    if field is None:
        return condition.field
    if condition.test in {"filled", "empty"}:
        return f"{field.label} is {condition.test}"
    if isinstance(condition.value, bool):
        return f"{field.label} is{'' if condition.test == 'is' else ' not'} {'yes' if condition.value else 'no'}"
    if condition.test == "one_of":
        return f"{field.label} is one of {', '.join(_value_words(setup, field, value) for value in condition.values)}"
    if condition.value == "":
        return f"{field.label} is{'' if condition.test == 'is' else ' not'} empty"
    said = _value_words(setup, field, condition.value)
    return f"{field.label} {WRITTEN[condition.test]} {said}"


def _value_words(setup: Setup, field: AnyField, value: str) -> str:
    return f"“{value}”" if isinstance(field, TypedField) else value_name(setup, field, value)


def _tests(line: FormLine) -> list[tuple[str, str]]:
    """Return every comparison with another line that this one can be asked by."""
    found = []
    for field in line.setup.fields:
        if field.key == line.field.key:
            continue
        if isinstance(field, YesNoField):
            found += [_choice(line.setup, Condition(field=field.key, value=value)) for value in (True, False)]
            continue
        fixed = [Condition(field=field.key, test="filled"), Condition(field=field.key, test="empty")]
        for key, _ in possibilities(line.setup, field):
            fixed.append(Condition(field=field.key, test="is", value=key))
            fixed.append(Condition(field=field.key, test="is_not", value=key))
        found += [_choice(line.setup, condition) for condition in fixed]
        found += [(f"{field.key} {test}{OPEN}", f"{field.label} {WRITTEN[test]}{OPEN}") for test in _open_tests(field)]
    return found


def _open_tests(field: AnyField) -> tuple[str, ...]:
    if isinstance(field, NumberField | DateField):
        return ("is", "is_not", "more", "less")
    return ("is", "is_not", "contains", "one_of") if isinstance(field, TypedField) else ()


def _choice(setup: Setup, condition: Condition) -> tuple[str, str]:
    return _coded(condition, {}), _condition_words(setup, condition)


def _coded(condition: Condition, offered: dict[str, str]) -> str:
    is_open = f"{condition.field} {condition.test}{OPEN}"
    if is_open in offered and condition.value != "":
        return is_open
    if condition.test in {"filled", "empty"}:
        return f"{condition.field} {condition.test}"
    if condition.test == "one_of":
        return is_open
    value = {True: "yes", False: "no"}[condition.value] if isinstance(condition.value, bool) else condition.value
    return f"{condition.field} {condition.test} {value}"


def _beside(condition: Condition) -> str:
    return ", ".join(condition.values) if condition.test == "one_of" else str(condition.value)


def _decoded(setup: Setup, code: str, beside: str) -> dict[str, Any]:
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
    is_yes_no = isinstance(setup.field(key), YesNoField)
    return {"field": key, "test": test, "value": value == "yes" if is_yes_no else value}
