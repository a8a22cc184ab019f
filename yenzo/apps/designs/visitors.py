"""Visitors: a request comes in, the id that owns its uploads and basket goes out. No account is needed.

The id stands in the session, and in a signed cookie of its own: a session that has ended takes nobody's basket along.
"""

import uuid
from collections.abc import Callable

from django.conf import settings
from django.http import HttpRequest, HttpResponse

from yenzo.apps.designs.framed import framed_of

SESSION_KEY, MAIL_KEY = "visitor", "customer_mail"
NEWLY_MET = "yenzo.visitor"
COOKIE, COOKIE_SALT, COOKIE_SECONDS = "visitor", "yenzo.visitor", 180 * 24 * 3600


def visitor_of(request: HttpRequest) -> uuid.UUID:
    """Return the visitor's id, making one the first time."""
    if framed := framed_of(request):
        return framed.visitor
    visitor = known_visitor(request) or uuid.uuid4()
    if request.session.get(SESSION_KEY) != str(visitor):
        request.session[SESSION_KEY] = str(visitor)
    return visitor


def meet_visitor(request: HttpRequest) -> uuid.UUID:
    """Return the id of whoever opens a product's page, given one, in the cookie only, the first time.

    What the page sends first it sends at once, a file and what is typed: these must not make two visitors.
    """
    visitor = known_visitor(request)
    if visitor is None:
        visitor = uuid.uuid4()
        request.META[NEWLY_MET] = str(visitor)
    return visitor


def known_visitor(request: HttpRequest) -> uuid.UUID | None:
    """Return the visitor's id if there is one already: previews make none."""
    if framed := framed_of(request):
        return framed.visitor
    kept = request.session.get(SESSION_KEY) or _of_cookie(request)
    return uuid.UUID(kept) if kept else None


def _of_cookie(request: HttpRequest) -> str:
    return str(request.get_signed_cookie(COOKIE, default="", salt=COOKIE_SALT, max_age=COOKIE_SECONDS))


class VisitorCookie:
    """Lets the browser keep who a visitor is."""

    def __init__(self, answer: Callable[[HttpRequest], HttpResponse]) -> None:
        self.answer = answer

    def __call__(self, request: HttpRequest) -> HttpResponse:
        """Answer a request."""
        response = self.answer(request)
        kept = request.session.get(SESSION_KEY) if request.session.modified else None
        if visitor := kept or request.META.get(NEWLY_MET):
            response.set_signed_cookie(
                COOKIE,
                visitor,
                salt=COOKIE_SALT,
                max_age=COOKIE_SECONDS,
                httponly=True,
                samesite="Lax",
                secure=settings.SESSION_COOKIE_SECURE,
            )
        return response


def signed_in_mail(request: HttpRequest) -> str:
    """Return the mail address of a customer who is signed in; empty for everybody else."""
    return str(request.session.get(MAIL_KEY, ""))


def is_signed_in(request: HttpRequest) -> bool:
    """Tell whether the customer is signed in."""
    return bool(signed_in_mail(request))


def remember_customer(request: HttpRequest, mail: str, visitor: uuid.UUID) -> None:
    """Sign a customer in, or out with an empty address; from then on this is the visitor."""
    request.session.cycle_key()
    request.session[SESSION_KEY] = str(visitor)
    if mail:
        request.session[MAIL_KEY] = mail
    else:
        request.session.pop(MAIL_KEY, None)
