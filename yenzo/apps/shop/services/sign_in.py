"""Customers sign in by a link that is mailed to them: no password, no account to make."""

import uuid

from django.core import signing
from django.db import transaction
from django.utils import timezone

from yenzo.apps.accounts.rights import ALL_ROLES, SYSTEM, Actor, service
from yenzo.apps.designs.services.moving import move_designs
from yenzo.apps.outbox.services.mails import MailWish, want_mail
from yenzo.apps.pages.addresses import mail_identity
from yenzo.apps.pages.errors import AppError
from yenzo.apps.shop.models import LINK_LASTS, CustomerDesigns, SignInLink
from yenzo.core.translation import current_language

ANYBODY = tuple(role for role in ALL_ROLES if role != SYSTEM)
SALT = "customer-sign-in"


class LinkError(AppError):
    """A link can't be used: it is too old, was used, or was never made."""


@service(*ANYBODY)
def ask_for_link(actor: Actor, mail: str) -> SignInLink:
    """Have a link mailed to an address, in the language of who asks."""
    with transaction.atomic():
        link = SignInLink.objects.create(mail=mail, language=current_language())
        want_mail(actor, MailWish(f"sign-in-{link.pk}", writer="sign-in", about=str(link.pk), to=mail))
    return link


@service(*ANYBODY)
def use_link(actor: Actor, token: str) -> str:  # noqa: ARG001 - whoever has the link may
    """Use a link up; return the mail address that it proves. Raises LinkError."""
    with transaction.atomic():
        link = link_of(token, lock=True)
        link.used_at = timezone.now()
        link.save(update_fields=["used_at"])
    return link.mail


@service(*ANYBODY)
def find_own_designs(actor: Actor, mail: str, visitor: uuid.UUID) -> uuid.UUID:  # noqa: ARG001 - who has proven it
    """Return the visitor under whom a customer's designs are kept; those of this browser go there too."""
    identity = mail_identity(mail)
    with transaction.atomic():
        taken = CustomerDesigns.objects.filter(visitor=visitor).exclude(mail=identity).exists()
        own, _ = CustomerDesigns.objects.select_for_update().get_or_create(
            mail=identity, defaults={"visitor": uuid.uuid4() if taken else visitor}
        )
        # What lies in a browser that somebody else is signed in with stays theirs.
        if own.visitor != visitor and not taken:
            move_designs(before=visitor, after=own.visitor)
    return own.visitor


def token_of(link: SignInLink) -> str:
    """Return what the address of a link ends with: signed, so that nobody can make one."""
    return signing.dumps(str(link.pk), salt=SALT)


def link_of(token: str, *, lock: bool = False) -> SignInLink:
    """Return the link of a token while it can be used; raises LinkError."""
    try:
        key = signing.loads(token, salt=SALT, max_age=LINK_LASTS)
    except signing.BadSignature as error:
        raise LinkError from error
    links = SignInLink.objects.select_for_update() if lock else SignInLink.objects.all()
    link = links.filter(pk=key).first()
    if link is None or not link.is_good:
        raise LinkError
    return link
