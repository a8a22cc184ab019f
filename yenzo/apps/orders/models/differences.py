"""What an order came to cost more or less after it was paid."""

import uuid
from typing import ClassVar, Self

from django.db import models
from django.db.models import Q

from yenzo.apps.orders.models.orders import Line, Order


class DifferenceQuerySet(models.QuerySet["Difference"]):
    def to_give_back(self) -> Self:
        """Return what is still to be given back."""
        return self.filter(state=Difference.State.OPEN, amount__lt=0)

    def to_pay(self) -> Self:
        """Return what is still to be paid."""
        return self.filter(state=Difference.State.OPEN, amount__gt=0)


class Difference(models.Model):
    """An amount beside an order's total: more to be paid, or (less than 0) to be given back."""

    class State(models.TextChoices):
        OPEN = "open"
        SETTLED = "settled"
        WAIVED = "waived"

    order = models.ForeignKey(Order, on_delete=models.PROTECT, related_name="differences")
    line = models.ForeignKey(Line, null=True, blank=True, on_delete=models.PROTECT, related_name="differences")
    reference = models.UUIDField(unique=True, default=uuid.uuid4, editable=False, help_text="settled once by this")
    amount = models.DecimalField(max_digits=12, decimal_places=3)
    why = models.CharField(max_length=300)
    state = models.CharField(max_length=10, choices=State.choices, default=State.OPEN)
    noted_at = models.DateTimeField(auto_now_add=True)
    settled_at = models.DateTimeField(null=True, blank=True)

    objects = DifferenceQuerySet.as_manager()

    class Meta:
        ordering: ClassVar = ["pk"]
        constraints: ClassVar = [
            models.CheckConstraint(condition=~Q(amount=0), name="difference_is_one"),
            models.CheckConstraint(
                condition=~Q(state="settled") | Q(settled_at__isnull=False), name="settled_difference_says_when"
            ),
        ]

    def __str__(self) -> str:
        return f"{self.amount} of {self.order}"

    @property
    def is_payable(self) -> bool:
        """Whether it is to be paid and no payment of it is under way."""
        return self.amount > 0 and self.state == self.State.OPEN and not self.payments.filter(state="started").exists()

    @property
    def is_waived(self) -> bool:
        """Whether nobody pays it, one way or the other."""
        return self.state == self.State.WAIVED

    @property
    def is_to_pay(self) -> bool:
        """Whether it is still to be paid."""
        return self.amount > 0 and self.state == self.State.OPEN
