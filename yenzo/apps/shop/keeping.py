"""How long the shop keeps the links that customers signed in with."""

from datetime import datetime

from django.db.models import QuerySet

from yenzo.apps.files.interface import Kept, keep_for_a_while
from yenzo.apps.shop.models import SignInLink


def _old_links(before: datetime) -> QuerySet[SignInLink]:
    return SignInLink.objects.filter(asked_at__lt=before)


def register() -> None:
    """Say so."""
    keep_for_a_while(
        Kept(
            "links",
            "Links that customers signed in with",
            lambda before: _old_links(before).count(),
            lambda before: _old_links(before).delete()[0],
        )
    )
