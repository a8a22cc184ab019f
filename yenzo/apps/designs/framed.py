"""The slip in a frame on another site: addresses that say who visits come in, answers without cookies go out.

Browsers keep cookies of a framed page apart, or keep none. So the visitor, the site around the frame and the language
stand, signed, at the head of each address (`/on/TOKEN/goods/…`), and no cookie is read or set there: whoever doesn't
know the address can send nothing in its name, which is what the token of forms is for elsewhere.
"""

import re
import uuid
from collections.abc import Callable
from dataclasses import dataclass

from django.conf import settings
from django.core import signing
from django.http import Http404, HttpRequest, HttpResponse
from django.urls import Resolver404, get_script_prefix, resolve, reverse, set_script_prefix

from yenzo.apps.pages.views.errors import page_not_found
from yenzo.apps.workshop.current import current_workshop

SALT = "yenzo.framed"
HEAD = re.compile(r"/on/([A-Za-z0-9_:-]{1,600})(?=/)")
# What is shown and sent within a frame; all else is reached in the shop itself.
WITHIN = frozenset(
    {
        "reached",
        "shop:again",
        "shop:basket",
        "shop:begin_anew",
        "shop:design_picture",
        "shop:keep",
        "shop:product",
        "shop:put_in_basket",
        "shop:refresh",
        "shop:remove",
        "shop:sample_picture",
        "shop:show",
        "workshop:theme",
    }
)
WITHIN_APPS = frozenset({"slip", "designs"})


@dataclass(frozen=True)
class Framed:
    """A visitor within a frame, the site around it (its origin), and the language that it speaks."""

    visitor: uuid.UUID
    site: str
    language: str

    @property
    def token(self) -> str:
        """What stands in the addresses."""
        return signing.Signer(salt=SALT).sign_object([self.visitor.hex, self.site, self.language])

    @property
    def head(self) -> str:
        """What all addresses within the frame begin with."""
        return f"/on/{self.token}"


def framed_by(token: str) -> Framed | None:
    """Return who is meant by a token, as long as the site may still show the slip; None for any other."""
    try:
        visitor, site, language = signing.Signer(salt=SALT).unsign_object(token)
    except (signing.BadSignature, ValueError):
        return None
    return Framed(uuid.UUID(visitor), site, language) if site in current_workshop().sites else None


def framed_of(request: HttpRequest) -> Framed | None:
    """Return in which frame a request was made; None for the shop itself."""
    found = getattr(request, "framed", None)
    return found if isinstance(found, Framed) else None


def address_in(framed: Framed, name: str, *args: object) -> str:
    """Return the address of a page within a frame, asked for from outside of it."""
    return framed.head + reverse(name, args=args)


class Frames:
    """Answers what is asked within frames."""

    def __init__(self, answer: Callable[[HttpRequest], HttpResponse]) -> None:
        self.answer = answer

    def __call__(self, request: HttpRequest) -> HttpResponse:
        """Answer a request."""
        head = HEAD.match(request.path_info)
        if head is None:
            return self.answer(request)
        framed, inner = framed_by(head[1]), request.path_info[head.end() :]
        if framed is None or not _is_within(inner):
            return page_not_found(request, Http404())
        request.path_info, request.META["PATH_INFO"], request.META["SCRIPT_NAME"] = inner, inner, framed.head
        request.framed = framed  # type: ignore[attr-defined]
        request.COOKIES = {settings.LANGUAGE_COOKIE_NAME: framed.language}
        # No cookie speaks for anybody here: the address does, and nobody else knows it.
        request.csrf_processing_done = True  # type: ignore[attr-defined]
        outside = get_script_prefix()
        set_script_prefix(f"{framed.head}/")
        try:
            response = self.answer(request)
        finally:
            set_script_prefix(outside)
        response.cookies.clear()
        # What the library's own decorators set.
        response._csp_replace = {"frame-ancestors": [framed.site]}  # type: ignore[attr-defined]  # noqa: SLF001
        del response["X-Frame-Options"]
        response["X-Robots-Tag"] = "noindex"
        return response


def _is_within(address: str) -> bool:
    try:
        found = resolve(address)
    except Resolver404:
        return False
    return found.view_name in WITHIN or bool(WITHIN_APPS & set(found.app_names))
