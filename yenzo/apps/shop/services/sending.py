"""Links that customers have mailed to themselves."""

from yenzo.apps.accounts.rights import ALL_ROLES, SYSTEM, Actor, service
from yenzo.apps.designs.models import Look
from yenzo.apps.outbox.models import OutgoingMail
from yenzo.apps.outbox.services.mails import MailWish, want_mail


@service(*(role for role in ALL_ROLES if role != SYSTEM))
def mail_look(actor: Actor, look: Look) -> OutgoingMail:
    """Have the link of a look mailed to where it was made for."""
    return want_mail(actor, MailWish(f"look-{look.pk}", writer="look", about=str(look.pk), to=look.mail))
