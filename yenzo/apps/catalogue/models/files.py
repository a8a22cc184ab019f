"""Stored files: content-addressed and shared; the right to see one is never derived from its hash."""

from typing import ClassVar

from django.db import models


class StoredFile(models.Model):
    """A file by its content's SHA-256. Public are goods' pictures only, made by the core from a seller's upload."""

    sha256 = models.CharField(primary_key=True, max_length=64)
    size_bytes = models.PositiveBigIntegerField()
    path = models.CharField(max_length=200, help_text="in the default storage")
    is_public = models.BooleanField(default=False)
    created_at = models.DateTimeField(auto_now_add=True)

    class Meta:
        constraints: ClassVar = [
            models.CheckConstraint(condition=models.Q(sha256__regex="^[0-9a-f]{64}$"), name="stored_file_sha256_is_one")
        ]

    def __str__(self) -> str:
        return self.sha256[:12]
