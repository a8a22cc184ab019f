"""Who reads in which language: a request or an order comes in; Django and the core say everything in that language."""

from collections.abc import Callable, Iterator
from contextlib import contextmanager
from dataclasses import dataclass

from django.conf import settings
from django.http import HttpRequest, HttpResponse
from django.utils import translation

from yenzo.core.speaking import is_right_to_left, speaking

# The workshop's own pages are English; all others are the customers'.
WORKSHOP_PATH = "/workshop/"


@dataclass(frozen=True)
class ShopLanguage:
    """A language that the shop speaks, by the name that its speakers give it."""

    code: str
    name: str

    @property
    def direction(self) -> str:
        """Which way it is written."""
        return "rtl" if is_right_to_left(self.code) else "ltr"


def shop_languages() -> tuple[ShopLanguage, ...]:
    """Return the languages that customers can choose."""
    return tuple(ShopLanguage(code, name) for code, name in settings.LANGUAGES)


@contextmanager
def read_in(language: str) -> Iterator[None]:
    """Say everything in it in this language: Django's templates and forms, and the core's sentences."""
    with translation.override(language), speaking(language):
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


class ReaderLanguage:
    """Answers each request in the language of who reads: the workshop's on its pages, else what the customer chose."""

    def __init__(self, get_response: Callable[[HttpRequest], HttpResponse]) -> None:
        self._get_response = get_response

    def __call__(self, request: HttpRequest) -> HttpResponse:
        """Answer."""
        is_workshop = request.path_info.startswith(WORKSHOP_PATH)
        language = settings.LANGUAGE_CODE if is_workshop else translation.get_language_from_request(request)
        with read_in(language):
            response = self._get_response(request)
        if not is_workshop:
            response.headers.setdefault("Content-Language", language)
        return response
