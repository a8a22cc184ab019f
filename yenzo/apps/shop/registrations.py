"""How long the shop keeps the links that customers signed in with."""

from datetime import datetime

from django.db.models import QuerySet

from yenzo.apps.files.interface import RetainedKind, register_retention
from yenzo.apps.shop.models import SignInLink


def _old_links(before: datetime) -> QuerySet[SignInLink]:
    return SignInLink.objects.filter(asked_at__lt=before)


def register() -> None:
    """Say so."""
    register_retention(
        RetainedKind(
            "links",
            "Links that customers signed in with",
            lambda before: _old_links(before).count(),
            lambda before: _old_links(before).delete()[0],
        )
    )
