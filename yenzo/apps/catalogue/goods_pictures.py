"""Pictures that come with a form of the set-up: what was sent comes in, pictures as documents name them go out."""

from pathlib import Path
from typing import Any

from django import forms
from django.core.files.uploadedfile import TemporaryUploadedFile
from django.http import HttpRequest

from yenzo.apps.accounts.rights import actor_of
from yenzo.apps.catalogue.services.products import add_goods_picture
from yenzo.core.errors import ArtworkError


def taken_pictures(request: HttpRequest, form: forms.Form) -> dict[str, Any]:
    """Take the files of a valid form as pictures of goods; raises ValidationError with what is wrong with one."""
    pictures = {}
    for name, sent in form.cleaned_data.items():
        if isinstance(sent, TemporaryUploadedFile):
            try:
                path = Path(sent.temporary_file_path())
                pictures[name] = add_goods_picture(actor_of(request.user), path, sent.name or "picture")
            except ArtworkError as error:
                raise forms.ValidationError(error.message) from None
    return pictures
