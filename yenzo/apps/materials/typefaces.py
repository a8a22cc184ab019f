"""Typefaces in a form: what is known of one comes in, what is said of it and perhaps a font file go out."""

from typing import Any

from django import forms
from django.core.files.uploadedfile import UploadedFile
from django.http import QueryDict
from django.utils.datastructures import MultiValueDict

from yenzo.apps.pages.fields import LineField
from yenzo.core.documents.materials import Typeface

MOST_FONT_BYTES = 20_000_000


class TypefaceForm(forms.Form):
    """A typeface as customers see it, and the font file that draws it."""

    name = LineField(max_length=200, label="Name for customers")
    file = forms.FileField(label="Font file", help_text="TrueType or OpenType: .ttf or .otf")
    instance = LineField(
        required=False, max_length=200, label="Instance", help_text="Of a variable font: Bold, Condensed …"
    )
    family = LineField(required=False, max_length=200, label="Family", help_text="As the font calls itself")
    licence = LineField(
        required=False, max_length=500, label="Licence", help_text="What allows you to make goods with it"
    )

    def __init__(
        self,
        typeface: Typeface | None,
        data: QueryDict | None = None,
        files: "MultiValueDict[str, UploadedFile[bytes]] | None" = None,
    ) -> None:
        initial = typeface.model_dump(exclude={"font"}) if typeface else {}
        super().__init__(data, files, initial=initial, auto_id="typeface-%s")
        if typeface is not None:
            self.fields["file"].required = False
            self.fields["file"].help_text = "Only to put another one in its place"

    def clean_file(self) -> "UploadedFile[bytes] | None":
        """Refuse files that no font is as large as."""
        file: UploadedFile[bytes] | None = self.cleaned_data["file"]
        if file and (file.size or 0) > MOST_FONT_BYTES:
            raise forms.ValidationError(f"This file has more than {MOST_FONT_BYTES // 1_000_000} MB; no font has.")
        return file

    def document(self, font: str) -> dict[str, Any]:
        """Return the typeface as a small document of the core, drawn by the font with this SHA-256."""
        said = {name: value for name, value in self.cleaned_data.items() if name != "file" and value}
        return {**said, "font": font}
