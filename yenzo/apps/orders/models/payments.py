"""Attempts to pay an order."""

import uuid
from decimal import Decimal
from typing import ClassVar, Self

from django.db import models
from django.db.models import Q

from yenzo.apps.orders.models.differences import Difference
from yenzo.apps.orders.models.orders import Order


class PaymentQuerySet(models.QuerySet["Payment"]):
    def open(self) -> Self:
        """Return the attempts whose end isn't known."""
        return self.filter(state=Payment.State.STARTED)


class Payment(models.Model):
    """One attempt to pay an order, or a difference of it.

    The database holds at most one of each that is open or approved: nobody pays twice.
    """

    class State(models.TextChoices):
        STARTED = "started"
        APPROVED = "approved"
        DECLINED = "declined"

    order = models.ForeignKey(Order, on_delete=models.PROTECT, related_name="payments")
    difference = models.ForeignKey(
        Difference, null=True, blank=True, on_delete=models.PROTECT, related_name="payments", help_text="else all of it"
    )
    amount = models.DecimalField(max_digits=12, decimal_places=3, null=True, help_text="the total, of those of before")
    reference = models.UUIDField(unique=True, default=uuid.uuid4, editable=False)
    way = models.CharField(max_length=40)
    state = models.CharField(max_length=10, choices=State.choices, default=State.STARTED)
    started_at = models.DateTimeField(auto_now_add=True)
    ended_at = models.DateTimeField(null=True, blank=True)

    objects = PaymentQuerySet.as_manager()

    class Meta:
        constraints: ClassVar = [
            models.UniqueConstraint(
                fields=["order"],
                condition=Q(state__in=("started", "approved"), difference=None),
                name="order_has_one_payment_open_or_approved",
            ),
            models.UniqueConstraint(
                fields=["difference"],
                condition=Q(state__in=("started", "approved"), difference__isnull=False),
                name="difference_has_one_payment_open_or_approved",
            ),
        ]

    def __str__(self) -> str:
        return f"{self.order}, {self.way}, {self.state}"

    @property
    def sum(self) -> Decimal:
        """How much is paid by it."""
        return self.order.total if self.amount is None else self.amount
