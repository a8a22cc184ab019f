"""Orders as the workshop sees them."""

import uuid
from dataclasses import dataclass
from pathlib import Path
from urllib.parse import urlencode

from django.contrib import messages
from django.core.paginator import Paginator
from django.db.models import Count
from django.http import Http404, HttpRequest, HttpResponse, HttpResponseBase, QueryDict
from django.shortcuts import get_object_or_404, redirect, render
from django.views.decorators.cache import cache_control
from django.views.decorators.http import require_POST, require_safe

from yenzo.apps.accounts.gates import staff_page
from yenzo.apps.accounts.rights import DESK, SEES_ADDRESSES, SEES_PRICES, STAFF, actor_of
from yenzo.apps.designs.models import Personalization
from yenzo.apps.designs.personalized import proof_of
from yenzo.apps.designs.side_pictures import list_picture
from yenzo.apps.files.downloads import as_download, download
from yenzo.apps.files.models import StoredFile
from yenzo.apps.files.store import read_stored
from yenzo.apps.orders.exporting import heads_for, rows_for
from yenzo.apps.orders.invoices import invoice_of
from yenzo.apps.orders.models import Line, Order
from yenzo.apps.orders.models.orders import SORTINGS, STAGES, STATUSES, OrderQuerySet
from yenzo.apps.orders.services.orders import OrderError, cancel_order
from yenzo.apps.orders.showing import ReceivedFile, ShownLine, ShownPiece
from yenzo.apps.pages.numbers import whole_numbers
from yenzo.core.lists.exported import as_csv, as_xlsx

ORDERS_A_PAGE = 40
MOST_IN_TABLE = 20_000
# What pictures are prepared as, by how their files begin; drawings are SVG.
PREPARED_KINDS = {b"\x89PNG": ".png", b"\xff\xd8": ".jpg"}


@dataclass(frozen=True)
class Sought:
    """What a list of orders is asked for, by the names of its address."""

    words: str
    state: str
    waits: str
    by: str

    @classmethod
    def of(cls, query: QueryDict) -> "Sought":
        """Return what an address asks for; what isn't known asks for nothing."""
        known = {
            "state": set(dict((*STATUSES, *STAGES))),
            "waits": set(Order.WaitsFor.values),
            "by": set(SORTINGS),
        }
        given = {name: one if (one := query.get(name, "")) in names else "" for name, names in known.items()}
        return cls(words=query.get("q", "").strip()[:200], **given)

    @property
    def orders(self) -> OrderQuerySet:
        """The orders."""
        orders = Order.objects.for_list().sorted_by(self.by)
        orders = orders.matching(self.words) if self.words else orders
        orders = orders.with_status(self.state) if self.state else orders
        return orders.filter(waits_for=self.waits) if self.waits else orders

    def address(self, **changed: str) -> str:
        """Return the query of an address that asks for the same, with something else."""
        names = {"q": self.words, "state": self.state, "waits": self.waits, "by": self.by, **changed}
        return urlencode({name: value for name, value in names.items() if value})


@staff_page(*STAFF)
def order_list(request: HttpRequest) -> HttpResponse:
    """Show the orders that are sought, by whose turn they are and how they stand."""
    sought = Sought.of(request.GET)
    turns = dict(Order.objects.exclude(waits_for="").values_list("waits_for").annotate(count=Count("pk")))
    context = {
        "page": Paginator(sought.orders, ORDERS_A_PAGE).get_page(request.GET.get("page")),
        "sought": sought,
        "query": sought.address(),
        "states": [(key, name, sought.address(state=key)) for key, name in (("", "All"), *STATUSES, *STAGES)],
        "turns": [
            (key, name, turns.get(key, 0), sought.address(waits="" if key == sought.waits else key))
            for key, name in Order.WaitsFor.choices
        ],
        "sortings": [(key, name, sought.address(by=key)) for key, (_, name) in SORTINGS.items()],
        "unsorted": sought.address(by=""),
        "section": "orders",
        **_sees(request),
    }
    return render(request, "orders/orders.html", context)


@staff_page(*STAFF)
@require_safe
def order_table(request: HttpRequest, form: str) -> HttpResponseBase:
    """Hand out the orders that are sought, or those that are ticked, as a table."""
    role = getattr(request.user, "role", "")
    ticked = whole_numbers(request.GET.getlist("order"))
    orders = Sought.of(request.GET).orders[:MOST_IN_TABLE]
    if ticked:
        orders = Order.objects.for_list().filter(number__in=ticked[:MOST_IN_TABLE])
    heads, rows = heads_for(role), rows_for(role, orders)
    made = as_csv(heads, rows) if form == "csv" else as_xlsx("Orders", heads, rows)
    return as_download(HttpResponse(made), f"orders.{form}")


def _sees(request: HttpRequest) -> dict[str, bool]:
    """Return what of an order is for whose eyes: seller and decorator see no addresses, decorators no prices."""
    role = getattr(request.user, "role", "")
    return {"sees_addresses": role in SEES_ADDRESSES, "sees_prices": role in SEES_PRICES}


@staff_page(*STAFF)
def order_page(request: HttpRequest, number: int) -> HttpResponse:
    order = _order(number)
    lines = order.lines.select_related("order", "revision", "personalization__revision")
    context = {
        "order": order,
        "lines": [ShownLine(line) for line in lines.prefetch_related("personalization__uploads")],
        "events": order.events.all(),
        "notes": order.notes.select_related("person"),
        "sent_as": uuid.uuid4(),
        "may_write": getattr(request.user, "role", "") in DESK,
        "may_cancel": order.is_cancellable and getattr(request.user, "role", "") in DESK,
        "differences": order.differences.all(),
        "section": "orders",
        **_sees(request),
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


@staff_page(*SEES_ADDRESSES)
@require_safe
def invoice(request: HttpRequest, number: int) -> HttpResponseBase:  # noqa: ARG001
    return invoice_download(_order(number))


def invoice_download(order: Order) -> HttpResponseBase:
    """Answer with the invoice of an order; there is none before it is paid."""
    if not order.payments.filter(state="approved").exists():
        raise Http404
    return as_download(HttpResponse(invoice_of(order)), f"invoice-{order.number}.pdf")


@staff_page(*STAFF)
@require_safe
@cache_control(private=True, max_age=3600)
def line_picture(
    request: HttpRequest,  # noqa: ARG001
    number: int,
    line_number: int,
    side_key: str,
    index: int = 1,
) -> HttpResponseBase:
    return picture_of_line(_order(number), line_number, side_key, index)


def picture_of_line(order: Order, line_number: int, side_key: str, index: int = 1) -> HttpResponseBase:
    """Answer with the picture of one side of a line's piece; the key "first" means what shows it in a list."""
    lines = Line.objects.select_related("order", "revision", "personalization__revision")
    line = get_object_or_404(lines, order=order, number=line_number)
    piece = next((one for one in ShownLine(line).pieces if one.index == index), None)
    if piece is None:
        raise Http404
    sides = {side.key: side for side in piece.recorded.sides}
    if side_key not in sides and side_key == "first":
        first = next(iter(sides.values()), None)
        digest = first.digest if first else None
        return list_picture(piece.setup, digest, lambda: _proof(piece, next(iter(sides))))
    return HttpResponse(_proof(piece, side_key), content_type="image/png")


def _proof(piece: ShownPiece, side_key: str) -> bytes:
    picture = proof_of(piece.personalization, side_key)
    if picture is None:
        raise Http404
    return picture


@staff_page(*STAFF)
@require_safe
def original(request: HttpRequest, number: int, line_number: int, upload_id: uuid.UUID) -> HttpResponseBase:  # noqa: ARG001
    """Hand out a customer's file as received, as a download only."""
    received = _received(number, line_number, upload_id)
    return download(received.upload.original, received.upload.name)


@staff_page(*STAFF)
@require_safe
def prepared(request: HttpRequest, number: int, line_number: int, upload_id: uuid.UUID) -> HttpResponseBase:  # noqa: ARG001
    """Hand out what was prepared of a customer's file: what is drawn on the goods, as a download only."""
    received = _received(number, line_number, upload_id)
    data = read_stored(get_object_or_404(StoredFile, sha256=received.prepared or ""))
    ending = next((end for begin, end in PREPARED_KINDS.items() if data.startswith(begin)), ".svg")
    return as_download(HttpResponse(data), f"{Path(received.upload.name).stem}-prepared{ending}")


def _received(number: int, line_number: int, upload_id: uuid.UUID) -> ReceivedFile:
    lines = Line.objects.select_related("order", "revision", "personalization__revision")
    line = get_object_or_404(lines, order=_order(number), number=line_number)
    # Of a list of a thousand rows only those are looked into that have the file.
    having = set(Personalization.objects.filter(uploads=upload_id).values_list("pk", flat=True))
    pieces = (piece for piece in ShownLine(line).pieces if piece.personalization.pk in having)
    received = (file for piece in pieces for file in piece.received if file.upload.pk == upload_id)
    found = next(received, None)
    if found is None:
        raise Http404
    return found


def _order(number: int) -> Order:
    return get_object_or_404(Order, number=number)
