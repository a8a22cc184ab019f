"""What a visitor has begun to enter for a product and hasn't put in the basket."""

from typing import ClassVar

from django.db import models

from yenzo.apps.designs.models.designs import Design
from yenzo.apps.products.models import Product


class UnfinishedEntries(models.Model):
    """The form of a product's page as it stood last, so that Back, a reload or another day find it again.

    It is kept as it was sent, whether or not it can be used: what is typed is nobody's to judge yet.
    """

    visitor = models.UUIDField()
    product = models.ForeignKey(Product, on_delete=models.CASCADE, related_name="+")
    design = models.ForeignKey(
        Design,
        null=True,
        on_delete=models.CASCADE,
        related_name="+",
        help_text="what lies in the basket and is changed",
    )
    form = models.TextField(help_text="as browsers encode forms")
    changed_at = models.DateTimeField(auto_now=True)

    class Meta:
        constraints: ClassVar = [
            models.UniqueConstraint(
                fields=["visitor", "product", "design"], name="one_unfinished_form_each", nulls_distinct=False
            ),
        ]

    def __str__(self) -> str:
        return f"{self.product}, begun"
