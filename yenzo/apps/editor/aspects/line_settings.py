"""What kind a line is, where it stands in the form, and what is explained about it."""

from collections.abc import Callable, Iterator
from contextlib import suppress
from typing import Any

from django import forms
from pydantic import ValidationError

from yenzo.apps.editor.aspects.interface import Aspect, FormLine, Operations
from yenzo.apps.pages.fields import LinesField
from yenzo.apps.pages.phrases import joined
from yenzo.apps.products.kinds import KIND_WORDS, MODELS, beginning_of
from yenzo.core.documents.fields import AddressField, OptionsField, TextField
from yenzo.core.documents.reading import dump_part
from yenzo.core.documents.rule_faults import rules_of
from yenzo.core.documents.rules import compared_otherwise

WIDTHS = {"full": "as wide as the form", "half": "half as wide", "third": "a third as wide"}
# What every kind of field has and keeps.
SHARED = frozenset(
    {
        "key",
        "label",
        "workshop_name",
        "help",
        "explanation",
        "picture",
        "section",
        "width",
        "required",
        "required_when",
        "ask_when",
        "lands_on",
    }
)


class KindAspect(Aspect):
    key, heading = "kind", "What kind of line is it?"

    def words(self, line: FormLine) -> str:
        return KIND_WORDS[line.field.kind].phrase

    def form_fields(self, line: FormLine) -> dict[str, forms.Field]:
        kept = "What another kind can't have is kept, and comes back when it is changed back."
        lost = [*_placed_words(line), *_charged_words(line)]
        warning = f" {joined(lost).capitalize()} may not suit another kind; then the change is refused." if lost else ""
        choices = [(kind, said.phrase.capitalize()) for kind, said in KIND_WORDS.items()]
        return {
            "kind": forms.ChoiceField(
                choices=choices, initial=line.field.kind, label="Kind", help_text=f"{kept}{warning}"
            )
        }

    def losses(self, line: FormLine, given: dict[str, Any]) -> list[str]:
        if given["kind"] == line.field.kind:
            return []
        item = _changed(line, given["kind"])
        if "options" in item or not issubclass(MODELS[given["kind"]], TextField):
            return []
        return [
            f"the choice that a rule waits for ({what[0].lower()}{what[1:]} when it is "
            f"{joined([f'“{word}”' for word in words], 'or')}; then only who types exactly that meets it)"
            for what, words in _waited_for(line, _named_anew(line, item))
        ]

    def operations(self, line: FormLine, given: dict[str, Any]) -> Operations:
        if given["kind"] == line.field.kind:
            return []
        item = _changed(line, given["kind"])
        position = next(at for at, field in enumerate(line.setup.fields) if field.key == line.key)
        return [
            {"do": "remove", "path": ["fields"], "key": line.key},
            {"do": "add", "path": ["fields"], "item": item, "position": position},
            *_rules_followed(line, _named_anew(line, item)),
        ]


def _named_anew(line: FormLine, item: dict[str, Any]) -> Callable[[str], str]:
    """Return what rules compare the line's entry with once it is of another kind: keys where there are choices, words
    where there are none.
    """
    before = {option.key: option.label for option in line.field.options} if isinstance(line.field, OptionsField) else {}
    after = {option["key"]: option["label"] for option in item.get("options", ())}
    keys = {label: key for key, label in after.items()}

    def named(value: str) -> str:
        words = value if value in after else before.get(value, value)
        return str(keys.get(words, words))

    return named


def _rules_followed(line: FormLine, named: Callable[[str], str]) -> Operations:
    operations: Operations = []
    for path, rule, _ in rules_of(line.setup):
        followed = compared_otherwise(rule, line.key, named)
        if followed != rule:
            operations.append({"do": "set", "path": list(path), "value": dump_part(followed)})
    return operations


def _waited_for(line: FormLine, named: Callable[[str], str]) -> Iterator[tuple[str, list[str]]]:
    """Yield what each rule that waits for choices of this line comes to, and the choices in words."""
    for _, rule, what in rules_of(line.setup):
        compared = [one for one in rule.all_conditions if one.field == line.key]
        values = [value for one in compared for value in (one.value, *one.values) if isinstance(value, str)]
        words = [named(value) for value in values if named(value) != value]
        if words:
            yield what, list(dict.fromkeys(words))


def _changed(line: FormLine, kind: str) -> dict[str, Any]:
    """Return the field as one of another kind: with what it had when it last was one, else with what still fits."""
    have = dump_part(line.field)
    kept = have.pop("kept", {})
    shared = {name: value for name, value in have.items() if name in SHARED}
    own = {name: value for name, value in have.items() if name not in SHARED}
    item = {**shared, "kind": kind, **(kept.pop(kind, None) or beginning_of(line.setup, kind))}
    for name, value in own.items():
        if name in MODELS[kind].model_fields and name != "kind":
            with suppress(ValidationError):
                item = dump_part(MODELS[kind].model_validate({**item, name: value}))
    return {**item, "kept": {**kept, line.field.kind: own}}


def _placed_words(line: FormLine) -> list[str]:
    return ["where it goes"] if any(line.setup.placements_of(line.key)) else []


def _charged_words(line: FormLine) -> list[str]:
    return ["what it adds"] if any(line.setup.charges_of(line.key)) else []


class StandsAspect(Aspect):
    key, heading, offer = "stands", "Where does it stand in the form?", "place in the form"

    def is_plain(self, line: FormLine) -> bool:
        return line.field.width == "full"

    def words(self, line: FormLine) -> str:
        return WIDTHS[line.field.width]

    def form_fields(self, line: FormLine) -> dict[str, forms.Field]:
        sections = [("", "before all sections"), *((one.key, one.title) for one in line.setup.sections)]
        return {
            "section": forms.ChoiceField(
                required=False, choices=sections, initial=line.field.section or "", label="Section"
            ),
            "width": forms.ChoiceField(
                choices=list(WIDTHS.items()),
                initial=line.field.width,
                label="Width",
                help_text="Narrow lines stand side by side on wide screens, below each other on phones.",
            ),
        }

    def operations(self, line: FormLine, given: dict[str, Any]) -> Operations:
        return [line.set("section", given["section"] or None), line.set("width", given["width"])]


class ExplanationAspect(Aspect):
    key, heading, offer = "explanation", "What is there to explain?", "explanation"

    def is_plain(self, line: FormLine) -> bool:
        return not line.field.explanation and line.field.picture is None

    def words(self, line: FormLine) -> str:
        said = [f"“{line.field.explanation[:40]}…”" if line.field.explanation else ""]
        said.append("a picture" if line.field.picture else "")
        return joined([words for words in said if words]) if any(said) else "nothing"

    def form_fields(self, line: FormLine) -> dict[str, forms.Field]:
        fields: dict[str, forms.Field] = {
            "explanation": LinesField(
                required=False,
                max_length=4000,
                initial=line.field.explanation,
                widget=forms.Textarea(attrs={"rows": 4}),
                label="Explanation, shown on demand",
            ),
            "picture": forms.FileField(required=False, label="Picture with it"),
        }
        if line.field.picture:
            fields["bare"] = forms.BooleanField(required=False, label="Take its picture away")
        return fields

    def operations(self, line: FormLine, given: dict[str, Any]) -> Operations:
        changes = [line.set("explanation", given["explanation"] or None)]
        if given.get("bare"):
            changes.append(line.set("picture", None))
        elif given["picture"]:
            changes.append(line.set("picture", given["picture"]))
        return changes


class CountriesAspect(Aspect):
    key, heading = "countries", "Which countries?"

    def words(self, line: FormLine) -> str:
        assert isinstance(line.field, AddressField)
        codes = line.field.countries
        where = f"in {', '.join(codes)}" if codes else "in any country"
        return f"{where}, at first {line.field.country}"

    def form_fields(self, line: FormLine) -> dict[str, forms.Field]:
        assert isinstance(line.field, AddressField)
        return {
            "country": forms.RegexField(r"^[A-Z]{2}$", initial=line.field.country, label="At first, as GB"),
            "countries": forms.RegexField(
                r"^([A-Z]{2}[ ,]*)*$",
                required=False,
                initial=", ".join(line.field.countries),
                label="Only these, with commas between; empty for all",
            ),
        }

    def operations(self, line: FormLine, given: dict[str, Any]) -> Operations:
        codes = list(dict.fromkeys(given["countries"].replace(",", " ").split()))
        if codes and given["country"] not in codes:
            raise forms.ValidationError(f"{given['country']} stands there at first, but is not among the countries.")
        return [line.set("country", given["country"]), line.set("countries", codes or None)]
