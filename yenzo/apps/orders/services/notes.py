"""Writing to each other about an order."""

import uuid
from pathlib import Path

from django.db import transaction

from yenzo.apps.accounts.rights import ALL_ROLES, DESK, STAFF, SYSTEM, Actor, service
from yenzo.apps.files.store import store_file
from yenzo.apps.orders.mails import want_note_mail
from yenzo.apps.orders.models import Order, OrderNote

MOST_NOTES = 200


@service(*(role for role in ALL_ROLES if role != SYSTEM))
def write_to_workshop(
    actor: Actor,
    order: Order,
    text: str,
    *,
    sent_as: uuid.UUID,
    file: Path | None = None,
    file_name: str = "",
) -> OrderNote | None:
    """Keep a customer's message about their order, with a file; the workshop gets a mail. None beyond the most."""
    return _kept(actor, order, text, sent_as=sent_as, file=file, file_name=file_name, is_from_workshop=False)


@service(*STAFF)
def note_for_workshop(
    actor: Actor,
    order: Order,
    text: str,
    *,
    sent_as: uuid.UUID,
    file: Path | None = None,
    file_name: str = "",
) -> OrderNote | None:
    """Keep a note about an order for the workshop only, with a file; its customer never sees it."""
    return _kept(
        actor, order, text, sent_as=sent_as, file=file, file_name=file_name, is_from_workshop=True, is_inward=True
    )


@service(*DESK)
def write_to_customer(
    actor: Actor,
    order: Order,
    text: str,
    *,
    sent_as: uuid.UUID,
    file: Path | None = None,
    file_name: str = "",
) -> OrderNote | None:
    """Keep a message of the workshop about an order, with a file; its customer gets a mail."""
    return _kept(actor, order, text, sent_as=sent_as, file=file, file_name=file_name, is_from_workshop=True)


def _kept(
    actor: Actor,
    order: Order,
    text: str,
    *,
    sent_as: uuid.UUID,
    file: Path | None,
    file_name: str,
    is_from_workshop: bool,
    is_inward: bool = False,
) -> OrderNote | None:
    stored = store_file(file.read_bytes()) if file else None
    with transaction.atomic():
        Order.objects.select_for_update().get(pk=order.pk)
        if order.notes.count() >= MOST_NOTES:
            return None
        facts = {
            "order": order,
            "person": actor.person if is_from_workshop else None,
            "is_inward": is_inward,
            "text": text,
            "file": stored,
            "file_name": file_name[:200],
        }
        note, is_new = OrderNote.objects.get_or_create(sent_as=sent_as, defaults=facts)
        if is_new and not is_inward:
            want_note_mail(actor, note)
    return note
