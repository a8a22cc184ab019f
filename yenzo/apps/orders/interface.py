"""What other apps may listen to."""

from django.dispatch import Signal

# Sent inside the transaction that marks an order as paid, with `order`.
order_paid = Signal()
