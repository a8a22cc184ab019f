"""Sending a file from the slip, and having it made anew."""

import uuid
from urllib.parse import urlencode

from django.conf import settings
from django.http import Http404, HttpRequest, HttpResponse
from django.shortcuts import get_object_or_404, render
from django.urls import reverse
from django.utils.translation import gettext, ngettext
from django.views.decorators.cache import never_cache
from django.views.decorators.http import require_POST, require_safe

from yenzo.apps.accounts.limiting import may_go_on
from yenzo.apps.accounts.rights import actor_of
from yenzo.apps.designs.lending import is_lent
from yenzo.apps.designs.models import Upload
from yenzo.apps.designs.preparing import PreparationForm, preparation_of
from yenzo.apps.designs.receiving import received, refuse_too_often
from yenzo.apps.designs.services.uploads import prepare_upload
from yenzo.apps.designs.visitors import known_visitor
from yenzo.apps.slip.controls.uploads import PICKED
from yenzo.core.artwork.facts import Preparation
from yenzo.core.artwork.identify import too_many_bytes
from yenzo.core.errors import ArtworkError

REFUSED, WAITING = 422, 202


@require_POST
def send(request: HttpRequest) -> HttpResponse:
    """Receive one file for one field; answer with where it is asked for, or with the refusal in words."""
    try:
        refuse_too_often(request, "file")
    except ArtworkError as error:
        return refuse(error.message)
    length = int(request.META.get("CONTENT_LENGTH") or 0)
    if length > settings.MOST_REQUEST_BYTES:
        return refuse(too_many_bytes(gettext("This file"), length, settings.MOST_UPLOAD_BYTES).message)
    try:
        wanted, kinds = wishes_of(request)
        upload = received(request, request.FILES.get("file"), wanted=wanted, kinds=kinds)
    except ArtworkError as error:
        return refuse(error.message)
    return waits(request, upload)


@require_POST
def prepare(request: HttpRequest, upload_id: uuid.UUID) -> HttpResponse:
    """Have a file made anew as its controls say; answer as for a file that was sent."""
    form, visitor = PreparationForm(request.POST), known_visitor(request)
    if not may_go_on(request, "upload"):
        return refuse(gettext("These are many changes in a short time. Please wait a minute and try again."))
    if visitor is None:
        raise Http404
    if not form.is_valid():
        return refuse(_not_like_that())
    wanted = preparation_of(form.cleaned_data)
    try:
        lent, actor = is_lent(request, upload_id), actor_of(request.user)
        return waits(request, prepare_upload(actor, upload_id, visitor=visitor, wanted=wanted, is_lent=lent))
    except ArtworkError as error:
        return refuse(error.message)


@require_safe
@never_cache
def state(request: HttpRequest, upload_id: uuid.UUID) -> HttpResponse:
    """Answer whoever waits for a file: how many are before it, its row in the slip, or why it is refused."""
    visitor = known_visitor(request)
    upload = get_object_or_404(Upload.objects.of_visitor(visitor), pk=upload_id) if visitor else None
    if upload is None:
        raise Http404
    if upload.state == Upload.State.WAITING:
        return waits(request, upload)
    if upload.state == Upload.State.REFUSED:
        return refuse(upload.refusal)
    return render(request, "slip/_upload.html", {"upload": upload, "field_key": request.GET.get("field", "")})


def wishes_of(request: HttpRequest) -> tuple[Preparation, tuple[str, ...]]:
    """Return how a file is to be prepared, and which kinds its field takes; raises ArtworkError for what can't be."""
    form = PreparationForm(request.GET)
    if not form.is_valid():
        raise ArtworkError("wish", "file", _not_like_that())
    return preparation_of(form.cleaned_data), tuple(kind for kind in request.GET.getlist("kind") if kind in PICKED)


def waits(request: HttpRequest, upload: Upload) -> HttpResponse:
    """Answer where a file that has arrived is asked for, and how many are before it."""
    before = Upload.objects.waiting().filter(sent_at__lt=upload.sent_at).count()
    words = gettext("The file has arrived and is being looked at.")
    if before:
        words = ngettext(
            "The file has arrived. {count} other file came before it and waits as well.",
            "The file has arrived. {count} other files came before it and wait as well.",
            before,
        ).format(count=before)
    query = urlencode({"field": request.GET.get("field", "")})
    address = f"{reverse('slip:upload_state', args=[upload.pk])}?{query}"
    headers = {"Location": address, "Upload-Id": str(upload.pk)}
    return HttpResponse(words, status=WAITING, headers=headers, content_type="text/plain; charset=utf-8")


def _not_like_that() -> str:
    return gettext("This file can't be made like that. Please choose page and darkness within their limits.")


def refuse(words: str) -> HttpResponse:
    """Answer why a file can't be taken."""
    return HttpResponse(words, status=REFUSED, content_type="text/plain; charset=utf-8")
