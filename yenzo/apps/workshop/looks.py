"""The shop's theme on its pages: a theme comes in, the address of its stylesheet goes out, and back."""

from typing import Any

from django.core import signing
from django.http import HttpRequest
from django.urls import reverse

from yenzo.apps.accounts.models import Person
from yenzo.apps.workshop.own import own_workshop
from yenzo.apps.workshop.to_core import theme_of_values
from yenzo.core.theme import Theme

SALT, LOOK = "yenzo.theme", "look"


def token_of(theme: dict[str, Any]) -> str:
    """Return a theme as a part of an address that nobody else can make."""
    # Without the time: the same theme has the same address, which browsers keep.
    return signing.Signer(salt=SALT).sign_object(theme)


def theme_of_token(token: str) -> Theme:
    """Return the theme that an address names; raises BadSignature for one that wasn't made here."""
    return theme_of_values(signing.Signer(salt=SALT).unsign_object(token))


def theme_address(request: HttpRequest) -> str:
    """Return where the stylesheet of the shop's theme is; empty as it ships. Staff may try out one that isn't kept."""
    tried = request.GET.get(LOOK, "")
    if tried and isinstance(getattr(request, "user", None), Person):
        return reverse("workshop:theme", args=[tried])
    kept = own_workshop().theme
    return reverse("workshop:theme", args=[token_of(kept)]) if kept else ""
