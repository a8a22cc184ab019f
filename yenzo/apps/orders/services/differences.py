"""What an order costs more or less than was paid: noted, paid, waived, given back."""

from collections.abc import Iterator
from datetime import datetime
from decimal import Decimal

from django.db import transaction
from django.utils import timezone
from procrastinate.contrib.django import app

from yenzo.apps.accounts.rights import DESK, SYSTEM, Actor, service
from yenzo.apps.orders.interface import order_changed
from yenzo.apps.orders.models import Difference, Line, Order, OrderEvent, Payment
from yenzo.apps.outbox.orphaned_jobs import without_job

GIVING_BACK = "orders.give_back"


def note_difference(
    actor: Actor, order: Order, amount: Decimal, why: str, *, line: Line | None = None, is_waived: bool = False
) -> Difference | None:
    """Note what a paid order costs more (above 0) or less; what is less is given back by a job. None for nothing.

    To be called within a transaction that holds the order. Waived, it is only kept that there was a difference.
    """
    if amount == 0:
        return None
    state = Difference.State.WAIVED if is_waived else Difference.State.OPEN
    made = Difference.objects.create(order=order, line=line, amount=amount, why=why[:300], state=state)
    if amount > 0:
        kind = OrderEvent.Kind.MORE_WAIVED if is_waived else OrderEvent.Kind.COSTS_MORE
        note_event(actor, made, kind)
    elif not is_waived:
        app.configure_task(GIVING_BACK).defer(difference_id=made.pk)
    return made


def note_event(actor: Actor, difference: Difference, kind: OrderEvent.Kind) -> None:
    """Note what happened of a difference."""
    order = difference.order
    facts = {"amount": str(abs(difference.amount)), "currency": order.currency, "reason": difference.why}
    OrderEvent.objects.create(order=order, who=actor.name, kind=kind, facts=facts)


@service(*DESK)
def waive_difference(actor: Actor, difference_id: int) -> Difference:
    """Let an amount that is still to be paid be; one that is being paid stays."""
    with transaction.atomic():
        order_id = Difference.objects.values_list("order", flat=True).get(pk=difference_id)
        order = Order.objects.select_for_update().get(pk=order_id)
        difference = Difference.objects.get(pk=difference_id)
        if difference.is_payable:
            difference.state = Difference.State.WAIVED
            difference.save(update_fields=["state"])
            note_event(actor, difference, OrderEvent.Kind.MORE_WAIVED)
            order_changed.send(Order, order=order)
    return difference


@service(SYSTEM)
def record_given_back(actor: Actor, difference_id: int) -> None:
    """Note that an amount was given back; of a cancelled order it was all that was owed."""
    with transaction.atomic():
        order_id = Difference.objects.values_list("order", flat=True).get(pk=difference_id)
        order = Order.objects.select_for_update().get(pk=order_id)
        difference = Difference.objects.get(pk=difference_id)
        if difference.state != Difference.State.OPEN:
            return
        difference.state, difference.settled_at = Difference.State.SETTLED, timezone.now()
        difference.save(update_fields=["state", "settled_at"])
        if order.payment_state == Order.PaymentState.OWED_BACK and not order.differences.to_give_back().exists():
            order.payment_state = Order.PaymentState.PAID_BACK
            order.save(update_fields=["payment_state"])
        note_event(actor, difference, OrderEvent.Kind.GIVEN_BACK)
        order_changed.send(Order, order=order)


@service(SYSTEM)
def look_after_differences(actor: Actor, before: datetime) -> None:  # noqa: ARG001
    """Have given back what no job will give back any more."""
    waiting = Difference.objects.to_give_back().filter(noted_at__lt=before)
    for key in without_job(GIVING_BACK, "difference_id", waiting.values_list("pk", flat=True)):
        app.configure_task(GIVING_BACK).defer(difference_id=int(key))


def paid_so_far(order: Order) -> Decimal:
    """Return what was paid for an order and isn't given back, nor to be."""
    paid = sum((one.sum for one in order.payments.filter(state=Payment.State.APPROVED)), Decimal(0))
    back = order.differences.filter(amount__lt=0).exclude(state=Difference.State.WAIVED)
    return paid + sum((one.amount for one in back), Decimal(0))


def shares_of(difference: Difference) -> Iterator[tuple[Payment, Decimal]]:
    """Yield from which payments an amount is given back, and how much of each, the first payment first.

    What was given back before of the same payments is counted; the same difference gives the same shares each time.
    """
    before = difference.order.differences.filter(amount__lt=0, pk__lt=difference.pk).exclude(
        state=Difference.State.WAIVED
    )
    skipped, wanted = -sum((one.amount for one in before), Decimal(0)), -difference.amount
    payments = difference.order.payments.filter(state=Payment.State.APPROVED, ended_at__lte=difference.noted_at)
    for payment in payments.order_by("ended_at", "pk"):
        left = payment.sum - min(skipped, payment.sum)
        skipped -= payment.sum - left
        share = min(left, wanted)
        if share > 0:
            wanted -= share
            yield payment, share
