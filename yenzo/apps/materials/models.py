"""Materials that drafts use: methods, palettes, typefaces and word lists, each a small document of the core."""

from typing import ClassVar

from django.db import models


class Material(models.Model):
    class Kind(models.TextChoices):
        METHOD = "methods", "Method"
        PALETTE = "palettes", "Palette"
        TYPEFACE = "typefaces", "Typeface"
        WORD_LIST = "word_lists", "Word list"
        COLLECTION = "collections", "Collection"

    kind = models.CharField(max_length=12, choices=Kind.choices)
    key = models.SlugField(max_length=60)
    document = models.JSONField()

    class Meta:
        ordering: ClassVar = ["kind", "key"]
        constraints: ClassVar = [
            models.UniqueConstraint(fields=["kind", "key"], name="material_key_is_unique_in_its_kind"),
        ]

    def __str__(self) -> str:
        return f"{self.kind}/{self.key}"
