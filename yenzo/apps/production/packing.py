"""The packing table: what waits in the rack comes in; each order with its pieces, and its papers, go out."""

from collections.abc import Iterable
from dataclasses import dataclass
from functools import cached_property

from django.utils import timezone

from yenzo.apps.orders.invoices import FALLBACKS
from yenzo.apps.orders.models import Order
from yenzo.apps.orders.models.orders import NUMBER_OR_TICKET
from yenzo.apps.pages.languages import read_in
from yenzo.apps.pages.numbers import whole_number
from yenzo.apps.production.models import Parcel, RackPlace
from yenzo.apps.production.piece_counts import PieceCounts, count_pieces, open_parcel
from yenzo.apps.workshop.current import current_workshop
from yenzo.core.planning.delivery_note import DeliveryNote, NoteLine, make_delivery_note


@dataclass(frozen=True)
class PackingOrder:
    """An order at the packing table."""

    order: Order

    @cached_property
    def pieces(self) -> list[PieceCounts]:
        """Its pieces with how far they are."""
        return count_pieces(self.order)

    @property
    def place(self) -> RackPlace | None:
        """Where its made pieces lie."""
        return RackPlace.objects.filter(order=self.order).first()

    @cached_property
    def parcel(self) -> Parcel | None:
        """The parcel that is being packed."""
        return open_parcel(self.order)

    @property
    def packed(self) -> int:
        """How many pieces lie in it."""
        return sum(one.packed for one in self.pieces)

    @property
    def sent(self) -> list[Parcel]:
        """The parcels that were sent."""
        return list(self.order.parcels.exclude(sent_at=None).prefetch_related("items"))

    @property
    def is_complete(self) -> bool:
        """Whether all that isn't sent yet is packed."""
        return all(one.packed + one.sent >= one.ordered for one in self.pieces)


def orders_to_pack() -> Iterable[Order]:
    """Return the orders of which anything is made and not sent, what leaves first first."""
    waiting = Order.objects.with_status(Order.PaymentState.PAID).filter(sent_at=None, pieces_made__gt=0)
    return waiting.select_related("rack_place").prefetch_related("lines").order_by("-is_rush", "leaves_on", "number")


@dataclass(frozen=True)
class Scanned:
    """What a scan at the packing table names: an order, and pieces of it if it was their ticket."""

    order: Order
    line_id: int | None = None
    index: int = 1


def scanned_at_packing(words: str) -> Scanned | None:
    """Return what a scanned ticket, label, order number or rack place ("R7") names; None for anything else."""
    words = words.strip().upper().partition("/")[0]
    if words.startswith("R") and (rack := whole_number(words[1:])) is not None:
        place = RackPlace.objects.select_related("order").filter(number=rack).first()
        return Scanned(place.order) if place else None
    named = NUMBER_OR_TICKET.fullmatch(words)
    order = Order.objects.filter(number=int(named["number"])).first() if named else None
    if named is None or order is None:
        return None
    line_number, _, index = words.removeprefix("T-").partition("-")[2].partition(".")
    line = order.lines.filter(number=int(line_number)).first() if line_number else None
    return Scanned(order, line.pk if line else None, int(index or 1))


def delivery_note_of(parcel: Parcel) -> bytes:
    """Return the delivery note of a parcel, sent or being packed, in its customer's language."""
    order, workshop = parcel.order, current_workshop()
    inside = {(item.line_id, item.index): item.quantity for item in parcel.items.all()}
    with read_in(order.language):
        pieces = count_pieces(order)
        later = any(one.ordered > one.sent + inside.get(one.key, 0) for one in pieces)
        note = DeliveryNote(
            number=f"{order.number}-{_place_of(parcel)}",
            day=timezone.localdate(parcel.sent_at) if parcel.sent_at else timezone.localdate(),
            sender=f"{workshop.name}\n{workshop.address}".strip(),
            recipient=f"{order.customer_name}\n{order.address}".strip(),
            lines=tuple(_line(one, inside[one.key]) for one in pieces if one.key in inside),
            carrier=parcel.carrier,
            parcel_number=parcel.number,
            purchase_number=order.purchase_number,
            is_all=bool(parcel.sent_at and order.sent_at) or (parcel.sent_at is None and not later),
        )
        return make_delivery_note(note, fallbacks=FALLBACKS)


def _place_of(parcel: Parcel) -> int:
    return parcel.order.parcels.filter(pk__lte=parcel.pk).count()


def _line(one: PieceCounts, count: int) -> NoteLine:
    name = one.piece.setup.offer.name + (f", {one.piece.variant.name}" if one.piece.variant else "")
    texts = tuple(text.made.words for text in one.piece.in_words.texts)
    return NoteLine(one.piece.number, name, count, one.ordered, texts)
