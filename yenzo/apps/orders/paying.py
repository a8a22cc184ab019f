"""One payment from beginning to end: an order and a way to pay come in, the order as it stands then goes out."""

from yenzo.apps.accounts.rights import SYSTEM_ACTOR, Actor
from yenzo.apps.orders.models import Order, Payment
from yenzo.apps.orders.outside import payment_gateway
from yenzo.apps.orders.services.payments import record_outcome, start_payment
from yenzo.gateways.payment.interface import PaymentSilenceError


def pay_order(actor: Actor, order: Order, way: str) -> Order:
    """Pay; when the service stays silent the order is left as "payment unknown" for the job to settle."""
    payment = start_payment(actor, order.pk, way)
    try:
        outcome = payment_gateway().charge(payment.reference.hex, order.total, order.currency, way)
    except PaymentSilenceError:
        order.refresh_from_db()
        return order
    return record_outcome(SYSTEM_ACTOR, payment.pk, outcome)


def settle(payment_id: int) -> None:
    """Ask how an open payment ended; raises PaymentSilenceError while nobody knows."""
    payment = Payment.objects.open().filter(pk=payment_id).first()
    if payment is not None:
        record_outcome(SYSTEM_ACTOR, payment.pk, payment_gateway().settle(payment.reference.hex))
