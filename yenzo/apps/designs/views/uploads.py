"""Sending a file from the slip."""

from pathlib import Path

from django.conf import settings
from django.core.files.uploadedfile import TemporaryUploadedFile
from django.http import HttpRequest, HttpResponse
from django.shortcuts import render
from django.views.decorators.http import require_POST

from yenzo.apps.accounts.rights import actor_of
from yenzo.apps.designs.limiting import may_go_on
from yenzo.apps.designs.services.uploads import take_upload
from yenzo.apps.designs.visitors import visitor_of
from yenzo.core.artwork.identify import too_many_bytes
from yenzo.core.errors import ArtworkError

REFUSED = 422


@require_POST
def send(request: HttpRequest) -> HttpResponse:
    """Take one file for one field; answer with the field's file row, or with the refusal in words."""
    field_key = request.GET.get("field", "")
    if not may_go_on(request, "upload"):
        return _refuse("These are many files in a short time. Please wait a minute and send this one again.")
    if int(request.headers.get("Content-Length") or 0) > settings.MOST_REQUEST_BYTES:
        too_many = too_many_bytes("This file", int(request.headers["Content-Length"]), settings.MOST_UPLOAD_BYTES)
        return _refuse(too_many.message)
    sent = request.FILES.get("file")
    if not isinstance(sent, TemporaryUploadedFile):
        return _refuse("No file arrived. Please pick it again.")
    try:
        upload = take_upload(
            actor_of(request.user), Path(sent.temporary_file_path()), sent.name or "file", visitor=visitor_of(request)
        )
    except ArtworkError as error:
        return _refuse(error.message)
    return render(request, "designs/_upload.html", {"upload": upload, "field_key": field_key})


def _refuse(words: str) -> HttpResponse:
    return HttpResponse(words, status=REFUSED, content_type="text/plain; charset=utf-8")
