"""What a line is called, whether it is needed, what stands in it at first, and which files it takes."""

from typing import Any, get_args

from django import forms

from yenzo.apps.editor.aspects.interface import Aspect, FormLine, Operations
from yenzo.apps.pages.fields import LineField
from yenzo.core.documents.artwork import ArtworkKind, OneColor
from yenzo.core.documents.entries import MOST_FILES
from yenzo.core.documents.field_base import TypedField
from yenzo.core.documents.fields import ArtworkField, YesNoField
from yenzo.core.documents.placements import ArtworkPlacement


class LabelAspect(Aspect):
    key, heading = "label", "What is it called?"

    def words(self, line: FormLine) -> str:
        return line.field.label

    def form_fields(self, line: FormLine) -> dict[str, forms.Field]:
        field = line.field
        return {
            "label": LineField(max_length=200, initial=field.label, label="Label for the customer"),
            "workshop_name": LineField(
                max_length=200, required=False, initial=field.workshop_name, label="Name for the workshop, if another"
            ),
            "help": LineField(max_length=500, required=False, initial=field.help, label="Help line under it"),
        }

    def operations(self, line: FormLine, given: dict[str, Any]) -> Operations:
        return [line.set(name, given[name] or None) for name in ("label", "workshop_name", "help")]


class RequiredAspect(Aspect):
    key, heading = "required", "Is it needed?"

    def words(self, line: FormLine) -> str:
        if isinstance(line.field, YesNoField):
            return "must be yes" if line.field.required else "either will do"
        return "needed" if line.field.required else "may stay empty"

    def form_fields(self, line: FormLine) -> dict[str, forms.Field]:
        return {"required": forms.BooleanField(required=False, initial=line.field.required, label="It is needed")}

    def operations(self, line: FormLine, given: dict[str, Any]) -> Operations:
        return [line.set("required", given["required"] or None)]


class SampleAspect(Aspect):
    key, heading = "sample", "What stands in the box at first?"

    def words(self, line: FormLine) -> str:
        assert isinstance(line.field, TypedField)
        if line.field.default:
            return f"begins with “{line.field.default}”"
        return f"sample “{line.field.sample}”" if line.field.sample else "no sample"

    def form_fields(self, line: FormLine) -> dict[str, forms.Field]:
        assert isinstance(line.field, TypedField)
        texts = (
            ("hint", "Hint in the empty box (never produced)"),
            ("sample", "Sample for pictures of the goods (never produced)"),
            ("default", "Entry to begin with (produced if left)"),
        )
        return {
            name: LineField(required=False, max_length=200, initial=getattr(line.field, name), label=label)
            for name, label in texts
        }

    def operations(self, line: FormLine, given: dict[str, Any]) -> Operations:
        return [line.set(name, given[name] or None) for name in ("hint", "sample", "default")]


class KindsAspect(Aspect):
    key, heading = "kinds", "Which files may it be?"

    def words(self, line: FormLine) -> str:
        assert isinstance(line.field, ArtworkField)
        kinds = ", ".join(kind.upper() for kind in line.field.kinds)
        least = f", at least {line.field.least_pixels} pixels" if line.field.least_pixels else ""
        return f"{_how_many(line.field)}{kinds}, up to {line.field.most_megabytes:g} MB{least}"

    def form_fields(self, line: FormLine) -> dict[str, forms.Field]:
        assert isinstance(line.field, ArtworkField)
        kinds = [(kind, kind.upper()) for kind in get_args(ArtworkKind)]
        return {
            "kinds": forms.MultipleChoiceField(
                choices=kinds,
                initial=line.field.kinds,
                widget=forms.CheckboxSelectMultiple,
                label="Kinds of file",
                error_messages={"required": "Leave at least one kind, or nothing can be sent."},
            ),
            "most_megabytes": forms.FloatField(
                min_value=0.1,
                max_value=50,
                initial=line.field.most_megabytes,
                widget=forms.NumberInput(attrs={"step": "any"}),
                label="Most megabytes",
            ),
            "least_pixels": forms.IntegerField(
                required=False,
                min_value=1,
                max_value=10_000,
                initial=line.field.least_pixels,
                label="Least pixels on the shorter edge",
            ),
            "most_files": forms.IntegerField(
                min_value=1, max_value=MOST_FILES, initial=line.field.most_files, label="How many files at most"
            ),
            "least_files": forms.IntegerField(
                required=False,
                min_value=1,
                max_value=MOST_FILES,
                initial=line.field.least_files,
                label="How many at least, if it is filled",
            ),
        }

    def operations(self, line: FormLine, given: dict[str, Any]) -> Operations:
        least, most = given["least_files"], given["most_files"]
        if least is not None and least > most:
            raise forms.ValidationError("The least number of files is above the most.")
        asked = ("kinds", "most_megabytes", "least_pixels", "least_files")
        return [*(line.set(name, given[name]) for name in asked), line.set("most_files", most if most > 1 else None)]


def _how_many(field: ArtworkField) -> str:
    if field.most_files == 1:
        return ""
    if field.least_files == field.most_files:
        return f"{field.most_files} files: "
    return (
        f"{field.least_files} to {field.most_files} files: "
        if field.least_files
        else f"up to {field.most_files} files: "
    )


class NthAspect(Aspect):
    key, heading, offer = "nth", "Which of the files lands here?", "another file"

    def is_plain(self, line: FormLine) -> bool:
        assert isinstance(line.placement, ArtworkPlacement)
        return line.placement.nth == 1

    def words(self, line: FormLine) -> str:
        assert isinstance(line.placement, ArtworkPlacement)
        return f"file {line.placement.nth}"

    def form_fields(self, line: FormLine) -> dict[str, forms.Field]:
        assert isinstance(line.field, ArtworkField)
        assert isinstance(line.placement, ArtworkPlacement)
        return {
            "nth": forms.IntegerField(
                min_value=1, max_value=line.field.most_files, initial=line.placement.nth, label="File, counted from 1"
            )
        }

    def operations(self, line: FormLine, given: dict[str, Any]) -> Operations:
        return [line.set_placement("nth", given["nth"])]


class OneColorAspect(Aspect):
    key, heading = "one-color", "Does it keep its colors?"

    def words(self, line: FormLine) -> str:
        assert isinstance(line.field, ArtworkField)
        one = line.field.one_color
        return f"made into outlines of what is darker than {one.threshold:g} %" if one else "in its own colors"

    def form_fields(self, line: FormLine) -> dict[str, forms.Field]:
        assert isinstance(line.field, ArtworkField)
        one = line.field.one_color or OneColor()
        number = forms.NumberInput(attrs={"step": "any"})
        return {
            "is_on": forms.BooleanField(
                required=False,
                initial=line.field.one_color is not None,
                label="Made into outlines of one color",
                help_text="For engraving, cutting and cloth. Customers can shift what counts as dark.",
            ),
            "threshold": forms.FloatField(
                min_value=1, max_value=99, initial=one.threshold, widget=number, label="What is dark at first, percent"
            ),
            "smoothness": forms.FloatField(
                min_value=0, max_value=20, initial=one.smoothness, widget=number, label="Edges smoothed by, pixels"
            ),
        }

    def operations(self, line: FormLine, given: dict[str, Any]) -> Operations:
        value = {name: given[name] for name in ("threshold", "smoothness")}
        return [line.set("one_color", value if given["is_on"] else None)]
