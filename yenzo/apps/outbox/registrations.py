"""How long mails are kept, with what the stand-in for the post kept of them."""

from datetime import datetime

from django.db.models import QuerySet

from yenzo.apps.files.interface import RetainedKind, register_retention
from yenzo.apps.outbox.models import OutgoingMail
from yenzo.apps.outbox.posting import kept_outbox


def _old(before: datetime) -> QuerySet[OutgoingMail]:
    return OutgoingMail.objects.filter(wanted_at__lt=before)


def _clear(before: datetime) -> int:
    outbox = kept_outbox()
    if outbox:
        outbox.drop(_old(before).values_list("key", flat=True))
    return _old(before).delete()[0]


def register() -> None:
    """Say so."""
    register_retention(RetainedKind("mails", "Mails", lambda before: _old(before).count(), _clear))
