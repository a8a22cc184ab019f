"""Groups: lists of names that members fill in themselves, each with their own piece."""

import secrets
from typing import ClassVar

from django.db import models
from django.utils import timezone

TOKEN_BYTES = 24


def new_token() -> str:
    """Return the unguessable part of a group page's address."""
    return secrets.token_urlsafe(TOKEN_BYTES)


class Group(models.Model):
    """What an organiser lets others order: until when, who pays, and where it goes. Its goods are lists of names."""

    class Pays(models.TextChoices):
        ORGANISER = "organiser"
        EACH = "each"

    class Goes(models.TextChoices):
        TOGETHER = "together"
        EACH = "each"

    token = models.CharField(max_length=64, unique=True, default=new_token)
    visitor = models.UUIDField(db_index=True, help_text="who organises it")
    title = models.CharField(max_length=120)
    organiser = models.CharField(max_length=120, help_text="as members know them")
    closes_on = models.DateField(help_text="the last day on which members order")
    pays = models.CharField(max_length=10, choices=Pays.choices)
    goes = models.CharField(max_length=10, choices=Goes.choices)
    made_at = models.DateTimeField(auto_now_add=True)

    class Meta:
        constraints: ClassVar = [
            models.CheckConstraint(
                condition=~models.Q(pays="organiser", goes="each"), name="what_one_pays_goes_to_one"
            ),
        ]

    def __str__(self) -> str:
        return self.title

    @property
    def is_open(self) -> bool:
        """Whether members can still order."""
        return timezone.localdate() <= self.closes_on

    @property
    def each_pays(self) -> bool:
        """Whether each member pays for themselves."""
        return self.pays == self.Pays.EACH
