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
from yenzo.core.artwork.identify import too_many_bytes
from yenzo.core.errors import ArtworkError

REFUSED, WAITING = 422, 202


@require_POST
def send(request: HttpRequest) -> HttpResponse:
    """Receive one file for one field; answer with where it is asked for, or with the refusal in words."""
    try:
        refuse_too_often(request, "file")
    except ArtworkError as error:
        return _refuse(error.message)
    length = int(request.META.get("CONTENT_LENGTH") or 0)
    if length > settings.MOST_REQUEST_BYTES:
        return _refuse(too_many_bytes(gettext("This file"), length, settings.MOST_UPLOAD_BYTES).message)
    form = PreparationForm(request.GET)
    if not form.is_valid():
        return _refuse_wish()
    wanted = preparation_of(form.cleaned_data)
    kinds = tuple(kind for kind in request.GET.getlist("kind") if kind in PICKED)
    try:
        upload = received(request, request.FILES.get("file"), wanted=wanted, kinds=kinds)
    except ArtworkError as error:
        return _refuse(error.message)
    return _waits(request, upload)


@require_POST
def prepare(request: HttpRequest, upload_id: uuid.UUID) -> HttpResponse:
    """Have a file made anew as its controls say; answer as for a file that was sent."""
    form, visitor = PreparationForm(request.POST), known_visitor(request)
    if not may_go_on(request, "upload"):
        return _refuse(gettext("These are many changes in a short time. Please wait a minute and try again."))
    if visitor is None:
        raise Http404
    if not form.is_valid():
        return _refuse_wish()
    wanted = preparation_of(form.cleaned_data)
    try:
        lent, actor = is_lent(request, upload_id), actor_of(request.user)
        return _waits(request, prepare_upload(actor, upload_id, visitor=visitor, wanted=wanted, is_lent=lent))
    except ArtworkError as error:
        return _refuse(error.message)


@require_safe
@never_cache
def state(request: HttpRequest, upload_id: uuid.UUID) -> HttpResponse:
    """Answer whoever waits for a file: how many are before it, its row in the slip, or why it is refused."""
    visitor = known_visitor(request)
    upload = get_object_or_404(Upload.objects.of_visitor(visitor), pk=upload_id) if visitor else None
    if upload is None:
        raise Http404
    if upload.state == Upload.State.WAITING:
        return _waits(request, upload)
    if upload.state == Upload.State.REFUSED:
        return _refuse(upload.refusal)
    return render(request, "slip/_upload.html", {"upload": upload, "field_key": request.GET.get("field", "")})


def _waits(request: HttpRequest, upload: Upload) -> HttpResponse:
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


def _refuse_wish() -> HttpResponse:
    return _refuse(gettext("This file can't be made like that. Please choose page and darkness within their limits."))


def _refuse(words: str) -> HttpResponse:
    return HttpResponse(words, status=REFUSED, content_type="text/plain; charset=utf-8")
