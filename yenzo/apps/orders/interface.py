"""What other apps may listen to."""

from django.dispatch import Signal

# Sent by a job after an order was marked as paid, with `order`; again for as long as a receiver fails.
order_paid = Signal()
# Sent within the change that cancels an order, with `order`.
order_cancelled = Signal()
# Sent within a change of how an order stands, with `order`: of its payment, of what it costs more, of its state.
order_changed = Signal()
