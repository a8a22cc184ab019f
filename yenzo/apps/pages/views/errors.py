"""Pages for what went wrong, in words. Whatever failed isn't asked again: these pages need no database."""

import errno
import sys

from django.conf import settings
from django.db import InterfaceError, OperationalError
from django.http import HttpRequest, HttpResponse
from django.template.loader import render_to_string
from django.utils.translation import gettext
from django.views.decorators.cache import never_cache
from django.views.decorators.http import require_safe
from procrastinate.exceptions import ConnectorException
from psycopg_pool import PoolTimeout

from yenzo.core.errors import AssetError
from yenzo.core.translation import current_language, is_right_to_left

RETRY_SECONDS = 3
# The database is being restarted, or all its connections are taken.
AWAY = (OperationalError, InterfaceError, PoolTimeout, ConnectorException)
NO_ROOM = {errno.ENOSPC, errno.EDQUOT, errno.EFBIG}


@require_safe
@never_cache
def reached(request: HttpRequest) -> HttpResponse:  # noqa: ARG001 - Django's signature
    """Answer, as lightly as can be, a page that asks whether the workshop can be reached."""
    return HttpResponse(status=204)


def page_not_found(request: HttpRequest, exception: Exception) -> HttpResponse:  # noqa: ARG001 - Django's signature
    return _say(
        request, 404, gettext("There is nothing at this address"), gettext("It may have been moved or typed wrong.")
    )


def permission_denied(request: HttpRequest, exception: Exception) -> HttpResponse:
    return _say(
        request, 403, gettext("This isn't open to you"), str(exception) or gettext("Please sign in with another role.")
    )


def csrf_failure(request: HttpRequest, reason: str = "") -> HttpResponse:  # noqa: ARG001 - Django's signature
    """Answer a form whose sign of origin is missing or old."""
    why = gettext("Please go back, load the page anew and send it again. Cookies must be allowed for that.")
    return _say(request, 403, gettext("This form was open for too long"), why)


def bad_request(request: HttpRequest, exception: Exception | None = None) -> HttpResponse:  # noqa: ARG001
    """Answer what no browser sends by itself."""
    why = gettext("The address or what was sent with it has characters that can't be. Please check it and try again.")
    return _say(request, 400, gettext("This can't be read"), why)


def server_error(request: HttpRequest) -> HttpResponse:
    """Answer a fault of ours, each by what it means for whoever waits."""
    error = sys.exc_info()[1]
    if isinstance(error, AWAY):
        return away(request)
    if isinstance(error, OSError) and error.errno in NO_ROOM:
        why = gettext("What you entered is not lost as long as this page stays open. Please tell the workshop.")
        return _say(request, 507, gettext("The workshop has no room for more files just now"), why)
    why = gettext("What you entered is kept. Please try again; if it happens again, tell the workshop what you did.")
    if isinstance(error, AssetError):
        why = error.message
    return _say(request, 500, gettext("Something on our side failed"), why)


def away(request: HttpRequest) -> HttpResponse:
    """Ask to wait a moment; a page that was only looked at loads itself again."""
    why = gettext("Please wait a moment. This page loads itself again; what you typed elsewhere is kept there.")
    is_looked_at = request.method in {"GET", "HEAD"}
    if not is_looked_at:
        why = gettext("Please wait a moment, go back and send it again. What you typed is kept there.")
    said = gettext("The workshop is back in a moment")
    response = _say(request, 503, said, why, again_after=RETRY_SECONDS if is_looked_at else None)
    response["Retry-After"] = str(RETRY_SECONDS)
    return response


def _say(request: HttpRequest, status: int, what: str, why: str, again_after: int | None = None) -> HttpResponse:
    if request.headers.get("HX-Request"):
        return HttpResponse(f"{what}. {why}", status=status, content_type="text/plain; charset=utf-8")
    # No request goes along: who is signed in and what was said to them would have to be asked of the database.
    context = {
        "what": what,
        "why": why,
        "again_after": again_after,
        "workshop_name": settings.WORKSHOP_NAME,
        "page_language": current_language(),
        "page_direction": "rtl" if is_right_to_left(current_language()) else "ltr",
    }
    return HttpResponse(render_to_string("error.html", context), status=status)
