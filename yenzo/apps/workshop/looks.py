"""How the shop looks: a theme comes in, the address of its stylesheet goes out, and back; what staff tries first."""

from typing import Any

from django.core import signing
from django.http import HttpRequest
from django.urls import reverse

from yenzo.apps.accounts.models import Person
from yenzo.apps.workshop.current import current_workshop
from yenzo.apps.workshop.models import Mark
from yenzo.apps.workshop.to_core import theme_of_values
from yenzo.core.theme import Theme

SALT, LOOK, TRIED = "yenzo.theme", "look", "tried_look"


def try_look(request: HttpRequest, said: dict[str, Any]) -> str:
    """Remember for this person what the workshop isn't to say yet; return where the shop is seen with it."""
    request.session[TRIED] = said
    return reverse("shop:home", query={LOOK: "tried"})


def tried(request: HttpRequest) -> dict[str, Any]:
    """Return what a person of the workshop tries out on this page; nothing on all others."""
    if LOOK in request.GET and isinstance(getattr(request, "user", None), Person):
        found: dict[str, Any] = request.session.get(TRIED, {})
        return found
    return {}


def token_of(theme: dict[str, Any]) -> str:
    """Return a theme as a part of an address that nobody else can make."""
    # Without the time: the same theme has the same address, which browsers keep.
    return signing.Signer(salt=SALT).sign_object(theme)


def theme_of_token(token: str) -> Theme:
    """Return the theme that an address names; raises BadSignature for one that wasn't made here."""
    return theme_of_values(signing.Signer(salt=SALT).unsign_object(token))


def theme_address(request: HttpRequest) -> str:
    """Return where the stylesheet of the shop's theme is; empty as it ships."""
    theme = tried(request).get("theme", current_workshop().theme)
    return reverse("workshop:theme", args=[token_of(theme)]) if theme else ""


def shown_mark(request: HttpRequest) -> Mark | None:
    """Return the mark in the shop's bar, without its bytes."""
    found = tried(request)
    if "mark" in found:
        return Mark.objects.defer("data").filter(pk=found["mark"]).first()
    return current_workshop().mark


def mark_stands_alone(request: HttpRequest) -> bool:
    """Tell whether the name isn't written beside the mark."""
    return bool(tried(request).get("mark_stands_alone", current_workshop().mark_stands_alone))
