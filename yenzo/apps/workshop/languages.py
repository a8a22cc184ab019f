"""The languages that the shop speaks: a request comes in; it is answered in the reader's, or in the shop's first."""

from collections.abc import Callable
from dataclasses import dataclass

from django.conf import settings
from django.http import HttpRequest, HttpResponse
from django.utils import translation

from yenzo.apps.pages.languages import read_in
from yenzo.apps.pages.views.errors import AWAY, away
from yenzo.apps.workshop.current import current_workshop
from yenzo.core.translation import is_right_to_left

# The workshop's own pages are English; all others are the customers'.
WORKSHOP_PATH = "/workshop/"
# A page asks whether the workshop is there: no database is asked for it.
REACHED_PATH = "/reached/"
# What a page says with each key that is pressed: it goes on in its language, and nobody is asked for the settings.
PAGE_LANGUAGE = "Page-Language"


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
    """Return the languages that customers can choose: those the workshop offers, all where it hasn't said which."""
    known = tuple(ShopLanguage(code, name) for code, name in settings.LANGUAGES)
    offered = current_workshop().languages
    return tuple(one for one in known if one.code in offered) or known


def language_offered(wanted: str) -> str:
    """Return a language that somebody wants if the shop speaks it, else the shop's first."""
    codes = [one.code for one in shop_languages()]
    return wanted if wanted in codes else codes[0]


class ReaderLanguage:
    """Answers each request in the language of who reads: the workshop's on its pages, else what the customer chose."""

    def __init__(self, get_response: Callable[[HttpRequest], HttpResponse]) -> None:
        self._get_response = get_response

    def __call__(self, request: HttpRequest) -> HttpResponse:
        """Answer."""
        if request.path_info.startswith(WORKSHOP_PATH):
            with read_in(settings.LANGUAGE_CODE):
                return self._get_response(request)
        language = request.headers.get(PAGE_LANGUAGE, "")
        if language not in dict(settings.LANGUAGES):
            language = translation.get_language_from_request(request)
            if not request.path_info.startswith(REACHED_PATH):
                try:
                    language = language_offered(language)
                except AWAY:
                    with read_in(language):
                        return away(request)
        with read_in(language):
            response = self._get_response(request)
        response.headers.setdefault("Content-Language", language)
        return response
