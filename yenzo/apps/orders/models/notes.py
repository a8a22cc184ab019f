"""What customer and workshop write to each other about an order, with files that came later."""

from typing import ClassVar, Self

from django.db import models

from yenzo.apps.accounts.models import Person
from yenzo.apps.files.models import StoredFile
from yenzo.apps.orders.models.orders import Order


class OrderNoteQuerySet(models.QuerySet["OrderNote"]):
    def for_customer(self) -> Self:
        """Return what the customer may read."""
        return self.filter(is_inward=False)


class OrderNote(models.Model):
    """A message about an order, from its customer or from the workshop; never changed."""

    order = models.ForeignKey(Order, on_delete=models.CASCADE, related_name="notes")
    at = models.DateTimeField(auto_now_add=True)
    person = models.ForeignKey(Person, null=True, blank=True, on_delete=models.PROTECT, related_name="+")
    is_inward = models.BooleanField(default=False, help_text="for the workshop only")
    text = models.TextField(blank=True, max_length=4000)
    file = models.ForeignKey(StoredFile, null=True, blank=True, on_delete=models.PROTECT, related_name="+")
    file_name = models.CharField(max_length=200, blank=True)
    # Buttons are pressed twice: the same message is kept once.
    sent_as = models.UUIDField(unique=True)

    objects = OrderNoteQuerySet.as_manager()

    class Meta:
        ordering: ClassVar = ["at", "pk"]
        constraints: ClassVar = [
            models.CheckConstraint(
                condition=~models.Q(text="") | models.Q(file__isnull=False), name="note_says_something"
            ),
        ]

    def __str__(self) -> str:
        return f"Note {self.pk} of {self.order}"

    @property
    def is_from_workshop(self) -> bool:
        """Whether the workshop wrote it."""
        return self.person_id is not None
