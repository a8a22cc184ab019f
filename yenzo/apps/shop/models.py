"""Customers who sign in: their links, and whose designs are whose."""

import uuid
from datetime import timedelta

from django.db import models
from django.utils import timezone

LINK_LASTS = timedelta(hours=1)


class CustomerDesigns(models.Model):
    """Whose designs are whose: a customer who signed in finds theirs on every machine."""

    mail = models.CharField(max_length=320, unique=True, help_text="the address as it is compared")
    visitor = models.UUIDField(unique=True)
    since = models.DateTimeField(auto_now_add=True)

    def __str__(self) -> str:
        return f"Designs of customer {self.pk}"


class SignInLink(models.Model):
    """A link that was mailed to a customer. Whoever reads that mailbox may sign in with it, once."""

    id = models.UUIDField(primary_key=True, default=uuid.uuid4, editable=False)
    mail = models.EmailField()
    language = models.CharField(max_length=20)
    asked_at = models.DateTimeField(auto_now_add=True)
    used_at = models.DateTimeField(null=True)

    def __str__(self) -> str:
        return f"Link of {self.asked_at:%Y-%m-%d %H:%M}"

    @property
    def is_good(self) -> bool:
        """Whether it can still be used."""
        return self.used_at is None and timezone.now() - self.asked_at < LINK_LASTS
