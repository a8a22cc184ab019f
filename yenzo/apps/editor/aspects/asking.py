"""When a line or section is asked, when it is needed, and when an entry lands somewhere."""

from abc import abstractmethod
from collections.abc import Sequence
from typing import Any

from django import forms

from yenzo.apps.editor.aspects.conditions import (
    beside_field,
    code_of,
    comparisons,
    condition_of,
    rule_words,
    written_beside,
)
from yenzo.apps.editor.aspects.interface import Aspect, FormLine, L, Operations, SectionLine
from yenzo.core.documents.rules import Condition, Rule

ROWS, MORE, MOST_CONDITIONS = 12, 4, 20
MATCHES = (("all", "all of these hold"), ("any", "any of these holds"), ("none", "none of these holds"))
INNER = "inner-"


class RuleAspect(Aspect[L]):
    """A rule over the entries of other lines; what it decides is the subclass's.

    The form has one group of conditions inside; what a document has beyond that stays.
    """

    label = "Asked when"
    unruled = "always"

    @abstractmethod
    def rule(self, line: L) -> Rule | None:
        """Return the rule there is."""

    @abstractmethod
    def put(self, line: L, rule: dict[str, Any] | None) -> dict[str, Any]:
        """Return the operation that puts a rule in place."""

    def words(self, line: L) -> str:
        rule = self.rule(line)
        return self.unruled if rule is None else rule_words(line.setup, rule)

    def form_fields(self, line: L) -> dict[str, forms.Field]:
        rule = self.rule(line)
        tests = comparisons(line.setup, line.key)
        group = rule.groups[0] if rule and rule.groups else None
        fields = _rows(tests, rule.conditions if rule else (), "")
        inner = _rows(tests, group.conditions if group else (), INNER)
        return {
            "match": _match(rule.match if rule else "all", self.label),
            **fields,
            f"{INNER}match": _match(group.match if group else "any", "And, taken together as one condition"),
            **inner,
        }

    def operations(self, line: L, given: dict[str, Any]) -> Operations:
        conditions, inside = _conditions(line, given, ""), _conditions(line, given, INNER)
        rule = self.rule(line)
        groups = [group.model_dump() for group in rule.groups[1:]] if rule else []
        if inside:
            groups.insert(0, {"match": given[f"{INNER}match"], "conditions": inside})
        if not conditions and not groups:
            return [self.put(line, None)]
        made = {"match": given["match"], "conditions": conditions}
        return [self.put(line, {**made, "groups": groups} if groups else made)]


def _match(initial: str, label: str) -> forms.Field:
    return forms.ChoiceField(choices=MATCHES, initial=initial, label=label)


def _rows(tests: list[tuple[str, str]], conditions: Sequence[Condition], prefix: str) -> dict[str, forms.Field]:
    kept = [code_of(condition, dict(tests)) for condition in conditions]
    choices = [("", "—"), *tests, *((code, code) for code in kept if code not in dict(tests))]
    what = "Inner condition" if prefix else "Condition"
    fields: dict[str, forms.Field] = {}
    for row in range(min(max(ROWS, len(kept) + MORE), MOST_CONDITIONS)):
        initial = kept[row] if row < len(kept) else ""
        label = f"{what} {row + 1}"
        test = forms.ChoiceField(required=False, choices=choices, initial=initial, label=label)
        # Shown as soon as the one before it is in use.
        test.is_next = row > len(kept)  # type: ignore[attr-defined]
        fields[f"{prefix}test-{row}"] = test
        beside = written_beside(conditions[row], initial) if initial else ""
        fields[f"{prefix}value-{row}"] = beside_field(f"… of {label.lower()}", beside)
    return fields


def _conditions(line: L, given: dict[str, Any], prefix: str) -> list[dict[str, Any]]:
    begins = f"{prefix}test-"
    rows = [
        (given[name], given[f"{prefix}value-{name.removeprefix(begins)}"].strip())
        for name in given
        if name.startswith(begins) and given[name]
    ]
    return [condition_of(line.setup, code, beside) for code, beside in dict.fromkeys(rows)]


class RequiredWhenAspect(RuleAspect[FormLine]):
    key, heading, offer = "required-when", "When is it needed?", "needed when"
    label = "Needed when"
    unruled = "as said above"

    def rule(self, line: FormLine) -> Rule | None:
        return line.field.required_when

    def put(self, line: FormLine, rule: dict[str, Any] | None) -> dict[str, Any]:
        return line.set("required_when", rule)

    def is_plain(self, line: FormLine) -> bool:
        return self.rule(line) is None


class AskWhenAspect(RuleAspect[FormLine]):
    key, heading = "ask-when", "When is it asked?"

    def rule(self, line: FormLine) -> Rule | None:
        return line.field.ask_when

    def put(self, line: FormLine, rule: dict[str, Any] | None) -> dict[str, Any]:
        return line.set("ask_when", rule)


class SectionAskWhenAspect(RuleAspect[SectionLine]):
    key, heading = "ask-when", "When is this section asked?"

    def rule(self, line: SectionLine) -> Rule | None:
        return line.section.ask_when

    def put(self, line: SectionLine, rule: dict[str, Any] | None) -> dict[str, Any]:
        return line.set("ask_when", rule)


class LandsWhenAspect(RuleAspect[FormLine]):
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
