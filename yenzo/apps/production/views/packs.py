"""The pack of a line: how far it is, and the file."""

from django.http import Http404, HttpRequest, HttpResponse, HttpResponseBase
from django.shortcuts import get_object_or_404, redirect, render
from django.views.decorators.http import require_POST, require_safe

from yenzo.apps.accounts.gates import staff_page
from yenzo.apps.accounts.rights import STAFF, actor_of
from yenzo.apps.files.downloads import download
from yenzo.apps.orders.models import Line
from yenzo.apps.production.models import Pack
from yenzo.apps.production.services.packs import want_pack_again


@staff_page(*STAFF)
def pack_state(request: HttpRequest, line_id: int) -> HttpResponse:
    """Show how far a pack is; the fragment asks again by itself while something is under way."""
    line = get_object_or_404(Line.objects.select_related("order"), pk=line_id)
    pack = Pack.objects.select_related("line__order", "file").filter(line=line).first()
    if pack is None and not line.order.is_paid:
        raise Http404
    # Just paid: the job that wants the packs is still on its way.
    pack = pack or Pack(line=line)
    return render(request, "production/_pack.html", {"pack": pack})


@staff_page(*STAFF)
@require_POST
def make_again(request: HttpRequest, line_id: int) -> HttpResponse:
    """Try a failed pack once more."""
    pack = get_object_or_404(Pack, line=line_id)
    want_pack_again(actor_of(request.user), pack.pk)
    return redirect("production:pack", line_id)


@staff_page(*STAFF)
@require_safe
def pack_file(request: HttpRequest, line_id: int) -> HttpResponseBase:  # noqa: ARG001
    pack = get_object_or_404(Pack.objects.select_related("line__order", "file"), line=line_id)
    if pack.file is None:
        raise Http404
    return download(pack.file, f"{pack.line}.zip")
