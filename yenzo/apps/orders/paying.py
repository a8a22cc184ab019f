"""One payment from beginning to end: an order and a way to pay come in, the order as it stands then goes out."""

from yenzo.apps.accounts.rights import SYSTEM_ACTOR, Actor
from yenzo.apps.orders.interface import order_paid
from yenzo.apps.orders.mails import want_order_mails
from yenzo.apps.orders.models import Difference, Order, Payment
from yenzo.apps.orders.payment_gateway import payment_gateway
from yenzo.apps.orders.services.differences import record_given_back, shares_of
from yenzo.apps.orders.services.payments import record_outcome, start_payment
from yenzo.gateways.payment.interface import PaymentSilenceError


def pay_order(actor: Actor, order: Order, way: str, difference: Difference | None = None) -> Order:
    """Pay all of an order, or a difference of it; when the service stays silent it is left for the job to settle."""
    payment = start_payment(actor, order.pk, way, difference.pk if difference else None)
    try:
        outcome = payment_gateway().charge(payment.reference.hex, payment.sum, order.currency, way)
    except PaymentSilenceError:
        order.refresh_from_db()
        return order
    return record_outcome(SYSTEM_ACTOR, payment.pk, outcome)


def tell_paid(order_id: int) -> None:
    """Tell everybody whom it concerns that an order is paid. One who fails doesn't keep it from the others."""
    order = Order.objects.get(pk=order_id)
    want_order_mails(SYSTEM_ACTOR, order, "paid")
    failed = [error for _, error in order_paid.send_robust(Payment, order=order) if error is not None]
    errors = [error for error in failed if isinstance(error, Exception)]
    if errors:
        raise ExceptionGroup(f"What follows from the payment of {order} did not all succeed", errors)


def settle(payment_id: int) -> None:
    """Ask how an open payment ended; raises PaymentSilenceError while nobody knows."""
    payment = Payment.objects.open().filter(pk=payment_id).first()
    if payment is not None:
        record_outcome(SYSTEM_ACTOR, payment.pk, payment_gateway().settle(payment.reference.hex))


def give_back(difference_id: int) -> None:
    """Give an amount back by the payments that it came from; raises PaymentSilenceError while nobody knows."""
    difference = Difference.objects.to_give_back().select_related("order").filter(pk=difference_id).first()
    if difference is None:
        return
    for payment, share in shares_of(difference):
        key = f"{difference.reference.hex}-{payment.pk}"
        payment_gateway().give_back(payment.reference.hex, key, share, difference.order.currency)
    record_given_back(SYSTEM_ACTOR, difference.pk)
