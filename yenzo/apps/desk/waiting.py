"""Whose turn it is: an order comes in; who has to do something next is kept. Nothing else decides that."""

from typing import Any

from django.utils import timezone

from yenzo.apps.desk.models import Preflight, Question
from yenzo.apps.orders.models import Order


def on_order_changed(sender: object, order: Order, **_more: Any) -> None:  # noqa: ARG001 - a signal's signature
    """Work out anew whose turn an order is."""
    update_waits_for(order)


def update_waits_for(order: Order) -> None:
    """Keep whose turn an order is, and since when. To be called within the change that may alter it."""
    turn = _turn(order)
    if turn != order.waits_for:
        order.waits_for, order.waits_since = turn, timezone.now()
        order.save(update_fields=["waits_for", "waits_since"])


def _turn(order: Order) -> str:
    if order.is_cancelled or order.sent_at is not None:
        return ""
    if not order.is_paid:
        return Order.WaitsFor.CUSTOMER
    questions = Question.objects.open().filter(preflight__line__order=order)
    held = Preflight.objects.held().filter(line__order=order)
    if held.exclude(pk__in=questions.values("preflight")).exists():
        return Order.WaitsFor.DESK
    if questions.exists() or order.differences.to_pay().exists():
        return Order.WaitsFor.CUSTOMER
    # What is paid and not looked at yet is so for a moment only.
    return Order.WaitsFor.DESK if order.made_at else Order.WaitsFor.STATION
