"""Sending by the carrier: an order whose parcel is packed comes in; it is booked and sent. Parcels are asked after."""

from contextlib import suppress

from yenzo.apps.accounts.rights import SYSTEM_ACTOR, Actor
from yenzo.apps.orders.models import Order
from yenzo.apps.production.carrier_gateway import carrier
from yenzo.apps.production.models import Parcel
from yenzo.apps.production.piece_counts import open_parcel
from yenzo.apps.production.services.jobs import JobError
from yenzo.apps.production.services.packing import note_delivered, refuse_unsendable, send_parcel
from yenzo.gateways.carrier.interface import CarrierSilenceError


def book_and_send(actor: Actor, order: Order) -> Parcel:
    """Book what is packed with the carrier and send it; raises JobError where that can't be.

    Booked again it is the same parcel.
    """
    # What is booked costs money: first it is clear that it may go.
    refuse_unsendable(order)
    parcel = open_parcel(order)
    if parcel is None or not parcel.items.exists():
        raise JobError(f"Nothing of order {order.number} is packed yet.")
    to = f"{order.customer_name}\n{order.address}".strip()
    try:
        booked = carrier().book(parcel.reference.hex, to, f"order {order.number}, {parcel.pieces} pieces")
    except CarrierSilenceError as error:
        raise JobError("The carrier doesn't answer. Please try again in a moment; it is booked once only.") from error
    return send_parcel(actor, order.pk, carrier=booked.carrier, number=booked.number, label=booked.label)


def ask_after_parcels() -> int:
    """Ask the carrier after all parcels on their way; return how many were delivered."""
    delivered = 0
    for parcel in Parcel.objects.on_the_way():
        with suppress(CarrierSilenceError):
            if carrier().is_delivered(parcel.number):
                note_delivered(SYSTEM_ACTOR, parcel.pk)
                delivered += 1
    return delivered
