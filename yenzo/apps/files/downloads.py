"""Downloads: stored files that are never shown inside our pages, only handed out to be saved."""

from typing import TypeVar

from django.http import HttpResponse, HttpResponseBase
from django.utils.http import content_disposition_header

from yenzo.apps.files.models import StoredFile
from yenzo.apps.files.store import read_stored

Response = TypeVar("Response", bound=HttpResponseBase)


def download(stored: StoredFile, name: str) -> HttpResponse:
    """Return a stored file under a name, to be saved; raises AssetError rather than hand out a part of it."""
    return as_download(HttpResponse(read_stored(stored)), name)


def as_download(response: Response, name: str) -> Response:
    """Make a response a download that no browser opens in the app's origin."""
    response["Content-Type"] = "application/octet-stream"
    response["Content-Disposition"] = content_disposition_header(as_attachment=True, filename=name) or "attachment"
    response["Content-Security-Policy"] = "sandbox; default-src 'none'"
    response["X-Content-Type-Options"] = "nosniff"
    response["Cross-Origin-Resource-Policy"] = "same-origin"
    response["Cache-Control"] = "private, no-store"
    return response
