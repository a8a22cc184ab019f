"""Links that customers sign in with."""

import uuid
from datetime import timedelta

from django.db import models
from django.utils import timezone

LINK_LASTS = timedelta(hours=1)


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
