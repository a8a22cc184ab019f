"""Mails that go out."""

from datetime import timedelta
from typing import Self

from django.db import models
from django.utils import timezone


class OutgoingMailQuerySet(models.QuerySet["OutgoingMail"]):
    def stuck(self) -> Self:
        """Return the mails that staff have to look at."""
        return self.filter(state__in=(OutgoingMail.State.FAILED, OutgoingMail.State.HELD))

    def sent_lately_to(self, identity: str) -> Self:
        """Return the mails of the last hour that went to one recipient without having been asked for."""
        since = timezone.now() - timedelta(hours=1)
        return self.filter(to_identity=identity, is_counted=True, sent_at__gte=since)


class OutgoingMail(models.Model):
    """A mail from being wanted to being sent. What it says is written when it is sent; its key names it for good."""

    class State(models.TextChoices):
        WAITING = "waiting", "On its way"
        SENT = "sent", "Sent"
        FAILED = "failed", "Could not be sent"
        HELD = "held", "Held back"

    key = models.CharField(max_length=100, unique=True)
    writer = models.CharField(max_length=40)
    about = models.CharField(max_length=60, help_text="the id of what it is about")
    to = models.EmailField()
    to_identity = models.CharField(max_length=320, db_index=True)
    is_counted = models.BooleanField(default=False, help_text="whether its recipient's mails are counted")
    state = models.CharField(max_length=8, choices=State.choices, default=State.WAITING)
    trouble = models.CharField(max_length=300, blank=True)
    wanted_at = models.DateTimeField(auto_now_add=True)
    sent_at = models.DateTimeField(null=True, blank=True)

    objects = OutgoingMailQuerySet.as_manager()

    def __str__(self) -> str:
        return self.key
