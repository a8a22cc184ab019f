"""Jobs of orders. Arguments are ids only; each may run twice without harm."""

from procrastinate import RetryStrategy
from procrastinate.contrib.django import app

from yenzo.apps.orders.mails import send_mails
from yenzo.apps.orders.paying import settle

# The post and the payment service may be away for a while: 2, 4, 8 … seconds, for about a day in all.
PATIENT = RetryStrategy(max_attempts=16, exponential_wait=2)


@app.task(name="orders.send_order_mails", retry=PATIENT)
def send_order_mails(*, order_id: int, occasion: str) -> None:
    """Send the mails of an occasion ("placed", "paid") to customer and workshop."""
    send_mails(order_id, occasion)


@app.task(name="orders.settle_payment", retry=PATIENT)
def settle_payment(*, payment_id: int) -> None:
    """Find out how a payment ended that had no answer."""
    settle(payment_id)
