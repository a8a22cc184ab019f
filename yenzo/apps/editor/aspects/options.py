"""Options of a choice: their names, how they look, when each is offered, and how many may be chosen."""

from typing import Any

from django import forms

from yenzo.apps.editor.aspects.choosing import MOST_NAMED, dropped_amounts, lost_amounts, possibilities
from yenzo.apps.editor.aspects.conditions import (
    beside_field,
    code_of,
    comparisons,
    condition_of,
    rule_words,
    written_beside,
)
from yenzo.apps.editor.aspects.interface import Aspect, FormLine, Operations
from yenzo.apps.pages.fields import LineField, LinesField
from yenzo.apps.pages.phrases import counted, joined
from yenzo.core.documents.edits import free_key
from yenzo.core.documents.fields import ChoiceField, Option, OptionsField, SeveralField
from yenzo.core.documents.reading import dump_part
from yenzo.core.documents.renaming import named_before

SHOWN = {"buttons": "as buttons", "list": "as a list", "pictures": "as pictures"}


class OptionsAspect(Aspect):
    key, heading = "options", "What can be chosen?"

    def words(self, line: FormLine) -> str:
        names = [name for _, name in possibilities(line.setup, line.field)]
        more = len(names) - MOST_NAMED
        return joined(names, "or") if more <= 0 else f"{', '.join(names[:MOST_NAMED])} and {more} more"

    def form_fields(self, line: FormLine) -> dict[str, forms.Field]:
        assert isinstance(line.field, OptionsField)
        lines = [
            f"{option.label} = {option.produced}" if option.produced else option.label for option in line.field.options
        ]
        return {
            "options": LinesField(
                widget=forms.Textarea(attrs={"rows": min(len(lines) + 2, 10)}),
                initial="\n".join(lines),
                label="One choice a line; after “ = ” what is produced, if it is another text",
            )
        }

    def losses(self, line: FormLine, given: dict[str, Any]) -> list[str]:
        assert isinstance(line.field, OptionsField)
        left = {option["key"] for option in self._options(line, given)}
        gone = [option for option in line.field.options if option.key not in left]
        looks = [f"the {joined(_looks(option))} of “{option.label}”" for option in gone if _looks(option)]
        return [*lost_amounts(line, left), *looks]

    def operations(self, line: FormLine, given: dict[str, Any]) -> Operations:
        options = self._options(line, given)
        left = {option["key"] for option in options}
        return [line.set("options", options), *_default_left(line, left), *dropped_amounts(line, left)]

    def _options(self, line: FormLine, given: dict[str, Any]) -> list[dict[str, Any]]:
        """Return the options as documents have them; a choice that is called otherwise now stays the same one."""
        assert isinstance(line.field, OptionsField)
        before = line.field.options
        rows = [row.strip() for row in given["options"].splitlines() if row.strip()]
        pairs = [tuple(part.strip() for part in row.partition(" = ")[::2]) for row in rows]
        found = named_before([option.label for option in before], [label for label, _ in pairs])
        taken = [{"key": option.key} for option in before]
        options: list[dict[str, Any]] = []
        for (label, produced), at in zip(pairs, found, strict=True):
            if at is not None:
                options.append(dump_part(before[at].model_copy(update={"label": label, "produced": produced})))
                continue
            key = free_key({"options": [*options, *taken]}, ("options",), label)
            options.append({"key": key, "label": label, **({"produced": produced} if produced else {})})
        return options


def _looks(option: Option) -> list[str]:
    """Return what an option shows of itself, in words."""
    has = {"color": option.swatch, "picture": option.picture, "artwork": option.artwork, "goods": option.goods}
    return [words for words, value in {**has, "overlay": option.overlays}.items() if value]


def _default_left(line: FormLine, left: set[str]) -> Operations:
    if isinstance(line.field, SeveralField):
        kept = [key for key in line.field.default if key in left]
        return [line.set("default", kept or None)] if len(kept) < len(line.field.default) else []
    default = getattr(line.field, "default", None)
    return [line.set("default", None)] if default is not None and default not in left else []


class LooksAspect(Aspect):
    key, heading, offer = "looks", "How are the choices shown?", "looks"

    def is_plain(self, line: FormLine) -> bool:
        return self.words(line) == SHOWN["buttons"]

    def words(self, line: FormLine) -> str:
        assert isinstance(line.field, OptionsField)
        pictures = sum(option.picture is not None for option in line.field.options)
        said = [SHOWN[line.field.shown]]
        said = [joined(said + ([counted(pictures, "picture")] if pictures else []), "with")]
        prompt = getattr(line.field, "prompt", "")
        return joined(said + ([f"beginning with “{prompt}”"] if prompt else []), "and")

    def form_fields(self, line: FormLine) -> dict[str, forms.Field]:
        assert isinstance(line.field, OptionsField)
        shown = [(key, words.removeprefix("as ").capitalize()) for key, words in SHOWN.items()]
        fields: dict[str, forms.Field] = {
            "shown": forms.ChoiceField(choices=shown, initial=line.field.shown, label="Shown as")
        }
        if isinstance(line.field, ChoiceField):
            fields["prompt"] = LineField(
                required=False,
                max_length=120,
                initial=line.field.prompt,
                label="Words that it begins with, until something is chosen",
            )
        for option in line.field.options:
            fields[f"swatch-{option.key}"] = forms.RegexField(
                r"^#[0-9a-fA-F]{6}$",
                required=False,
                initial=option.swatch or "",
                label=f"Color of {option.label}, as #1b6f6a",
                error_messages={"invalid": "Write a color as # and six digits or letters: #1b6f6a."},
            )
            have = "another picture" if option.picture else "a picture"
            fields[f"picture-{option.key}"] = forms.FileField(required=False, label=f"{option.label}: {have}")
            if option.picture:
                fields[f"bare-{option.key}"] = forms.BooleanField(required=False, label=f"{option.label}: no picture")
        return fields

    def operations(self, line: FormLine, given: dict[str, Any]) -> Operations:
        assert isinstance(line.field, OptionsField)
        looks = [line.set("shown", given["shown"])]
        if "prompt" in given:
            looks.append(line.set("prompt", given["prompt"] or None))
        for option in line.field.options:
            looks.append(_set_option(line, option, "swatch", given[f"swatch-{option.key}"] or None))
            if given.get(f"bare-{option.key}"):
                looks.append(_set_option(line, option, "picture", None))
            elif given.get(f"picture-{option.key}"):
                looks.append(_set_option(line, option, "picture", given[f"picture-{option.key}"]))
        return looks


class OfferedWhenAspect(Aspect):
    key, heading, offer = "offered-when", "When is each of the choices offered?", "single choices only when"

    def is_plain(self, line: FormLine) -> bool:
        assert isinstance(line.field, OptionsField)
        return all(option.ask_when is None for option in line.field.options)

    def words(self, line: FormLine) -> str:
        assert isinstance(line.field, OptionsField)
        said = [
            f"{option.label} only when {rule_words(line.setup, option.ask_when)}"
            for option in line.field.options
            if option.ask_when
        ]
        return joined(said) if said else "each always"

    def form_fields(self, line: FormLine) -> dict[str, forms.Field]:
        assert isinstance(line.field, OptionsField)
        offered = comparisons(line.setup, line.field.key)
        fields: dict[str, forms.Field] = {}
        for option in line.field.options:
            rule = option.ask_when
            if rule is not None and (rule.groups or len(rule.conditions) > 1):
                continue  # Such a rule was written in a document, and stays as it is.
            condition = rule.conditions[0] if rule else None
            code = code_of(condition, dict(offered)) if condition else ""
            more = [(code, code)] if code and code not in dict(offered) else []
            fields[f"test-{option.key}"] = forms.ChoiceField(
                required=False,
                choices=[("", "always"), *offered, *more],
                initial=code,
                label=f"{option.label} is offered when",
            )
            beside = written_beside(condition, code) if condition else ""
            fields[f"value-{option.key}"] = beside_field(f"… for {option.label}", beside)
        return fields

    def operations(self, line: FormLine, given: dict[str, Any]) -> Operations:
        assert isinstance(line.field, OptionsField)
        rules: Operations = []
        for option in line.field.options:
            name = f"test-{option.key}"
            if name in given:
                code, beside = given[name], given[f"value-{option.key}"].strip()
                rule = {"conditions": [condition_of(line.setup, code, beside)]} if code else None
                rules.append(_set_option(line, option, "ask_when", rule))
        return rules


class HowManyAspect(Aspect):
    key, heading = "how-many", "How many may be chosen?"

    def words(self, line: FormLine) -> str:
        assert isinstance(line.field, SeveralField)
        least, most = line.field.least, line.field.most
        if least and most:
            return f"{least} of" if least == most else f"{least} to {most} of"
        return f"at least {least} of" if least else f"up to {most} of" if most else "any number of"

    def form_fields(self, line: FormLine) -> dict[str, forms.Field]:
        assert isinstance(line.field, SeveralField)
        most = len(line.field.options)
        return {
            name: forms.IntegerField(
                required=False, min_value=1, max_value=most, initial=getattr(line.field, name), label=label
            )
            for name, label in (("least", "At least"), ("most", "At most"))
        }

    def operations(self, line: FormLine, given: dict[str, Any]) -> Operations:
        if given["least"] and given["most"] and given["least"] > given["most"]:
            raise forms.ValidationError("The least is above the most.")
        return [line.set("least", given["least"]), line.set("most", given["most"])]


def _set_option(line: FormLine, option: Option, name: str, value: Any) -> dict[str, Any]:
    return {"do": "set", "path": ["fields", line.field.key, "options", option.key, name], "value": value}
