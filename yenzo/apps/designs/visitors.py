"""Visitors: a session comes in, the id that owns its uploads and basket goes out. No account is needed."""

import uuid

from django.http import HttpRequest

SESSION_KEY, MAIL_KEY = "visitor", "customer_mail"


def visitor_of(request: HttpRequest) -> uuid.UUID:
    """Return the visitor's id, making one the first time."""
    kept = request.session.get(SESSION_KEY)
    if kept is None:
        kept = request.session[SESSION_KEY] = str(uuid.uuid4())
    return uuid.UUID(kept)


def known_visitor(request: HttpRequest) -> uuid.UUID | None:
    """Return the visitor's id if there is one already: previews make none."""
    kept = request.session.get(SESSION_KEY)
    return uuid.UUID(kept) if kept else None


def signed_in_mail(request: HttpRequest) -> str:
    """Return the mail address of a customer who is signed in; empty for everybody else."""
    return str(request.session.get(MAIL_KEY, ""))


def is_signed_in(request: HttpRequest) -> bool:
    """Tell whether the customer is signed in."""
    return bool(signed_in_mail(request))


def remember_customer(request: HttpRequest, mail: str) -> None:
    """Sign a customer in, or out with an empty address; the visitor's basket and uploads stay."""
    request.session.cycle_key()
    if mail:
        request.session[MAIL_KEY] = mail
    else:
        request.session.pop(MAIL_KEY, None)
