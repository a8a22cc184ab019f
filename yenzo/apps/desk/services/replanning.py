"""When an order leaves: sooner for a rush, on another day for a reason."""

from datetime import date

from django.db import transaction

from yenzo.apps.accounts.rights import DESK, Actor, service
from yenzo.apps.desk.interface import order_replanned
from yenzo.apps.desk.services.preflights import DeskError
from yenzo.apps.orders.models import Order, OrderEvent


@service(*DESK)
def rush_order(actor: Actor, order_id: int, *, is_rush: bool) -> Order:
    """Have an order made before all others, or in its turn again."""
    with transaction.atomic():
        order = _open(order_id)
        if order.is_rush == is_rush:
            return order
        order.is_rush = is_rush
        order.save(update_fields=["is_rush"])
        if is_rush:
            OrderEvent.objects.create(order=order, who=actor.name, kind=OrderEvent.Kind.RUSHED)
        order_replanned.send(Order, order=order)
    return order


@service(*DESK)
def move_order(actor: Actor, order_id: int, leaves_on: date, why: str) -> Order:
    """Have an order leave on another day; a reason is needed. What was promised to its customer is moved along."""
    with transaction.atomic():
        order = _open(order_id)
        if order.leaves_on == leaves_on:
            return order
        if not why.strip():
            raise DeskError("Please say why it leaves on another day.")
        if order.arrives_on and order.leaves_on:
            order.arrives_on += leaves_on - order.leaves_on
        order.leaves_on = leaves_on
        order.save(update_fields=["leaves_on", "arrives_on"])
        facts = {"day": str(leaves_on), "reason": why.strip()[:200]}
        OrderEvent.objects.create(order=order, who=actor.name, kind=OrderEvent.Kind.DAY_MOVED, facts=facts)
        order_replanned.send(Order, order=order)
    return order


def _open(order_id: int) -> Order:
    order = Order.objects.select_for_update().get(pk=order_id)
    if order.is_cancelled or order.sent_at is not None:
        raise DeskError(f"Order {order.number} isn't to be made any more.")
    return order
