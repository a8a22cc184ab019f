"""The workshop's own words in its shop: what can be worded and what is kept come in, what a reader sees goes out."""

from dataclasses import dataclass

from django.conf import settings
from django.http import HttpRequest
from django.utils.functional import Promise
from django.utils.translation import gettext_lazy

from yenzo.apps.workshop.current import current_workshop
from yenzo.apps.workshop.looks import tried
from yenzo.core.translation import base_language, current_language

# By language ("en", "de") and slot.
Wording = dict[str, dict[str, str]]


@dataclass(frozen=True)
class Slot:
    """A place in the shop whose words a workshop can choose; `ships` stands there until it does."""

    key: str
    label: str
    most: int
    ships: str | Promise = ""
    is_line: bool = False


@dataclass(frozen=True)
class ShopWords:
    """The words of a slot as a reader sees them, and the language that they are written in."""

    text: str
    language: str


SLOTS = (
    Slot("headline", "Heading of the shop", 120, gettext_lazy("Made with your own words"), is_line=True),
    Slot(
        "introduction",
        "Below the heading",
        600,
        gettext_lazy("Pick a piece, type on it, and see it as it will be made."),
    ),
    Slot("before_paying", "Above the button that orders", 1000),
    Slot("thanks", "On the page and in the mail of a paid order", 1000),
    Slot("foot", "At the foot of every page", 1000),
)
# Each is a page of its own, linked at the foot of the shop, as soon as something is written for it.
PAGES = (
    Slot("delivery", "Delivery and returns", 20_000, gettext_lazy("Delivery and returns")),
    Slot("terms", "Terms", 20_000, gettext_lazy("Terms")),
    Slot("privacy", "Privacy", 20_000, gettext_lazy("Privacy")),
    Slot("imprint", "Imprint", 20_000, gettext_lazy("Imprint")),
)
BY_KEY = {slot.key: slot for slot in (*SLOTS, *PAGES)}


def shop_words(key: str, wording: Wording | None = None) -> ShopWords | None:
    """Return what the workshop says in a place, in the reader's language.

    Where it says so only in another language, that is better than nothing; but not where words ship in the reader's.
    """
    kept: Wording = current_workshop().wording if wording is None else wording
    own = base_language(current_language())
    languages = [own]
    slot = BY_KEY[key]
    if slot in PAGES or not slot.ships:
        languages += [base_language(settings.LANGUAGE_CODE), *kept]
    for language in languages:
        if text := kept.get(language, {}).get(key, ""):
            return ShopWords(text, language)
    return ShopWords(str(slot.ships), own) if slot.ships and slot not in PAGES else None


def shown_wording(request: HttpRequest) -> Wording:
    """Return the words that a page shows: those that staff tries out, or those that are kept."""
    found: Wording = tried(request).get("wording", current_workshop().wording)
    return found


def with_words(wording: Wording, language: str, said: dict[str, str]) -> Wording:
    """Return the wording with what is said in a language; empty words are none."""
    words = {key: text for key, text in said.items() if text}
    others = {other: kept for other, kept in wording.items() if other != language}
    return others | ({language: words} if words else {})
