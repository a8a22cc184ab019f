"""What a customer keeps of one product: in the basket, or out of it again."""

import uuid
from typing import ClassVar, Self

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

    def of_visitor(self, visitor: uuid.UUID) -> Self:
        """Return what this visitor has and may change: nothing that was ordered or thrown away."""
        return self.filter(visitor=visitor, ordered_at=None, thrown_away_at=None)

    def taken_out_by(self, visitor: uuid.UUID) -> Self:
        """Return what this visitor has that doesn't lie in the basket."""
        return self.of_visitor(visitor).filter(in_basket=False)

    def for_list(self, visitor: uuid.UUID) -> Self:
        """Return all designs of this visitor that weren't thrown away, the latest first."""
        own = self.filter(visitor=visitor, thrown_away_at=None)
        return own.select_related("personalization__revision__product__live").order_by("-changed_at")


class Design(models.Model):
    """A visitor's piece as it stands now: a change makes another personalization of it."""

    id = models.UUIDField(primary_key=True, default=uuid.uuid4, editable=False)
    visitor = models.UUIDField(db_index=True)
    personalization = models.ForeignKey(Personalization, on_delete=models.PROTECT, related_name="designs")
    name = models.CharField(max_length=120, blank=True, help_text="what its visitor calls it")
    # Taken out of a basket it isn't deleted: an order in another window may be on its way with it.
    in_basket = models.BooleanField(default=True)
    ordered_at = models.DateTimeField(null=True, blank=True)
    thrown_away_at = models.DateTimeField(null=True, blank=True)
    # Another revision is live by now, and the customer has seen it: the piece is to stay as it is.
    kept_against = models.ForeignKey(Revision, on_delete=models.SET_NULL, null=True, blank=True, related_name="+")
    created_at = models.DateTimeField(auto_now_add=True)
    changed_at = models.DateTimeField(auto_now=True)

    objects = DesignQuerySet.as_manager()

    class Meta:
        constraints: ClassVar = [
            models.CheckConstraint(
                condition=models.Q(in_basket=False) | models.Q(ordered_at=None, thrown_away_at=None),
                name="what_lies_in_a_basket_is_neither_ordered_nor_thrown_away",
            ),
        ]

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
