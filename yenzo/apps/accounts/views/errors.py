"""Pages for what went wrong, in words."""

from django.http import HttpRequest, HttpResponse
from django.shortcuts import render
from django.utils.translation import gettext


def page_not_found(request: HttpRequest, exception: Exception) -> HttpResponse:  # noqa: ARG001 - Django's signature
    return _say(
        request, 404, gettext("There is nothing at this address"), gettext("It may have been moved or typed wrong.")
    )


def permission_denied(request: HttpRequest, exception: Exception) -> HttpResponse:
    return _say(
        request, 403, gettext("This isn't open to you"), str(exception) or gettext("Please sign in with another role.")
    )


def server_error(request: HttpRequest) -> HttpResponse:
    why = gettext("What you entered is kept. Please try again; if it happens again, tell the workshop what you did.")
    return _say(request, 500, gettext("Something on our side failed"), why)


def _say(request: HttpRequest, status: int, what: str, why: str) -> HttpResponse:
    if request.headers.get("HX-Request"):
        return HttpResponse(f"{what}. {why}", status=status, content_type="text/plain; charset=utf-8")
    return render(request, "error.html", {"what": what, "why": why}, status=status)
