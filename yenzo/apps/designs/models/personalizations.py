"""What a customer wanted of one piece, and what came of it, as it was kept."""

import uuid
from typing import ClassVar, Self

from django.db import models

from yenzo.apps.designs.models.uploads import Upload
from yenzo.apps.files.models import StoredFile
from yenzo.apps.products.models import Revision


class PersonalizationQuerySet(models.QuerySet["Personalization"]):
    def unused(self) -> Self:
        """Return those that no design, no list, no look and no order points to."""
        return self.filter(designs=None, rows=None, looks=None, lines=None, pieces=None, agreements=None, jobs=None)


class Personalization(models.Model):
    """Entries for one revision, and everything that followed from them when they were kept. Nothing of it changes.

    Entries are not known of orders of before they were kept; what followed isn't of anything of before, until it is
    read for the first time.
    """

    id = models.UUIDField(primary_key=True, default=uuid.uuid4, editable=False)
    revision = models.ForeignKey(Revision, on_delete=models.PROTECT, related_name="+")
    # Kept as given beside what was asked of them: a correction asks anew, and may find that something else is asked.
    entries = models.JSONField(null=True, help_text="as the customer gave them")
    asked = models.JSONField(null=True, help_text="what was asked of them")
    record = models.JSONField(null=True, help_text="what followed: texts, sizes, digests, amounts, verdict, engine")
    uploads = models.ManyToManyField(Upload, related_name="personalizations")
    made_at = models.DateTimeField(auto_now_add=True)

    objects = PersonalizationQuerySet.as_manager()

    class Meta:
        constraints: ClassVar = [
            models.CheckConstraint(
                condition=models.Q(entries__isnull=False) | models.Q(asked__isnull=False),
                name="personalization_has_entries_or_what_was_asked",
            ),
        ]

    def __str__(self) -> str:
        return f"{self.revision.name}, {self.id}"


class Proof(models.Model):
    """The picture of one side of a personalization, as it was shown before anybody paid."""

    personalization = models.ForeignKey(Personalization, on_delete=models.CASCADE, related_name="proofs")
    side = models.CharField(max_length=60, help_text="the side's key")
    file = models.ForeignKey(StoredFile, on_delete=models.PROTECT, related_name="+")

    class Meta:
        constraints: ClassVar = [
            models.UniqueConstraint(fields=["personalization", "side"], name="one_proof_a_side"),
        ]

    def __str__(self) -> str:
        return f"{self.side} of {self.personalization_id}"
