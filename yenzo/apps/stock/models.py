"""Stock: how many are left, by SKU. What isn't counted has no row."""

from typing import ClassVar, Self

from django.db import models
from django.db.models import Q

from yenzo.apps.workshop.current import current_workshop


class StockQuerySet(models.QuerySet["StockItem"]):
    def low(self) -> Self:
        """Return what so few are left of that the workshop wants to know."""
        return self.filter(pieces__lte=current_workshop().low_stock)


class StockItem(models.Model):
    """So many are left of what goes by a SKU: goods, their variants, extras."""

    sku = models.CharField(max_length=60, unique=True)
    pieces = models.IntegerField()
    changed_at = models.DateTimeField(auto_now=True)

    objects = StockQuerySet.as_manager()

    class Meta:
        ordering: ClassVar = ["sku"]
        constraints: ClassVar = [models.CheckConstraint(condition=Q(pieces__gte=0), name="stock_is_not_negative")]

    def __str__(self) -> str:
        return f"{self.sku}: {self.pieces}"
