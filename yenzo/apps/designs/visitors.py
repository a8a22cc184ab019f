"""Visitors: a session comes in, the id that owns its uploads and basket goes out. No account is needed."""

import uuid

from django.http import HttpRequest

SESSION_KEY = "visitor"


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
