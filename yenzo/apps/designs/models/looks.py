"""Looks: what a visitor shows to others, or to themselves on another machine, by a link."""

import secrets
from typing import ClassVar, Self

from django.db import models

from yenzo.apps.designs.models.designs import Design
from yenzo.apps.designs.models.lists import NameList
from yenzo.apps.designs.models.personalizations import Personalization

TOKEN_BYTES = 24


def new_token() -> str:
    """Return the unguessable part of a look's address."""
    return secrets.token_urlsafe(TOKEN_BYTES)


class LookQuerySet(models.QuerySet["Look"]):
    def active(self) -> Self:
        """Return the looks that can be looked at."""
        return self.filter(withdrawn_at=None).select_related(
            "personalization__revision__product__live", "names__revision__product__live", "design"
        )


class Look(models.Model):
    """A design as it was when it was shown, or a list as it is: whoever has the link sees it and may begin from it.

    What others begin is a copy: nobody with the link changes what it shows.
    """

    token = models.CharField(max_length=64, unique=True, default=new_token)
    visitor = models.UUIDField(db_index=True)
    design = models.ForeignKey(Design, null=True, blank=True, on_delete=models.CASCADE, related_name="looks")
    personalization = models.ForeignKey(
        Personalization, null=True, blank=True, on_delete=models.PROTECT, related_name="looks"
    )
    names = models.ForeignKey(NameList, null=True, blank=True, on_delete=models.CASCADE, related_name="looks")
    # Mailed to oneself it shows no mark over the goods; it is meant for nobody else.
    is_shared = models.BooleanField(default=True)
    mail = models.EmailField(blank=True, help_text="where its link was mailed to, if so")
    language = models.CharField(max_length=20)
    made_at = models.DateTimeField(auto_now_add=True)
    withdrawn_at = models.DateTimeField(null=True, blank=True)

    objects = LookQuerySet.as_manager()

    class Meta:
        constraints: ClassVar = [
            models.CheckConstraint(
                condition=models.Q(personalization__isnull=False, design__isnull=False, names=None)
                | models.Q(personalization=None, design=None, names__isnull=False),
                name="look_is_of_a_design_or_of_a_list",
            ),
        ]

    def __str__(self) -> str:
        return f"Look of {self.made_at:%Y-%m-%d %H:%M}"
