"""Sentences in the reader's language: a message and values come in, words go out.

Messages are English and found by `scripts/words.py`; translations are GNU gettext catalogues in `locale`. Who reads is
told around a piece of work by `override_language`, as it concerns every sentence in it and nothing else.
"""

import gettext
from collections.abc import Iterable, Iterator
from contextlib import contextmanager
from contextvars import ContextVar
from decimal import Decimal
from functools import lru_cache
from pathlib import Path
from typing import Literal

from babel import Locale, UnknownLocaleError
from babel.lists import format_list
from babel.numbers import format_currency, format_decimal, get_currency_symbol

SOURCE_LANGUAGE = "en"
FOLDER = Path(__file__).parent / "locale"
# U+2068 and U+2069 keep what is quoted from turning the sentence around it (UAX 9).
ISOLATED = "\u2068{}\u2069"
LEFT_TO_RIGHT = "\u2066{}\u2069"

_language: ContextVar[str] = ContextVar("language", default=SOURCE_LANGUAGE)


@contextmanager
def override_language(language: str) -> Iterator[None]:
    """Say everything in it in this language (BCP 47), as far as there are words; else in English."""
    token = _language.set(language)
    try:
        yield
    finally:
        _language.reset(token)


def current_language() -> str:
    """Return the language of who reads."""
    return _language.get()


def translate_noop(message: str) -> str:
    """Return the message as it is: a mark for one that is said elsewhere."""
    return message


def translate(message: str, /, **values: object) -> str:
    """Return the message with its values; each {name} in it stands for one."""
    return _filled(_catalogue(_language.get()).gettext(message), values)


def translate_plural(one: str, many: str, count: int | Decimal, /, **values: object) -> str:
    """Return the message for one or for many of something, by the rules of the reader's language; {count} is there."""
    # What has decimals is many in all our languages: 1.5 pieces.
    whole = int(count) if count == int(count) else 2
    return _filled(_catalogue(_language.get()).ngettext(one, many, whole), {"count": decimal(count), **values})


def money(amount: Decimal, currency: str, *, is_rate: bool = False) -> str:
    """Write an amount with its currency; a rate, for one of many, with all its decimals: 0.4 pence is not nothing."""
    locale = locale_of(_language.get())
    is_whole = not is_rate or amount == round(amount, 2)
    if locale.text_direction == "rtl" and get_currency_symbol(currency, locale).isupper():
        # A sign in Latin letters would be torn apart between words that run the other way.
        return LEFT_TO_RIGHT.format(format_currency(amount, currency, locale="en", decimal_quantization=is_whole))
    return format_currency(amount, currency, locale=locale, decimal_quantization=is_whole)


def decimal(number: float | Decimal, places: int | None = None) -> str:
    """Return a number as the reader writes it; with `places` decimals, or those that it has."""
    return _written(number, places, _language.get())


@lru_cache(maxsize=4000)
def _written(number: float | Decimal, places: int | None, language: str) -> str:
    # Without group marks: most of these are counts and millimetres.
    if places is None:
        value = Decimal(str(number)).normalize()
        return format_decimal(value, "0", locale=locale_of(language), decimal_quantization=False)
    pattern = f"0.{'0' * places}" if places else "0"
    return format_decimal(Decimal(f"{number:.{places}f}"), pattern, locale=locale_of(language))


def listed(words: Iterable[object], style: Literal["standard", "or"] = "standard") -> str:
    """Return words as a list in a sentence: "a, b and c"; style "or" for "a, b or c"."""
    if not is_source_language(current_language()):
        return str(format_list([str(word) for word in words], style, locale=locale_of(current_language())))
    # English as the workshop writes it, without a comma before the last.
    *first, last = [str(word) for word in words] or [""]
    return f"{', '.join(first)} {'or' if style == 'or' else 'and'} {last}" if first else last


def base_language(language: str) -> str:
    """Return a language without its country: "en" for "en-GB"."""
    return language.partition("-")[0]


def is_source_language(language: str) -> bool:
    """Tell whether messages stay as they are written here."""
    return base_language(language) == SOURCE_LANGUAGE


def is_right_to_left(language: str) -> bool:
    """Tell whether a language is written from right to left."""
    return locale_of(language).text_direction == "rtl"


@lru_cache(maxsize=50)
def locale_of(language: str) -> Locale:
    """Return how a language writes numbers and days; as English does when it isn't known."""
    try:
        return Locale.parse(language.replace("-", "_"))
    except (UnknownLocaleError, ValueError):
        return Locale.parse(SOURCE_LANGUAGE)


@lru_cache(maxsize=50)
def _catalogue(language: str) -> gettext.NullTranslations:
    name = language.replace("-", "_")
    return gettext.translation("core", FOLDER, languages=[name, name.partition("_")[0]], fallback=True)


def _filled(message: str, values: dict[str, object]) -> str:
    if not values:
        return message
    if not is_source_language(current_language()) and is_right_to_left(current_language()):
        values = {name: ISOLATED.format(value) for name, value in values.items()}
    return message.format(**values)
