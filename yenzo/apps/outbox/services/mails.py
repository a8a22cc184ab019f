"""Mails wanted, sent once, and sent again by staff when they could not be."""

from dataclasses import dataclass
from datetime import datetime

from django.conf import settings
from django.db import connection, transaction
from django.utils import timezone
from procrastinate.contrib.django import app

from yenzo.apps.accounts.models import Role
from yenzo.apps.accounts.rights import ALL_ROLES, SYSTEM, Actor, service
from yenzo.apps.outbox.interface import WRITERS
from yenzo.apps.outbox.models import OutgoingMail
from yenzo.apps.outbox.orphaned_jobs import without_job
from yenzo.apps.outbox.posting import post
from yenzo.apps.pages.addresses import AddressError, mail_identity

TOO_MANY = "Many mails went to this address within an hour. Somebody may be playing with it: look before you send it."
SENDING = "outbox.send_mail"
READERS = (Role.OWNER, Role.DESK)


@dataclass(frozen=True)
class MailWish:
    """A mail that is wanted: its name for good, who writes it, about what, and to whom."""

    key: str
    writer: str
    about: str
    to: str


@service(*ALL_ROLES)
def want_mail(actor: Actor, wish: MailWish) -> OutgoingMail:  # noqa: ARG001 - whoever does what a mail tells of
    """Have a mail sent once this transaction holds; the same key makes one mail, however often it is wanted."""
    with transaction.atomic():
        facts = {
            "writer": wish.writer,
            "about": wish.about,
            "to": wish.to,
            "to_identity": _recipient(wish.to),
            "is_counted": WRITERS[wish.writer].is_counted,
        }
        mail, is_new = OutgoingMail.objects.get_or_create(key=wish.key, defaults=facts)
        if is_new:
            _hand_to_worker(mail)
    return mail


@service(SYSTEM)
def send_mail(actor: Actor, mail_id: int) -> OutgoingMail:  # noqa: ARG001
    """Write a mail and give it to the post, unless it went out already or its recipient had too many."""
    with transaction.atomic():
        # Two workers never send the same mail, and those to one recipient are counted one after another.
        mail = OutgoingMail.objects.select_for_update().get(pk=mail_id)
        _one_after_another(mail.to_identity)
        if mail.state in {OutgoingMail.State.SENT, OutgoingMail.State.HELD}:
            return mail
        lately = OutgoingMail.objects.sent_lately_to(mail.to_identity).count()
        if mail.is_counted and lately >= settings.MAILS_TO_ONE_AN_HOUR:
            mail.state, mail.trouble = OutgoingMail.State.HELD, TOO_MANY
        else:
            post(WRITERS[mail.writer].write(mail.about, mail.key))
            mail.state, mail.trouble, mail.sent_at = OutgoingMail.State.SENT, "", timezone.now()
        mail.save(update_fields=["state", "trouble", "sent_at"])
    return mail


@service(SYSTEM)
def note_unsent(actor: Actor, mail_id: int, why: str, *, is_over: bool) -> None:  # noqa: ARG001
    """Say why a mail could not be sent: for now, or for good unless staff try again."""
    state = OutgoingMail.State.FAILED if is_over else OutgoingMail.State.WAITING
    OutgoingMail.objects.filter(pk=mail_id).exclude(state=OutgoingMail.State.SENT).update(
        state=state, trouble=why[:300]
    )


@service(*READERS)
def send_again(actor: Actor, mail_id: int) -> OutgoingMail:  # noqa: ARG001
    """Send a mail that could not be sent, or that was held back."""
    with transaction.atomic():
        mail = OutgoingMail.objects.select_for_update().get(pk=mail_id)
        if mail.state in {OutgoingMail.State.FAILED, OutgoingMail.State.HELD}:
            mail.state, mail.trouble, mail.is_counted = OutgoingMail.State.WAITING, "", False
            mail.save(update_fields=["state", "trouble", "is_counted"])
            _hand_to_worker(mail)
    return mail


@service(SYSTEM)
def look_after_mails(actor: Actor, before: datetime) -> None:  # noqa: ARG001
    """Hand mails to the worker that have waited since before a moment and have no job any more."""
    waiting = OutgoingMail.objects.filter(state=OutgoingMail.State.WAITING, wanted_at__lt=before).in_bulk()
    for key in without_job(SENDING, "mail_id", waiting):
        _hand_to_worker(waiting[int(key)])


def _hand_to_worker(mail: OutgoingMail) -> None:
    app.configure_task(SENDING).defer(mail_id=mail.pk)


def _recipient(to: str) -> str:
    """Return whose mails it is counted among. Orders of before may have an address that would be refused today."""
    try:
        return mail_identity(to)
    except AddressError:
        return to


def _one_after_another(recipient: str) -> None:
    with connection.cursor() as cursor:
        cursor.execute("SELECT pg_advisory_xact_lock(hashtextextended(%s, 0))", [f"mails-to-{recipient}"])
