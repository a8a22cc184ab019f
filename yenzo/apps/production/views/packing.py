"""The packing table: what is gathered, checked into a parcel by scan, and sent."""

from collections.abc import Callable

from django.contrib import messages
from django.http import Http404, HttpRequest, HttpResponse, HttpResponseBase
from django.shortcuts import get_object_or_404, redirect, render
from django.views.decorators.cache import never_cache
from django.views.decorators.http import require_POST, require_safe

from yenzo.apps.accounts.gates import staff_page
from yenzo.apps.accounts.request_guard import sent_number
from yenzo.apps.accounts.rights import DESK, SEES_ADDRESSES, actor_of
from yenzo.apps.files.downloads import as_download, download
from yenzo.apps.orders.models import Order
from yenzo.apps.production.models import Parcel
from yenzo.apps.production.packing import PackingOrder, delivery_note_of, orders_to_pack, scanned_at_packing
from yenzo.apps.production.sending import book_and_send
from yenzo.apps.production.services.jobs import FLOOR, JobError
from yenzo.apps.production.services.packing import put_in_parcel, send_order, send_parcel, take_out


@staff_page(*FLOOR)
@require_safe
@never_cache
def table(request: HttpRequest) -> HttpResponse:
    """Show all orders of which anything is made and not sent, by their places in the rack."""
    context = {"orders": [PackingOrder(order) for order in orders_to_pack()], "section": "production"}
    return render(request, "production/packing.html", context)


@staff_page(*FLOOR)
@require_safe
@never_cache
def order_at_table(request: HttpRequest, number: int) -> HttpResponse:
    """Show an order at the packing table."""
    return _page(request, get_object_or_404(Order, number=number))


def _page(request: HttpRequest, order: Order, trouble: str = "") -> HttpResponse:
    role = getattr(request.user, "role", "")
    context = {
        "one": PackingOrder(order),
        "order": order,
        "trouble": trouble,
        "may_send": role in DESK,
        "sees_addresses": role in SEES_ADDRESSES,
        "section": "production",
    }
    return render(request, "production/pack_order.html", context, status=422 if trouble else 200)


@staff_page(*FLOOR)
@require_POST
def scan(request: HttpRequest) -> HttpResponse:
    """Go to the order that a scan names; the ticket of a piece puts that into the parcel."""
    words = request.POST.get("scanned", "")[:60]
    found = scanned_at_packing(words)
    if found is None:
        messages.error(request, f"“{words}” is no order, ticket or place that is known here.")
        return redirect("production:packing")
    if found.line_id is not None:
        order, line_id, index = found.order, found.line_id, found.index
        return _done(request, order, lambda: put_in_parcel(actor_of(request.user), order.pk, line_id, index))
    return redirect("production:pack_order", found.order.number)


@staff_page(*FLOOR)
@require_POST
def put_in(request: HttpRequest, number: int) -> HttpResponse:
    """Put some made pieces into the parcel, by hand."""
    order = get_object_or_404(Order, number=number)
    line_id, index, count = (sent_number(request, name, 0) for name in ("line", "index", "count"))
    return _done(request, order, lambda: put_in_parcel(actor_of(request.user), order.pk, line_id, index, count))


@staff_page(*FLOOR)
@require_POST
def take(request: HttpRequest, number: int, item_id: int) -> HttpResponse:
    """Take pieces out of the parcel again."""
    order = get_object_or_404(Order, number=number)
    return _done(request, order, lambda: take_out(actor_of(request.user), item_id))


@staff_page(*DESK)
@require_POST
def send(request: HttpRequest, number: int) -> HttpResponse:
    """Send what is packed: booked with the carrier, or as somebody says it went."""
    order, actor = get_object_or_404(Order, number=number), actor_of(request.user)
    if request.POST.get("by") == "carrier":
        return _done(request, order, lambda: book_and_send(actor, order), "It is booked and on its way.")
    carrier, parcel = (request.POST.get(name, "").strip() for name in ("carrier", "parcel"))
    if request.POST.get("by") == "all":
        return _done(request, order, lambda: send_order(actor, order.pk, carrier=carrier, number=parcel), SENT)
    return _done(request, order, lambda: send_parcel(actor, order.pk, carrier=carrier, number=parcel), SENT)


SENT = "Noted as sent. The mail to the customer waits in the outbox."


def _done(request: HttpRequest, order: Order, do: Callable[[], object], said: str = "") -> HttpResponse:
    try:
        do()
    except JobError as error:
        return _page(request, Order.objects.get(pk=order.pk), str(error))
    if said:
        messages.success(request, said)
    return redirect("production:pack_order", order.number)


@staff_page(*SEES_ADDRESSES)
@require_safe
def note(request: HttpRequest, parcel_id: int) -> HttpResponseBase:  # noqa: ARG001
    """Hand out the delivery note of a parcel; it has an address."""
    parcel = get_object_or_404(Parcel.objects.select_related("order").prefetch_related("items"), pk=parcel_id)
    return as_download(HttpResponse(delivery_note_of(parcel)), f"delivery-note-{parcel.order.number}.pdf")


@staff_page(*SEES_ADDRESSES)
@require_safe
def parcel_label(request: HttpRequest, parcel_id: int) -> HttpResponseBase:  # noqa: ARG001
    """Hand out the carrier's label of a booked parcel."""
    parcel = get_object_or_404(Parcel.objects.select_related("order", "label"), pk=parcel_id)
    if parcel.label is None:
        raise Http404
    return download(parcel.label, f"parcel-{parcel.order.number}.pdf")
