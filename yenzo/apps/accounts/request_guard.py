"""The door of all pages: a request comes in; what can't be meant is refused, and who only looks can change nothing."""

import codecs
from collections.abc import Callable
from contextvars import ContextVar

from django.http import HttpRequest, HttpResponse, HttpResponseBase

from yenzo.apps.pages.numbers import whole_number
from yenzo.apps.pages.views.errors import bad_request

# Whether what is done now was asked for by a request that must change nothing (RFC 9110, 9.2.1).
is_safe_request: ContextVar[bool] = ContextVar("only_looking", default=False)
SAFE_METHODS = frozenset({"GET", "HEAD", "OPTIONS", "TRACE"})
MOST_QUERY = 8000
# Forms and addresses are in this one.
OUR_CHARSETS = {"utf-8", "us-ascii"}
NUL = "\x00"


class RequestGuard:
    """Lets through what can be answered; services refuse to run for requests that only look."""

    def __init__(self, get_response: Callable[[HttpRequest], HttpResponse]) -> None:
        self._get_response = get_response

    def __call__(self, request: HttpRequest) -> HttpResponse:
        """Answer, or refuse."""
        if not is_readable(request):
            return bad_request(request)
        token = is_safe_request.set(request.method in SAFE_METHODS)
        try:
            return self._get_response(request)
        finally:
            is_safe_request.reset(token)

    def process_view(self, request: HttpRequest, *_view: object) -> HttpResponseBase | None:
        """Leave out of forms what no database keeps as text, and nobody typed."""
        if request.method == "POST" and any(NUL in value for _, values in request.POST.lists() for value in values):
            cleaned = request.POST.copy()
            for name, values in request.POST.lists():
                cleaned.setlist(name, [value.replace(NUL, "") for value in values])
            request.POST = cleaned  # type: ignore[assignment]
        return None


def is_readable(request: HttpRequest) -> bool:
    """Tell whether address, cookies and charset of a request are such as browsers send."""
    query = request.META.get("QUERY_STRING", "")
    said = (request.path_info, *request.GET.keys(), *(value for _, values in request.GET.lists() for value in values))
    if len(query) > MOST_QUERY or any(NUL in text for text in said):
        return False
    length = request.META.get("CONTENT_LENGTH") or "0"
    if any(NUL in value for value in request.COOKIES.values()) or not (length.isascii() and length.isdecimal()):
        return False
    charset = request.content_params.get("charset") if request.content_params else None
    try:
        return charset is None or codecs.lookup(charset).name in {codecs.lookup(ours).name for ours in OUR_CHARSETS}
    except (LookupError, ValueError):
        return False


def sent_number(request: HttpRequest, name: str, otherwise: int = -1) -> int:
    """Return a whole number of a form, or an address, that a page of ours filled in; `otherwise` when it isn't one."""
    number = whole_number(request.POST.get(name) or request.GET.get(name, ""))
    return otherwise if number is None else number
