"""A customer's saved entries for one product."""

import uuid
from typing import Self

from django.db import models

from yenzo.apps.catalogue.models import Revision
from yenzo.apps.designs.models.uploads import Upload


class DesignQuerySet(models.QuerySet["Design"]):
    def in_basket_of(self, visitor: uuid.UUID) -> Self:
        """Return what lies in this visitor's basket, oldest first."""
        return (
            self.filter(visitor=visitor, in_basket=True)
            .select_related("revision__product__live")
            .prefetch_related("uploads")
            .order_by("created_at")
        )


class Design(models.Model):
    """Entries pinned to the revision that they were made with, and the uploads that they use."""

    id = models.UUIDField(primary_key=True, default=uuid.uuid4, editable=False)
    visitor = models.UUIDField(db_index=True)
    revision = models.ForeignKey(Revision, on_delete=models.PROTECT, related_name="+")
    entries = models.JSONField()
    uploads = models.ManyToManyField(Upload, related_name="designs")
    in_basket = models.BooleanField(default=True)
    created_at = models.DateTimeField(auto_now_add=True)
    changed_at = models.DateTimeField(auto_now=True)

    objects = DesignQuerySet.as_manager()

    def __str__(self) -> str:
        return f"{self.revision.name}, {self.id}"

    @property
    def product_key(self) -> str:
        """What identifies its product among others, in whichever revision."""
        return str(self.revision.product_id)
