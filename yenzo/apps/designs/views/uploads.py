"""Sending a file from the slip, and having it made anew."""

import uuid
from pathlib import Path

from django.conf import settings
from django.core.files.uploadedfile import TemporaryUploadedFile
from django.http import Http404, HttpRequest, HttpResponse
from django.shortcuts import render
from django.utils.translation import gettext
from django.views.decorators.http import require_POST

from yenzo.apps.accounts.limiting import may_go_on
from yenzo.apps.accounts.rights import actor_of
from yenzo.apps.designs.models import Upload
from yenzo.apps.designs.preparing import PreparationForm, preparation_of
from yenzo.apps.designs.services.uploads import prepare_upload, take_upload
from yenzo.apps.designs.visitors import known_visitor, visitor_of
from yenzo.core.artwork.identify import too_many_bytes
from yenzo.core.errors import ArtworkError

REFUSED = 422


@require_POST
def send(request: HttpRequest) -> HttpResponse:
    """Take one file for one field; answer with the field's file row, or with the refusal in words."""
    field_key = request.GET.get("field", "")
    if not may_go_on(request, "upload"):
        return _refuse(gettext("These are many files in a short time. Please wait a minute and send this one again."))
    if int(request.headers.get("Content-Length") or 0) > settings.MOST_REQUEST_BYTES:
        too_many = too_many_bytes(
            gettext("This file"), int(request.headers["Content-Length"]), settings.MOST_UPLOAD_BYTES
        )
        return _refuse(too_many.message)
    sent, form = request.FILES.get("file"), PreparationForm(request.GET)
    if not isinstance(sent, TemporaryUploadedFile):
        return _refuse(gettext("No file arrived. Please pick it again."))
    if not form.is_valid():
        return _refuse_wish()
    actor, path, wanted = actor_of(request.user), Path(sent.temporary_file_path()), preparation_of(form.cleaned_data)
    try:
        upload = take_upload(actor, path, sent.name or "file", visitor=visitor_of(request), wanted=wanted)
    except ArtworkError as error:
        return _refuse(error.message)
    return _held(request, upload, field_key)


@require_POST
def prepare(request: HttpRequest, upload_id: uuid.UUID) -> HttpResponse:
    """Make a file anew as its controls say; answer as for a file that was sent."""
    form, visitor = PreparationForm(request.POST), known_visitor(request)
    if not may_go_on(request, "upload"):
        return _refuse(gettext("These are many changes in a short time. Please wait a minute and try again."))
    if visitor is None:
        raise Http404
    if not form.is_valid():
        return _refuse_wish()
    wanted = preparation_of(form.cleaned_data)
    try:
        upload = prepare_upload(actor_of(request.user), upload_id, visitor=visitor, wanted=wanted)
    except ArtworkError as error:
        return _refuse(error.message)
    return _held(request, upload, request.GET.get("field", ""))


def _held(request: HttpRequest, upload: Upload, field_key: str) -> HttpResponse:
    return render(request, "designs/_upload.html", {"upload": upload, "field_key": field_key})


def _refuse_wish() -> HttpResponse:
    return _refuse(gettext("This file can't be made like that. Please choose page and darkness within their limits."))


def _refuse(words: str) -> HttpResponse:
    return HttpResponse(words, status=REFUSED, content_type="text/plain; charset=utf-8")
