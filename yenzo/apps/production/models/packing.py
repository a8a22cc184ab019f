"""Where made pieces are gathered, and the parcels that they leave in."""

import uuid
from typing import ClassVar, Self

from django.db import models
from django.db.models import Q

from yenzo.apps.accounts.models import Person
from yenzo.apps.files.models import StoredFile
from yenzo.apps.orders.models import Line, Order


class RackPlace(models.Model):
    """A numbered place in the rack that the made pieces of an order lie in until all of them are sent."""

    order = models.OneToOneField(Order, on_delete=models.PROTECT, related_name="rack_place")
    number = models.PositiveSmallIntegerField(unique=True)

    class Meta:
        constraints: ClassVar = [
            models.CheckConstraint(condition=Q(number__gte=1), name="rack_places_are_counted_from_one"),
        ]

    def __str__(self) -> str:
        return f"Rack {self.number}"


class ParcelQuerySet(models.QuerySet["Parcel"]):
    def on_the_way(self) -> Self:
        """Return the parcels that a carrier has and didn't say of that they were delivered."""
        return self.exclude(sent_at=None).exclude(label=None).filter(delivered_at=None)


class Parcel(models.Model):
    """A parcel of an order: being packed until it is sent, and how it is found on its way."""

    order = models.ForeignKey(Order, on_delete=models.PROTECT, related_name="parcels")
    reference = models.UUIDField(unique=True, default=uuid.uuid4, editable=False, help_text="booked once by this")
    carrier = models.CharField(max_length=80, blank=True)
    number = models.CharField(max_length=80, blank=True)
    label = models.ForeignKey(
        StoredFile, null=True, blank=True, on_delete=models.PROTECT, related_name="+", help_text="of a booked one"
    )
    person = models.ForeignKey(Person, null=True, on_delete=models.SET_NULL, related_name="+")
    sent_at = models.DateTimeField(null=True, blank=True)
    delivered_at = models.DateTimeField(null=True, blank=True)

    objects = ParcelQuerySet.as_manager()

    class Meta:
        ordering: ClassVar = ["pk"]
        constraints: ClassVar = [
            models.UniqueConstraint(
                fields=["order"], condition=Q(sent_at=None), name="order_has_one_parcel_being_packed"
            ),
            models.CheckConstraint(
                condition=Q(delivered_at=None) | Q(sent_at__isnull=False), name="delivered_parcel_was_sent"
            ),
        ]

    def __str__(self) -> str:
        return f"Parcel of {self.order}"

    @property
    def pieces(self) -> int:
        """How many pieces lie in it."""
        return sum(item.quantity for item in self.items.all())


class ParcelItem(models.Model):
    """Pieces that are alike in a parcel: checked by their ticket, and how many."""

    parcel = models.ForeignKey(Parcel, on_delete=models.CASCADE, related_name="items")
    line = models.ForeignKey(Line, on_delete=models.PROTECT, related_name="parcel_items")
    index = models.PositiveIntegerField(help_text="the first of its pieces, counted in the line")
    quantity = models.PositiveIntegerField()

    class Meta:
        ordering: ClassVar = ["line", "index"]
        constraints: ClassVar = [
            models.UniqueConstraint(fields=["parcel", "line", "index"], name="pieces_lie_in_a_parcel_once"),
            models.CheckConstraint(condition=Q(quantity__gte=1), name="parcel_items_are_pieces"),
        ]

    def __str__(self) -> str:
        return f"{self.quantity} × {self.line}.{self.index}"
