"""Packing and sending: pieces are gathered in the rack, checked into a parcel, sent at once or in parts, delivered.

An order is the lock over its parcels, as it is over its jobs.
"""

from django.db import transaction
from django.db.models import F
from django.utils import timezone

from yenzo.apps.accounts.rights import DESK, SYSTEM, Actor, service
from yenzo.apps.desk.waiting import update_waits_for
from yenzo.apps.files.store import store_file
from yenzo.apps.orders.mails import want_order_mails
from yenzo.apps.orders.models import Order, OrderEvent
from yenzo.apps.production.mails import want_part_mail
from yenzo.apps.production.models import Parcel, ParcelItem
from yenzo.apps.production.piece_counts import count_pieces, open_parcel
from yenzo.apps.production.racking import note_rack
from yenzo.apps.production.services.jobs import FLOOR, JobError
from yenzo.core.translation import money


@service(*FLOOR)
def put_in_parcel(actor: Actor, order_id: int, line_id: int, index: int, count: int | None = None) -> ParcelItem:  # noqa: ARG001
    """Check made pieces into the parcel that is being packed: so many, or all that lie in no parcel yet.

    Raises JobError for more than are made and not packed.
    """
    with transaction.atomic():
        order = _open_order(order_id)
        found = next((one for one in count_pieces(order) if one.key == (line_id, index)), None)
        if found is None:
            raise JobError(f"Order {order.number} has no such piece.")
        wanted = found.left if count is None else count
        if not 1 <= wanted <= found.left:
            raise JobError(_why_none(found.piece.number, found.left, found.made))
        parcel = open_parcel(order) or Parcel.objects.create(order=order)
        item, is_new = ParcelItem.objects.get_or_create(
            parcel=parcel, line_id=line_id, index=index, defaults={"quantity": wanted}
        )
        if not is_new:
            ParcelItem.objects.filter(pk=item.pk).update(quantity=F("quantity") + wanted)
            item.refresh_from_db()
    return item


def _why_none(number: str, left: int, made: int) -> str:
    if left:
        return f"Of {number} {left} can be packed."
    return f"{number} is packed already." if made else f"{number} isn't made yet."


@service(*FLOOR)
def take_out(actor: Actor, item_id: int) -> None:  # noqa: ARG001
    """Take pieces out of a parcel that isn't sent."""
    with transaction.atomic():
        order_id = ParcelItem.objects.filter(pk=item_id).values_list("parcel__order", flat=True).first()
        if order_id is not None:
            _open_order(order_id)
            ParcelItem.objects.filter(pk=item_id, parcel__sent_at=None).delete()


@service(*DESK)
def send_parcel(actor: Actor, order_id: int, *, carrier: str, number: str, label: bytes | None = None) -> Parcel:
    """Send what is packed: all of an order, or a part of it; its customer gets a mail. `label` is of a booked one.

    Raises JobError for an empty parcel, and while something is to be paid.
    """
    with transaction.atomic():
        order = _open_order(order_id)
        parcel = open_parcel(order)
        if parcel is None or not parcel.items.exists():
            raise JobError(f"Nothing of order {order.number} is packed yet.")
        return _sent(actor, order, parcel, carrier[:80], number[:80], label)


@service(*DESK)
def send_order(actor: Actor, order_id: int, *, carrier: str, number: str) -> Parcel:
    """Say that all that is left of an order is on its way, or was picked up, whether or not each piece was scanned.

    Raises JobError before it is made, and for another parcel than the one that it was sent as.
    """
    with transaction.atomic():
        order = Order.objects.select_for_update().get(pk=order_id)
        carrier, number = carrier[:80], number[:80]
        last = order.parcels.exclude(sent_at=None).last()
        if order.sent_at is not None and last is not None:
            if (last.carrier, last.number) == (carrier, number):
                return last
            raise JobError(f"Order {order.number} was sent already: {last.carrier} {last.number}".strip() + ".")
        order = _open_order(order_id)
        if order.made_at is None:
            raise JobError(f"Order {order.number} isn't made yet.")
        parcel = open_parcel(order) or Parcel.objects.create(order=order)
        for one in count_pieces(order):
            if one.left:
                item, _ = ParcelItem.objects.get_or_create(
                    parcel=parcel, line_id=one.key[0], index=one.key[1], defaults={"quantity": one.left}
                )
                item.quantity = one.packed + one.left
                item.save(update_fields=["quantity"])
        return _sent(actor, order, parcel, carrier, number, None)


def _open_order(order_id: int) -> Order:
    order = Order.objects.select_for_update().get(pk=order_id)
    if not order.is_paid:
        raise JobError(f"Order {order.number} isn't to be sent.")
    if order.sent_at is not None:
        raise JobError(f"Order {order.number} was sent already.")
    return order


def refuse_unsendable(order: Order) -> None:
    """Raise JobError for an order that isn't to be sent (any more), or of which something is to be paid."""
    if not order.is_paid:
        raise JobError(f"Order {order.number} isn't to be sent.")
    unpaid = order.differences.to_pay().first()
    if unpaid is not None:
        more = money(unpaid.amount, order.currency)
        raise JobError(f"{more} of order {order.number} are still to be paid, or to be waived on its page.")


def _sent(actor: Actor, order: Order, parcel: Parcel, carrier: str, number: str, label: bytes | None) -> Parcel:
    refuse_unsendable(order)
    parcel.carrier, parcel.number, parcel.person, parcel.sent_at = carrier, number, actor.person, timezone.now()
    parcel.label = store_file(label) if label else None
    parcel.save()
    order.carrier, order.parcel_number = carrier, number
    is_all = all(one.sent >= one.ordered for one in count_pieces(order))
    if is_all:
        order.sent_at = parcel.sent_at
    order.save(update_fields=["carrier", "parcel_number", "sent_at"])
    if is_all:
        OrderEvent.objects.create(order=order, who=actor.name, kind=OrderEvent.Kind.SENT)
        want_order_mails(actor, order, "sent")
    else:
        facts = {"pieces": parcel.pieces, "parcel": f"{carrier} {number}".strip()}
        OrderEvent.objects.create(order=order, who=actor.name, kind=OrderEvent.Kind.PART_SENT, facts=facts)
        want_part_mail(actor, parcel)
    note_rack(order)
    update_waits_for(order)
    return parcel


@service(SYSTEM)
def note_delivered(actor: Actor, parcel_id: int) -> None:
    """Note that a carrier has delivered a parcel; the last one of an order makes that delivered."""
    with transaction.atomic():
        order_id = Parcel.objects.values_list("order", flat=True).get(pk=parcel_id)
        order = Order.objects.select_for_update().get(pk=order_id)
        changed = Parcel.objects.on_the_way().filter(pk=parcel_id).update(delivered_at=timezone.now())
        is_all = order.sent_at is not None and not order.parcels.filter(delivered_at=None).exists()
        if changed and is_all:
            order.delivered_at = timezone.now()
            order.save(update_fields=["delivered_at"])
            OrderEvent.objects.create(order=order, who=actor.name, kind=OrderEvent.Kind.DELIVERED)
