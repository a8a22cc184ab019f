"""How staff sign in: wrong passwords slow down whoever guesses, never a browser that the person used before."""

from typing import Any

from django import forms
from django.contrib.auth.forms import AuthenticationForm
from django.core.exceptions import ValidationError
from django.core.signing import BadSignature, TimestampSigner
from django.http import HttpRequest, HttpResponse

from yenzo.apps.accounts.limiting import client_address, count_once, forget
from yenzo.apps.pages.fields import LineField

COOKIE, REMEMBERED_SECONDS = "known_device", 365 * 24 * 3600
MOST_PASSWORD = 200
TOO_MANY = "too_many"
_signer = TimestampSigner(salt="known-device")


class SignInForm(AuthenticationForm):
    """Name and password, within the length that either can have."""

    username = LineField(
        max_length=150, label="Name", widget=forms.TextInput(attrs={"autocomplete": "username", "autofocus": True})
    )
    password = forms.CharField(
        max_length=MOST_PASSWORD,
        strip=False,
        label="Password",
        widget=forms.PasswordInput(attrs={"autocomplete": "current-password"}),
    )

    def clean(self) -> dict[str, Any]:
        """Count the try, then hold name and password against what is known."""
        username = self.cleaned_data.get("username")
        if self.request and username and self.cleaned_data.get("password"):
            if not may_try(self.request, username):
                why = "These were many tries in a short time. Please wait some minutes and try again."
                raise ValidationError(why, code=TOO_MANY)
            cleaned = super().clean()
            for action, who in _counters(self.request, username):
                forget(action, who)
            return cleaned
        return super().clean()


def may_try(request: HttpRequest, username: str) -> bool:
    """Count one more try; False when there were too many from where it comes."""
    # All are counted, whatever the first says.
    within = [count_once(action, who) for action, who in _counters(request, username)]
    return all(within)


def remember_device(response: HttpResponse, username: str, *, is_secure: bool) -> None:
    """Let this browser's tries be counted by themselves from now on."""
    response.set_cookie(
        COOKIE,
        _signer.sign(username),
        max_age=REMEMBERED_SECONDS,
        httponly=True,
        secure=is_secure,
        samesite="Lax",
    )


def _counters(request: HttpRequest, username: str) -> list[tuple[str, str]]:
    kept = request.COOKIES.get(COOKIE, "")
    try:
        is_known = _signer.unsign(kept, max_age=REMEMBERED_SECONDS) == username
    except BadSignature:
        is_known = False
    if is_known:
        # Its own count, so that nobody else's tries are held against it.
        return [("known_device", kept)]
    where = client_address(request)
    return [("staff_sign_in", f"{username}@{where}"), ("staff_sign_ins", where)]
