"""Orders as the workshop sees them."""

import uuid

from django.contrib import messages
from django.core.paginator import Paginator
from django.http import Http404, HttpRequest, HttpResponse, HttpResponseBase
from django.shortcuts import get_object_or_404, redirect, render
from django.views.decorators.cache import cache_control
from django.views.decorators.http import require_POST, require_safe

from yenzo.apps.accounts.gates import staff_page
from yenzo.apps.accounts.rights import DESK, STAFF, actor_of
from yenzo.apps.designs.side_pictures import first_picture, side_picture
from yenzo.apps.files.downloads import download
from yenzo.apps.files.store import StoredAssets
from yenzo.apps.orders.models import Order, Piece
from yenzo.apps.orders.services.orders import OrderError, cancel_order
from yenzo.apps.orders.showing import ShownPiece

ORDERS_A_PAGE = 40


@staff_page(*STAFF)
def order_list(request: HttpRequest) -> HttpResponse:
    words = request.GET.get("q", "").strip()[:200]
    state = request.GET.get("state", "")
    orders = Order.objects.for_list()
    if words:
        orders = orders.matching(words)
    if state in Order.State.values:
        orders = orders.filter(state=state)
    page = Paginator(orders, ORDERS_A_PAGE).get_page(request.GET.get("page"))
    context = {"page": page, "words": words, "state": state, "states": Order.State.choices, "section": "orders"}
    return render(request, "orders/orders.html", context)


@staff_page(*STAFF)
def order_page(request: HttpRequest, number: int) -> HttpResponse:
    order = _order(number)
    pieces = order.pieces.select_related("order", "revision").prefetch_related("uploads")
    context = {
        "order": order,
        "pieces": [ShownPiece(piece) for piece in pieces],
        "events": order.events.all(),
        "may_cancel": order.is_cancellable and getattr(request.user, "role", "") in DESK,
        "section": "orders",
    }
    return render(request, "orders/order.html", context)


@staff_page(*DESK)
@require_POST
def cancel(request: HttpRequest, number: int) -> HttpResponse:
    order = _order(number)
    try:
        cancel_order(actor_of(request.user), order.pk)
    except OrderError as error:
        messages.error(request, str(error))
    else:
        messages.success(request, f"Order {number} is cancelled. Its customer is told, if it was paid.")
    return redirect("orders:order", number)


@staff_page(*STAFF)
@require_safe
@cache_control(private=True, max_age=3600)
def piece_picture(request: HttpRequest, number: int, piece_number: int, side_key: str) -> HttpResponseBase:  # noqa: ARG001
    return picture_of_piece(_order(number), piece_number, side_key)


def picture_of_piece(order: Order, piece_number: int, side_key: str) -> HttpResponseBase:
    """Answer with the picture of one side of a piece; the key "first" means what shows it in a list."""
    piece = get_object_or_404(Piece.objects.select_related("order", "revision"), order=order, number=piece_number)
    walked = ShownPiece(piece).walked
    side = walked.scene.side(side_key)
    if side is None and side_key == "first":
        return first_picture(walked, StoredAssets())
    if side is None:
        raise Http404
    return HttpResponse(side_picture(side, StoredAssets()), content_type="image/png")


@staff_page(*STAFF)
@require_safe
def original(request: HttpRequest, number: int, piece_number: int, upload_id: uuid.UUID) -> HttpResponseBase:  # noqa: ARG001
    """Hand out a customer's file as received, as a download only."""
    piece = get_object_or_404(Piece, order=_order(number), number=piece_number)
    upload = get_object_or_404(piece.uploads.select_related("original"), pk=upload_id)
    return download(upload.original, upload.name)


def _order(number: int) -> Order:
    return get_object_or_404(Order.objects.numbered(number))
