"""What other apps may listen to."""

from django.dispatch import Signal

# Sent by a job after an order was marked as paid, with `order`; again for as long as a receiver fails.
order_paid = Signal()
# Sent within the change that cancels an order, with `order`.
order_cancelled = Signal()
