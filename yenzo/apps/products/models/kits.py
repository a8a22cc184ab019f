"""Kits and who uses them. A kit is a product that isn't sold: its lines are edited and published in the same way."""

from typing import ClassVar

from django.db import models
from django.db.models import Q

from yenzo.apps.products.models.products import Product


class KitScope(models.Model):
    """Which products use a kit: picked ones, a category, or all; a kit with a lower position stands first."""

    class Reach(models.TextChoices):
        PICKED = "picked", "Picked products"
        CATEGORY = "category", "All of a category"
        ALL = "all", "All products"

    kit = models.OneToOneField(Product, on_delete=models.CASCADE, related_name="scope")
    reach = models.CharField(max_length=10, choices=Reach.choices, default=Reach.PICKED)
    category = models.CharField(max_length=60, blank=True)
    only_signed_in = models.BooleanField(default=False, help_text="asked of customers who are signed in")
    position = models.PositiveIntegerField(default=0)

    class Meta:
        ordering: ClassVar = ["position", "kit__name"]
        constraints: ClassVar = [
            models.CheckConstraint(
                condition=~Q(reach="category") | ~Q(category=""), name="kit_of_a_category_names_one"
            ),
        ]

    def __str__(self) -> str:
        return f"{self.kit}: {self.get_reach_display()}"


class KitMember(models.Model):
    """A product that uses a kit by being picked, or doesn't though it would; and what is otherwise in it."""

    kit = models.ForeignKey(Product, on_delete=models.CASCADE, related_name="members")
    product = models.ForeignKey(Product, on_delete=models.CASCADE, related_name="kit_members")
    is_excluded = models.BooleanField(default=False)
    is_picked = models.BooleanField(default=False)
    variants = models.JSONField(default=list, help_text="keys of the variants it is for; none: all")
    overrides = models.JSONField(default=list, help_text="what is otherwise than in the kit")

    class Meta:
        constraints: ClassVar = [
            models.UniqueConstraint(fields=["kit", "product"], name="kit_has_a_product_once"),
        ]

    def __str__(self) -> str:
        return f"{self.kit} in {self.product}"
