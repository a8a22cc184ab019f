"""What a text may be: how long, of which characters and shape, in which case, without which words."""

from typing import Any, ClassVar

from django import forms
from pydantic import ValidationError

from yenzo.apps.editor.aspects.interface import Aspect, FormLine, Operations
from yenzo.apps.pages.fields import LineField, LinesField
from yenzo.apps.pages.phrases import counted, joined
from yenzo.core.asking.patterns import pattern_fault, pattern_words
from yenzo.core.asking.texts import describe_allowed
from yenzo.core.documents.fields import ParagraphField, Pattern, TextField


class LimitAspect(Aspect):
    key, heading = "limit", "How long may it be?"

    def words(self, line: FormLine) -> str:
        field = line.field
        assert isinstance(field, TextField)
        said = [
            _range_words(field.least_characters, field.most_characters, "character"),
            _range_words(field.least_words, field.most_words, "word"),
        ]
        return joined([words for words in said if words]) if any(said) else "of any length"

    def form_fields(self, line: FormLine) -> dict[str, forms.Field]:
        field = line.field
        assert isinstance(field, TextField)
        whole: dict[str, Any] = {"min_value": 1, "max_value": 10_000, "required": False}
        return {
            "least": forms.IntegerField(initial=field.least_characters, label="Least characters", **whole),
            "most": forms.IntegerField(initial=field.most_characters, label="Most characters", **whole),
            "least_words": forms.IntegerField(initial=field.least_words, label="Least words", **whole),
            "most_words": forms.IntegerField(initial=field.most_words, label="Most words", **whole),
        }

    def operations(self, line: FormLine, given: dict[str, Any]) -> Operations:
        return [
            line.set("least_characters", given["least"]),
            line.set("most_characters", given["most"]),
            line.set("least_words", given["least_words"]),
            line.set("most_words", given["most_words"]),
        ]


def _range_words(least: int | None, most: int | None, one: str) -> str:
    if most is None:
        return f"at least {counted(least, one)}" if least else ""
    return f"{least} to {counted(most, one)}" if least else f"up to {counted(most, one)}"


class LinesAspect(Aspect):
    key, heading = "lines", "How many lines may it have?"

    def words(self, line: FormLine) -> str:
        assert isinstance(line.field, ParagraphField)
        most = line.field.most_lines
        return f"up to {counted(most, 'line')}" if most else "any number of lines"

    def form_fields(self, line: FormLine) -> dict[str, forms.Field]:
        assert isinstance(line.field, ParagraphField)
        most = line.field.most_lines
        return {
            "most_lines": forms.IntegerField(
                required=False, min_value=1, max_value=1000, initial=most, label="Most lines; empty for any number"
            )
        }

    def operations(self, line: FormLine, given: dict[str, Any]) -> Operations:
        return [line.set("most_lines", given["most_lines"])]


class AllowedAspect(Aspect):
    key, heading = "allowed", "Which characters may it have?"

    def words(self, line: FormLine) -> str:
        assert isinstance(line.field, TextField)
        said = describe_allowed(line.field.allowed) if line.field.allowed else "any characters"
        return said if line.field.emoji else f"{said}, no emoji"

    def form_fields(self, line: FormLine) -> dict[str, forms.Field]:
        assert isinstance(line.field, TextField)
        allowed = line.field.allowed
        sets = {
            name: forms.BooleanField(required=False, initial=getattr(allowed, name, True), label=name.capitalize())
            for name in ("letters", "digits", "space")
        }
        return {
            "any": forms.BooleanField(required=False, initial=allowed is None, label="Any characters at all"),
            **sets,
            "others": LineField(
                required=False, max_length=200, initial=allowed.others if allowed else "", label="And these"
            ),
            "emoji": forms.BooleanField(required=False, initial=line.field.emoji, label="Emoji may be typed"),
        }

    def operations(self, line: FormLine, given: dict[str, Any]) -> Operations:
        sets = {name: given[name] for name in ("letters", "digits", "space", "others")}
        return [line.set("allowed", None if given["any"] else sets), line.set("emoji", given["emoji"])]


class CaseAspect(Aspect):
    key, heading = "case", "Capitals or small letters?"
    CASES: ClassVar = {
        "typed": "as typed",
        "upper": "in capitals",
        "lower": "in small letters",
        "words": "each word with a capital",
        "first": "beginning with a capital",
    }

    def words(self, line: FormLine) -> str:
        assert isinstance(line.field, TextField)
        return str(self.CASES[line.field.case])

    def form_fields(self, line: FormLine) -> dict[str, forms.Field]:
        assert isinstance(line.field, TextField)
        return {"case": forms.ChoiceField(choices=list(self.CASES.items()), initial=line.field.case, label="Produced")}

    def operations(self, line: FormLine, given: dict[str, Any]) -> Operations:
        case = given["case"] if given["case"] != "typed" else None
        return [line.set("capitals", None), line.set("case", case)]


class PatternAspect(Aspect):
    key, heading, offer = "pattern", "Which shape must it have?", "shape"

    def is_plain(self, line: FormLine) -> bool:
        assert isinstance(line.field, TextField)
        return line.field.pattern is None

    def words(self, line: FormLine) -> str:
        assert isinstance(line.field, TextField)
        return pattern_words(line.field.pattern) if line.field.pattern else "any"

    def form_fields(self, line: FormLine) -> dict[str, forms.Field]:
        assert isinstance(line.field, TextField)
        have = line.field.pattern
        return {
            "shapes": LinesField(
                required=False,
                initial="\n".join(have.shapes) if have else "",
                widget=forms.Textarea(attrs={"rows": 3, "placeholder": "AA 9999"}),
                label="Shapes, one a line; empty for any",
                help_text="A is a letter, 9 a digit, * any character; what is in [brackets] may be missing.",
            ),
            "words": LineField(
                required=False,
                max_length=200,
                initial=have.words if have else "",
                label="What that is in words, if the shape doesn't say it well",
            ),
            "passes": LineField(
                required=False, max_length=60, initial=have.passes if have else "", label="An example that passes"
            ),
            "fails": LineField(
                required=False, max_length=60, initial=have.fails if have else "", label="An example that must not pass"
            ),
        }

    def operations(self, line: FormLine, given: dict[str, Any]) -> Operations:
        shapes = [row.strip() for row in given["shapes"].splitlines() if row.strip()]
        if not shapes:
            return [line.set("pattern", None)]
        if not given["passes"] or not given["fails"]:
            raise forms.ValidationError("Give an example of each: one that passes and one that doesn't.")
        value = {"shapes": shapes, **{name: given[name] for name in ("words", "passes", "fails") if given[name]}}
        try:
            fault = pattern_fault(Pattern.model_validate(value))
        except ValidationError:
            raise forms.ValidationError("A shape's brackets must be closed and have something in them.") from None
        if fault:
            raise forms.ValidationError(fault)
        return [line.set("pattern", value)]


class WordListsAspect(Aspect):
    key, heading, offer = "word-lists", "May the words of our lists be typed?", "words kept out"

    def is_plain(self, line: FormLine) -> bool:
        assert isinstance(line.field, TextField)
        return line.field.word_lists and line.field.direction == "auto"

    def words(self, line: FormLine) -> str:
        assert isinstance(line.field, TextField)
        kept_out = "the workshop's word lists kept out" if line.field.word_lists else "any words"
        return f"{kept_out}{DIRECTIONS[line.field.direction]}"

    def form_fields(self, line: FormLine) -> dict[str, forms.Field]:
        assert isinstance(line.field, TextField)
        directions = [("auto", "As its first letter does"), *DIRECTION_CHOICES]
        return {
            "word_lists": forms.BooleanField(
                required=False, initial=line.field.word_lists, label="Words of the workshop's lists can't be had"
            ),
            "direction": forms.ChoiceField(choices=directions, initial=line.field.direction, label="Writing runs"),
        }

    def operations(self, line: FormLine, given: dict[str, Any]) -> Operations:
        return [line.set("word_lists", given["word_lists"]), line.set("direction", given["direction"])]


DIRECTION_CHOICES = (("right_to_left", "From right to left"), ("left_to_right", "From left to right"))
DIRECTIONS = {"auto": "", **{key: f", {words[0].lower()}{words[1:]}" for key, words in DIRECTION_CHOICES}}
