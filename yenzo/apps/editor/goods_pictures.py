"""Files that come with a form of the set-up: what was sent comes in, what documents say of them goes out."""

from pathlib import Path
from typing import Any

from django import forms
from django.core.files.uploadedfile import TemporaryUploadedFile
from django.http import HttpRequest

from yenzo.apps.accounts.rights import Actor, actor_of
from yenzo.apps.editor.aspects.workshop_artwork import ArtworkFile, MaskFile
from yenzo.apps.materials.services.artwork import add_made_artwork
from yenzo.apps.products.services.pictures import add_goods_picture, add_tints
from yenzo.core.errors import ArtworkError


def taken_pictures(request: HttpRequest, form: forms.Form) -> dict[str, Any]:
    """Take the files of a valid form, pictures of goods or artwork of the workshop's own; raises ValidationError."""
    pictures = {}
    for name, sent in form.cleaned_data.items():
        if isinstance(sent, TemporaryUploadedFile):
            try:
                pictures[name] = _taken(actor_of(request.user), form.fields[name], sent)
            except ArtworkError as error:
                raise forms.ValidationError(error.message) from None
    return pictures


def _taken(actor: Actor, field: forms.Field, sent: TemporaryUploadedFile) -> dict[str, Any]:
    path, name = Path(sent.temporary_file_path()), sent.name or "picture"
    if isinstance(field, MaskFile):
        return add_tints(actor, path, name, field.tints)
    if isinstance(field, ArtworkFile):
        return add_made_artwork(actor, path, name, kinds=field.kinds, one_color=field.one_color)
    return add_goods_picture(actor, path, name)
