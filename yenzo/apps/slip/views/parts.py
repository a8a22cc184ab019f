"""Sending a file from the slip part by part: a line that breaks costs one part, and the rest goes on."""

import uuid

from django.conf import settings
from django.http import Http404, HttpRequest, HttpResponse
from django.urls import reverse
from django.utils.translation import gettext
from django.views.decorators.http import require_POST

from yenzo.apps.accounts.rights import actor_of
from yenzo.apps.designs.models import ArrivingFile
from yenzo.apps.designs.receiving import refuse_too_often
from yenzo.apps.designs.services.arriving import SentFile, add_part, arriving_file, begin_file, take_file
from yenzo.apps.designs.visitors import known_visitor, visitor_of
from yenzo.apps.pages.numbers import whole_number
from yenzo.apps.slip.views.uploads import refuse, waits, wishes_of
from yenzo.core.errors import ArtworkError

MOST_NAME = 300
# A moment in milliseconds has more figures than a number of ours.
MOST_MODIFIED_DIGITS = 15


@require_POST
def begin(request: HttpRequest) -> HttpResponse:
    """Begin a file, or go on with what is here of it; answer where its parts go and from which byte on."""
    sent = _sent(request)
    if sent is None:
        return refuse(gettext("No file arrived. Please pick it again."))
    visitor = visitor_of(request)
    try:
        arriving = arriving_file(visitor, sent)
        if arriving is None:
            refuse_too_often(request, sent.name)
            arriving = begin_file(actor_of(request.user), visitor, sent)
        return _answer(request, arriving)
    except ArtworkError as error:
        return refuse(error.message)


@require_POST
def add(request: HttpRequest, file_id: uuid.UUID) -> HttpResponse:
    """Receive one part; answer from which byte on to go on, or where the whole file is asked for."""
    at, visitor = whole_number(request.GET.get("at", "")), known_visitor(request)
    if at is None or visitor is None:
        raise Http404
    # Read before anything is held: whoever sends slowly holds up nobody.
    part = request.read(settings.MOST_PART_BYTES + 1)
    if len(part) > settings.MOST_PART_BYTES:
        return refuse(gettext("The file could not be taken. Please try again."))
    try:
        return _answer(request, add_part(actor_of(request.user), visitor, file_id, at=at, part=part))
    except ArtworkError as error:
        return refuse(error.message)


def _answer(request: HttpRequest, arriving: ArrivingFile) -> HttpResponse:
    if arriving.is_complete:
        wanted, kinds = wishes_of(request)
        arriving = take_file(actor_of(request.user), arriving.visitor, arriving.pk, wanted=wanted, kinds=kinds)
        if arriving.upload is not None:
            return waits(request, arriving.upload)
    query = request.GET.copy()
    query.pop("at", None)
    address = f"{reverse('slip:add_part', args=[arriving.pk])}?{query.urlencode()}"
    return HttpResponse(headers={"Location": address, "Upload-Offset": str(arriving.received_bytes)})


def _sent(request: HttpRequest) -> SentFile | None:
    """Return which file is meant; None for what no browser of ours sends."""
    name, modified = request.POST.get("name", "")[-MOST_NAME:], request.POST.get("modified", "")
    size = whole_number(request.POST.get("size", ""))
    try:
        key = uuid.UUID(request.POST.get("key", ""))
    except ValueError:
        return None
    is_moment = modified.isascii() and modified.isdecimal() and len(modified) <= MOST_MODIFIED_DIGITS
    return SentFile(key, name or "file", size, int(modified)) if size and is_moment else None
