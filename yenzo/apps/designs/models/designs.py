"""What a customer keeps of one product: in the basket, or out of it again."""

import uuid
from typing import Self

from django.db import models

from yenzo.apps.designs.models.personalizations import Personalization
from yenzo.apps.products.models import Revision


class DesignQuerySet(models.QuerySet["Design"]):
    def in_basket_of(self, visitor: uuid.UUID) -> Self:
        """Return what lies in this visitor's basket, oldest first."""
        return (
            self.filter(visitor=visitor, in_basket=True)
            .select_related("personalization__revision__product__live")
            .prefetch_related("personalization__uploads")
            .order_by("created_at")
        )

    def taken_out_by(self, visitor: uuid.UUID) -> Self:
        """Return what this visitor has taken out of the basket, or ordered."""
        return self.filter(visitor=visitor, in_basket=False)


class Design(models.Model):
    """A visitor's piece as it stands now: a change makes another personalization of it."""

    id = models.UUIDField(primary_key=True, default=uuid.uuid4, editable=False)
    visitor = models.UUIDField(db_index=True)
    personalization = models.ForeignKey(Personalization, on_delete=models.PROTECT, related_name="designs")
    # Taken out of a basket it isn't deleted: an order in another window may be on its way with it.
    in_basket = models.BooleanField(default=True)
    # Another revision is live by now, and the customer has seen it: the piece is to stay as it is.
    kept_against = models.ForeignKey(Revision, on_delete=models.SET_NULL, null=True, blank=True, related_name="+")
    created_at = models.DateTimeField(auto_now_add=True)
    changed_at = models.DateTimeField(auto_now=True)

    objects = DesignQuerySet.as_manager()

    def __str__(self) -> str:
        return f"{self.revision.name}, {self.id}"

    @property
    def revision(self) -> Revision:
        """The revision that it was made with."""
        return self.personalization.revision

    @property
    def product_key(self) -> str:
        """What identifies its product among others, in whichever revision."""
        return str(self.revision.product_id)
