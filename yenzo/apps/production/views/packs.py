"""The pack of a piece: how far it is, and the file."""

from django.http import Http404, HttpRequest, HttpResponse, HttpResponseBase
from django.shortcuts import get_object_or_404, redirect, render
from django.views.decorators.http import require_POST, require_safe

from yenzo.apps.accounts.gates import staff_page
from yenzo.apps.accounts.rights import STAFF, actor_of
from yenzo.apps.files.downloads import download
from yenzo.apps.orders.models import Order, Piece
from yenzo.apps.production.models import Pack
from yenzo.apps.production.services.packs import want_pack_again


@staff_page(*STAFF)
def pack_state(request: HttpRequest, piece_id: int) -> HttpResponse:
    """Show how far a pack is; the fragment asks again by itself while something is under way."""
    piece = get_object_or_404(Piece.objects.select_related("order"), pk=piece_id)
    pack = Pack.objects.select_related("piece__order", "file").filter(piece=piece).first()
    if pack is None and piece.order.state != Order.State.PAID:
        raise Http404
    # Just paid: the job that wants the packs is still on its way.
    pack = pack or Pack(piece=piece)
    return render(request, "production/_pack.html", {"pack": pack})


@staff_page(*STAFF)
@require_POST
def make_again(request: HttpRequest, piece_id: int) -> HttpResponse:
    """Try a failed pack once more."""
    pack = get_object_or_404(Pack, piece=piece_id)
    want_pack_again(actor_of(request.user), pack.pk)
    return redirect("production:pack", piece_id)


@staff_page(*STAFF)
@require_safe
def pack_file(request: HttpRequest, piece_id: int) -> HttpResponseBase:  # noqa: ARG001
    pack = get_object_or_404(Pack.objects.select_related("piece__order", "file"), piece=piece_id)
    if pack.file is None:
        raise Http404
    return download(pack.file, f"{pack.piece}.zip")
