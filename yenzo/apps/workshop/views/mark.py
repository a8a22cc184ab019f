"""The workshop's mark: kept or tried out by staff, shown to everybody."""

from pathlib import Path
from typing import Any

from django.contrib import messages
from django.http import HttpRequest, HttpResponse
from django.shortcuts import get_object_or_404, redirect
from django.views.decorators.cache import cache_control
from django.views.decorators.http import require_POST, require_safe

from yenzo.apps.accounts.gates import staff_page
from yenzo.apps.accounts.rights import actor_of
from yenzo.apps.workshop.current import current_workshop
from yenzo.apps.workshop.forms import MarkForm
from yenzo.apps.workshop.looks import try_look
from yenzo.apps.workshop.models import Mark
from yenzo.apps.workshop.services.mark import add_mark
from yenzo.apps.workshop.services.workshop import WHO, change_workshop
from yenzo.apps.workshop.views.workshop import page
from yenzo.core.errors import ArtworkError


@staff_page(*WHO)
@require_POST
def change_mark(request: HttpRequest) -> HttpResponse:
    """Keep the mark that was sent, or none; or show the shop with it first."""
    form = MarkForm(request.POST, request.FILES)
    if not form.is_valid():
        return page(request, mark=form)
    try:
        said = _said(request, form)
    except ArtworkError as error:
        form.add_error("file", error.message)
        return page(request, mark=form)
    if request.POST.get("do") == "try":
        return redirect(try_look(request, {**said, "mark": said["mark"].pk if said["mark"] else None}))
    change_workshop(actor_of(request.user), said)
    messages.success(request, "Kept. It holds from now on.")
    return redirect("workshop:settings")


@require_safe
@cache_control(public=True, max_age=31_536_000, immutable=True)
def mark(request: HttpRequest, sha256: str) -> HttpResponse:  # noqa: ARG001
    """Hand out a mark; its address says which."""
    found = get_object_or_404(Mark, pk=sha256)
    response = HttpResponse(bytes(found.data), content_type=found.media_type)
    # Opened by itself, a drawing is a page: it may do nothing.
    response["Content-Security-Policy"] = "sandbox; default-src 'none'; style-src 'unsafe-inline'"
    return response


def _said(request: HttpRequest, form: MarkForm) -> dict[str, Any]:
    said: dict[str, Any] = {"mark_stands_alone": form.cleaned_data["mark_stands_alone"]}
    sent = form.cleaned_data["file"]
    if sent:
        path = Path(sent.temporary_file_path())
        return said | {"mark": add_mark(actor_of(request.user), path, sent.name or "mark")}
    if form.cleaned_data["without"]:
        return {"mark": None, "mark_stands_alone": False}
    return said | {"mark": current_workshop().mark}
