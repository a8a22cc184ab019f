"""What was found of pieces before they are made, and whether they may be."""

from typing import ClassVar, Self

from django.db import models
from django.db.models import Q

from yenzo.apps.accounts.models import Person
from yenzo.apps.designs.models import Personalization
from yenzo.apps.orders.models import Line, Order


class PreflightQuerySet(models.QuerySet["Preflight"]):
    def held(self) -> Self:
        """Return what is held in orders that are still to be made."""
        return self.filter(state=Preflight.State.HELD).exclude(line__order__state=Order.State.CANCELLED)

    def shown(self) -> Self:
        """Return them with what lists show of them."""
        return self.select_related("line__order", "line__revision", "personalization__revision", "held_by")


class Preflight(models.Model):
    """Whether pieces of a line that are alike may be made: held until somebody has looked, released, or cancelled."""

    class State(models.TextChoices):
        HELD = "held", "Held"
        RELEASED = "released", "Released"
        CANCELLED = "cancelled", "Cancelled"

    line = models.ForeignKey(Line, on_delete=models.PROTECT, related_name="preflights")
    index = models.PositiveIntegerField(default=1, help_text="the first of its pieces, counted in the line")
    personalization = models.ForeignKey(
        Personalization, on_delete=models.PROTECT, related_name="preflights", help_text="what was looked at"
    )
    state = models.CharField(max_length=9, choices=State.choices)
    held_why = models.CharField(max_length=300, blank=True, help_text="by hand; empty where its findings hold it")
    held_by = models.ForeignKey(Person, null=True, blank=True, on_delete=models.SET_NULL, related_name="+")
    since = models.DateTimeField(auto_now_add=True, help_text="since when it stands so")

    objects = PreflightQuerySet.as_manager()

    class Meta:
        ordering: ClassVar = ["line", "index"]
        constraints: ClassVar = [
            models.UniqueConstraint(fields=["line", "index"], name="one_preflight_for_pieces_that_are_alike"),
            models.CheckConstraint(condition=Q(held_why="") | Q(state="held"), name="only_held_pieces_say_why"),
        ]

    def __str__(self) -> str:
        return self.piece

    @property
    def piece(self) -> str:
        """What its pieces are called on tickets."""
        return f"{self.line}.{self.index}" if self.line.is_list else str(self.line)

    @property
    def is_cancelled(self) -> bool:
        """Whether it isn't to be made at all."""
        return self.state == self.State.CANCELLED

    @property
    def is_held(self) -> bool:
        """Whether it isn't to be made yet."""
        return self.state == self.State.HELD


class Finding(models.Model):
    """Something that was found of pieces, where, and by how much; waived by whom and why, if it may stay."""

    preflight = models.ForeignKey(Preflight, on_delete=models.CASCADE, related_name="findings")
    personalization = models.ForeignKey(Personalization, on_delete=models.PROTECT, related_name="findings")
    code = models.CharField(max_length=40)
    field = models.CharField(max_length=80, blank=True)
    message = models.TextField(help_text="in the workshop's own language")
    blocks = models.BooleanField()
    side = models.CharField(max_length=80, blank=True)
    area = models.CharField(max_length=80, blank=True)
    box_mm = models.JSONField(null=True, help_text="left, top, right, bottom on its side")
    measured = models.FloatField(null=True)
    limit = models.FloatField(null=True)
    needs_file = models.BooleanField(default=False, help_text="only a better file of the customer's mends it")
    waived_by = models.CharField(max_length=120, blank=True)
    waived_at = models.DateTimeField(null=True, blank=True)
    waived_why = models.CharField(max_length=300, blank=True)

    class Meta:
        ordering: ClassVar = ["pk"]
        constraints: ClassVar = [
            models.CheckConstraint(
                condition=Q(waived_at=None) | ~(Q(waived_by="") | Q(waived_why="")), name="waiver_says_who_and_why"
            ),
        ]

    def __str__(self) -> str:
        return f"{self.code} of {self.preflight}"

    @property
    def is_waived(self) -> bool:
        """Whether it may stay as it is."""
        return self.waived_at is not None

    @property
    def mender(self) -> str:
        """Who can mend it."""
        return "the customer, by a better file" if self.needs_file else "the desk, or the customer"
