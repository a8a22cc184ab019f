"""The rack: an order comes in; the place that its made pieces are gathered in goes out."""

from yenzo.apps.orders.models import Order
from yenzo.apps.production.models import RackPlace
from yenzo.apps.workshop.current import current_workshop


def note_rack(order: Order) -> RackPlace | None:
    """Give the made pieces of an order a place in the rack, the lowest that is free; free it when none are left there.

    None where nothing lies there, or the rack is full. To be called within a transaction that holds the order.
    """
    place = RackPlace.objects.filter(order=order).first()
    if order.pieces_made == 0 or order.sent_at is not None or order.is_cancelled:
        if place is not None:
            place.delete()
        return None
    if place is not None:
        return place
    taken = set(RackPlace.objects.values_list("number", flat=True))
    for number in range(1, current_workshop().rack_places + 1):
        if number not in taken:
            # Two orders may want the same place at the same moment: one of them gets it, the other looks on.
            made, is_new = RackPlace.objects.get_or_create(number=number, defaults={"order": order})
            if is_new:
                return made
    return None
