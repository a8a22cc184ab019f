"""What pieces were before and after they were changed: by the desk, or by an answer of their customer."""

from typing import ClassVar

from django.db import models

from yenzo.apps.designs.models import Personalization
from yenzo.apps.desk.models.preflights import Preflight
from yenzo.apps.orders.models import Difference


class Change(models.Model):
    """Pieces that were changed after they were ordered: from which personalization to which, by whom, why."""

    preflight = models.ForeignKey(Preflight, on_delete=models.PROTECT, related_name="changes")
    before = models.ForeignKey(Personalization, on_delete=models.PROTECT, related_name="changed_to")
    after = models.ForeignKey(Personalization, on_delete=models.PROTECT, related_name="changed_from")
    who = models.CharField(max_length=120)
    why = models.CharField(max_length=300)
    difference = models.ForeignKey(
        Difference,
        null=True,
        blank=True,
        on_delete=models.PROTECT,
        related_name="+",
        help_text="none for no other price",
    )
    at = models.DateTimeField(auto_now_add=True)
    # Buttons are pressed twice: the same change is made once.
    sent_as = models.UUIDField(unique=True)

    class Meta:
        ordering: ClassVar = ["pk"]

    def __str__(self) -> str:
        return f"{self.preflight} changed: {self.why}"
