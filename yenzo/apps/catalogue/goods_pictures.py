"""Files that come with a form of the set-up: what was sent comes in, what documents say of them goes out."""

from pathlib import Path
from typing import Any

from django import forms
from django.core.files.uploadedfile import TemporaryUploadedFile
from django.http import HttpRequest

from yenzo.apps.accounts.rights import actor_of
from yenzo.apps.catalogue.services.products import add_goods_picture, add_made_artwork
from yenzo.core.errors import ArtworkError


def taken_pictures(request: HttpRequest, form: forms.Form) -> dict[str, Any]:
    """Take the files of a valid form, pictures of goods or artwork of the workshop's own; raises ValidationError."""
    pictures = {}
    for name, sent in form.cleaned_data.items():
        if isinstance(sent, TemporaryUploadedFile):
            try:
                path = Path(sent.temporary_file_path())
                is_made = getattr(form.fields[name], "is_made", False)
                add = add_made_artwork if is_made else add_goods_picture
                pictures[name] = add(actor_of(request.user), path, sent.name or "picture")
            except ArtworkError as error:
                raise forms.ValidationError(error.message) from None
    return pictures
