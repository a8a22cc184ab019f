"""When a line is asked, and when its entry lands somewhere."""

from abc import abstractmethod
from typing import Any

from django import forms

from yenzo.apps.catalogue.aspects.choosing import possibilities
from yenzo.apps.catalogue.aspects.interface import Aspect, FormLine, Operations
from yenzo.core.asking.words import value_name
from yenzo.core.documents.fields import Condition, Rule, YesNoField
from yenzo.core.documents.setup import Setup

ROWS = 3


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
        return (" and " if rule.match == "all" else " or ").join(said)

    def form_fields(self, line: FormLine) -> dict[str, forms.Field]:
        rule = self.rule(line)
        tests = [("", "—"), *_tests(line)]
        kept = [_coded(condition) for condition in rule.conditions] if rule else []
        tests += [(code, code) for code in kept if code not in dict(tests)]
        fields: dict[str, forms.Field] = {
            "match": forms.ChoiceField(
                choices=(("all", "all of these hold"), ("any", "any of these holds")),
                initial=rule.match if rule else "all",
                label=self.label,
            )
        }
        for row in range(max(ROWS, len(kept) + 1)):
            initial = kept[row] if row < len(kept) else ""
            fields[f"test-{row}"] = forms.ChoiceField(
                required=False, choices=tests, initial=initial, label=f"Condition {row + 1}"
            )
        return fields

    def operations(self, line: FormLine, given: dict[str, Any]) -> Operations:
        codes = [value for name, value in given.items() if name.startswith("test-") and value]
        conditions = [_decoded(line.setup, code) for code in dict.fromkeys(codes)]
        return [self.put(line, {"match": given["match"], "conditions": conditions} if conditions else None)]


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


def _condition_words(setup: Setup, condition: Condition) -> str:
    field = setup.field(condition.field)
    if field is None:
        return condition.field
    not_ = "" if condition.test == "is" else " not"
    if isinstance(field, YesNoField):
        return f"{field.label} is{not_} {'yes' if condition.value else 'no'}"
    if condition.value == "":
        return f"{field.label} is{not_} empty"
    return f"{field.label} is{not_} {value_name(setup, field, str(condition.value))}"


def _tests(line: FormLine) -> list[tuple[str, str]]:
    """Return every comparison with another line that this one can be asked by."""
    found = []
    for field in line.setup.fields:
        if field.key == line.field.key:
            continue
        if isinstance(field, YesNoField):
            values: list[str | bool] = [True, False]
        else:
            values = ["", *(key for key, _ in possibilities(line.setup, field))]
        for value in values:
            for test in ("is",) if isinstance(value, bool) else ("is", "is_not"):
                condition = Condition.model_validate({"field": field.key, "test": test, "value": value})
                found.append((_coded(condition), _condition_words(line.setup, condition)))
    return found


def _coded(condition: Condition) -> str:
    value = {True: "yes", False: "no"}[condition.value] if isinstance(condition.value, bool) else condition.value
    return f"{condition.field} {condition.test} {value}"


def _decoded(setup: Setup, code: str) -> dict[str, Any]:
    key, test, value = code.split(" ", 2)
    is_yes_no = isinstance(setup.field(key), YesNoField)
    return {"field": key, "test": test, "value": value == "yes" if is_yes_no else value}
