"""In which language something is read: its code comes in; Django and the core say everything in that language."""

from collections.abc import Iterator
from contextlib import contextmanager

from django.conf import settings
from django.http import HttpResponse
from django.utils import translation

from yenzo.core.translation import override_language


@contextmanager
def read_in(language: str) -> Iterator[None]:
    """Say everything in it in this language: Django's templates and forms, and the core's sentences."""
    with translation.override(language), override_language(language):
        yield


def remember_language(response: HttpResponse, language: str) -> None:
    """Let the browser ask for this language from now on."""
    response.set_cookie(
        settings.LANGUAGE_COOKIE_NAME,
        language,
        max_age=settings.LANGUAGE_COOKIE_AGE,
        secure=settings.LANGUAGE_COOKIE_SECURE,
        samesite="Lax",
    )
