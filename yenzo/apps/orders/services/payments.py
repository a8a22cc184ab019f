"""Payments: begun once, recorded once, whatever happens in between."""

from datetime import datetime

from django.conf import settings
from django.db import transaction
from django.utils import timezone
from procrastinate.contrib.django import app

from yenzo.apps.accounts.rights import ALL_ROLES, SYSTEM, Actor, service
from yenzo.apps.orders.delivering import promise_from
from yenzo.apps.orders.interface import order_changed
from yenzo.apps.orders.models import Difference, Order, OrderEvent, Payment
from yenzo.apps.orders.services.differences import note_difference, note_event
from yenzo.apps.orders.services.orders import OrderError
from yenzo.apps.orders.to_core import way_of
from yenzo.apps.outbox.orphaned_jobs import without_job
from yenzo.apps.products.to_core import setup_of_revision
from yenzo.gateways.payment.interface import Outcome

SETTLING = "orders.settle_payment"


@service(*(role for role in ALL_ROLES if role != SYSTEM))
def start_payment(
    actor: Actor,  # noqa: ARG001 - whoever has the link may pay
    order_id: int,
    way: str,
    difference_id: int | None = None,
) -> Payment:
    """Begin a payment; raises OrderError when one is open or approved. A job settles it if no answer comes.

    It is of the whole order, or of what it costs more (`difference_id`).
    """
    with transaction.atomic():
        order = Order.objects.select_for_update().get(pk=order_id)
        if difference_id is not None:
            difference = order.differences.get(pk=difference_id)
            if not difference.is_payable:
                raise OrderError(f"This amount of order {order.number} can't be paid now.")
            payment = Payment.objects.create(order=order, way=way, difference=difference, amount=difference.amount)
        else:
            if not order.is_payable:
                raise OrderError(f"Order {order.number} can't be paid now: {order.status_words.lower()}.")
            order.payment_state = Order.PaymentState.UNKNOWN
            order.save(update_fields=["payment_state"])
            payment = Payment.objects.create(order=order, way=way, amount=order.total)
        wait = {"seconds": settings.SETTLE_AFTER_SECONDS}
        app.configure_task(SETTLING, schedule_in=wait).defer(payment_id=payment.pk)
    return payment


@service(SYSTEM)
def look_after_payments(actor: Actor, before: datetime) -> None:  # noqa: ARG001
    """Have payments settled that no job will settle any more."""
    waiting = Payment.objects.open().filter(started_at__lt=before)
    for key in without_job(SETTLING, "payment_id", waiting.values_list("pk", flat=True)):
        app.configure_task(SETTLING).defer(payment_id=int(key))


def _promise_anew(order: Order) -> None:
    """Promise from today on what was paid so late that the day which was promised can't be kept."""
    way = way_of(order)
    if way is None or order.leaves_on is None:
        return
    setups = [setup_of_revision(line.revision) for line in order.lines.select_related("revision")]
    promise = promise_from(way, setups, timezone.localdate())
    if promise.leaves_on > order.leaves_on:
        order.leaves_on, order.arrives_on = promise.leaves_on, promise.arrives_on


@service(SYSTEM)
def record_outcome(actor: Actor, payment_id: int, outcome: Outcome) -> Order:
    """Write down how a payment ended; what was recorded first stays."""
    with transaction.atomic():
        payment = Payment.objects.select_for_update().select_related("order").get(pk=payment_id)
        order = Order.objects.select_for_update().get(pk=payment.order_id)
        if payment.state != Payment.State.STARTED:
            return order
        payment.state, payment.ended_at = Payment.State(outcome.value), timezone.now()
        payment.save(update_fields=["state", "ended_at"])
        is_paid = outcome is Outcome.APPROVED
        if payment.difference is not None:
            _settle_difference(actor, order, payment.difference, is_paid=is_paid)
            order_changed.send(Order, order=order)
            return order
        order.payment_state = Order.PaymentState.PAID if is_paid else Order.PaymentState.WAITING
        if is_paid:
            _promise_anew(order)
        order.save(update_fields=["payment_state", "leaves_on", "arrives_on"])
        kind = OrderEvent.Kind.PAID if is_paid else OrderEvent.Kind.DECLINED
        OrderEvent.objects.create(order=order, who=actor.name, kind=kind)
        if is_paid:
            # What follows from it is a job of its own: whatever fails there, the payment stays recorded.
            app.configure_task("orders.tell_paid").defer(order_id=order.pk)
        order_changed.send(Order, order=order)
    return order


def _settle_difference(actor: Actor, order: Order, difference: Difference, *, is_paid: bool) -> None:
    if not is_paid:
        note_event(actor, difference, OrderEvent.Kind.DECLINED)
        return
    difference.state, difference.settled_at = Difference.State.SETTLED, timezone.now()
    difference.save(update_fields=["state", "settled_at"])
    note_event(actor, difference, OrderEvent.Kind.MORE_PAID)
    if order.is_cancelled:
        # It was on its way when the order was cancelled.
        note_difference(actor, order, -difference.amount, "Cancelled")
        order.payment_state = Order.PaymentState.OWED_BACK
        order.save(update_fields=["payment_state"])
