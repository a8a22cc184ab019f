"""Stored files: content-addressed and shared; the right to see one is never derived from its hash."""

from typing import ClassVar, Self

from django.db import models
from django.utils import timezone


class StoredFile(models.Model):
    """A file by its content's SHA-256. Public are goods' pictures only, made by the core from a seller's upload."""

    sha256 = models.CharField(primary_key=True, max_length=64)
    size_bytes = models.PositiveBigIntegerField()
    path = models.CharField(max_length=200, help_text="in the default storage")
    is_public = models.BooleanField(default=False)
    created_at = models.DateTimeField(auto_now_add=True)
    kept_at = models.DateTimeField(default=timezone.now, help_text="when somebody last wanted it kept")

    class Meta:
        constraints: ClassVar = [
            models.CheckConstraint(condition=models.Q(sha256__regex="^[0-9a-f]{64}$"), name="stored_file_sha256_is_one")
        ]

    def __str__(self) -> str:
        return self.sha256[:12]


class FileTroubleQuerySet(models.QuerySet["FileTrouble"]):
    def unresolved(self) -> Self:
        """Return what is still wrong, the oldest first."""
        return self.filter(mended_at=None).select_related("file").order_by("found_at")


class FileTrouble(models.Model):
    """A stored file that the check found missing or damaged, until it is found whole again."""

    file = models.ForeignKey(StoredFile, on_delete=models.CASCADE, related_name="troubles")
    what = models.CharField(max_length=200)
    found_at = models.DateTimeField(auto_now_add=True)
    mended_at = models.DateTimeField(null=True, blank=True)

    objects = FileTroubleQuerySet.as_manager()

    class Meta:
        constraints: ClassVar = [
            models.UniqueConstraint(
                fields=["file"], condition=models.Q(mended_at=None), name="file_has_one_standing_trouble"
            )
        ]

    def __str__(self) -> str:
        return f"{self.file}: {self.what}"


class NightlyRun(models.Model):
    """One run of the check or of the clearing: when, and what came of it."""

    class Kind(models.TextChoices):
        CHECK = "check", "Files checked"
        CLEARING = "clearing", "Cleared"

    kind = models.CharField(max_length=10, choices=Kind.choices)
    began_at = models.DateTimeField(auto_now_add=True)
    counts = models.JSONField(default=dict, help_text="by what was looked at or cleared")

    class Meta:
        ordering: ClassVar = ["-began_at"]

    def __str__(self) -> str:
        return f"{self.get_kind_display()} {self.began_at:%Y-%m-%d %H:%M}"
