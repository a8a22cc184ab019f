"""Jobs of orders. Arguments are ids only; each may run twice without harm."""

from procrastinate import RetryStrategy
from procrastinate.contrib.django import app

from yenzo.apps.accounts.rights import SYSTEM_ACTOR
from yenzo.apps.designs.personalized import proof_of
from yenzo.apps.orders.models import Order
from yenzo.apps.orders.paying import give_back, settle
from yenzo.apps.orders.paying import tell_paid as tell
from yenzo.apps.orders.services.differences import GIVING_BACK, look_after_differences
from yenzo.apps.orders.services.orders import DRAWING
from yenzo.apps.orders.services.payments import SETTLING, look_after_payments
from yenzo.apps.orders.showing import ShownLine
from yenzo.apps.outbox.orphaned_jobs import grace_cutoff

# The payment service may be away for a while: 2, 4, 8 … seconds, for about a day in all.
PATIENT = RetryStrategy(max_attempts=16, exponential_wait=2)


@app.task(name="orders.tell_paid", retry=PATIENT)
def tell_paid(*, order_id: int) -> None:
    """Have the mails and the packs of a paid order made."""
    tell(order_id)


@app.task(name=DRAWING, retry=PATIENT)
def draw_proofs(*, order_id: int) -> None:
    """Draw and keep the pictures of what was agreed to, as far as they weren't kept yet."""
    order = Order.objects.get(pk=order_id)
    for line in order.lines.select_related("order", "revision", "personalization__revision"):
        for piece in ShownLine(line).pieces:
            for side in piece.recorded.sides:
                proof_of(piece.personalization, side.key)


@app.periodic(cron="* * * * *")
@app.task(name="orders.look_after_payments", queueing_lock="look_after_payments")
def look_after(timestamp: int) -> None:  # noqa: ARG001 - periodic tasks get their time
    """Have payments settled, and amounts given back, whose job failed when nobody could write that down."""
    look_after_payments(SYSTEM_ACTOR, grace_cutoff())
    look_after_differences(SYSTEM_ACTOR, grace_cutoff())


@app.task(name=SETTLING, retry=PATIENT)
def settle_payment(*, payment_id: int) -> None:
    """Find out how a payment ended that had no answer."""
    settle(payment_id)


@app.task(name=GIVING_BACK, retry=PATIENT)
def give_amount_back(*, difference_id: int) -> None:
    """Give back what an order costs less than was paid."""
    give_back(difference_id)
