"""Days that never were: the 31st of June, the 29th of February in a common year, a thirteenth month."""

import re
from collections.abc import Iterator
from datetime import date
from functools import lru_cache

import icu

from yenzo.core.asking.second_look.interface import Doubt, Looked
from yenzo.core.translation import translate

NUMBERS = re.compile(r"(?<![\d./-])(\d{1,4})([./-])\s?(\d{1,2})\2\s?(\d{1,4})(?![\d./-])")
LEAST_YEAR_DIGITS = 4
A_LEAP_YEAR = 2024


def look(looked: Looked) -> Iterator[Doubt]:
    """Yield dates, in numbers or with the name of a month, that no calendar has."""
    if not any(map(str.isdigit, looked.text)):
        return
    for written in _in_numbers(looked.text):
        yield _doubt(written)
    months = _months(looked.language)
    for pattern in _patterns(looked.language):
        for found in pattern.finditer(looked.text):
            given = int(found["year"] or A_LEAP_YEAR), months[found["month"].lower()], int(found["day"])
            if not _is_day(*given):
                yield _doubt(found[0])


def _doubt(written: str) -> Doubt:
    return Doubt("no_such_day", translate("No calendar has the day “{written}”. Is it right so?", written=written))


def _in_numbers(text: str) -> Iterator[str]:
    """Yield dates in numbers that are none in any order: a version or a telephone number isn't asked about."""
    for found in NUMBERS.finditer(text):
        first, second, third = found[1], found[3], found[4]
        if len(first) == LEAST_YEAR_DIGITS and len(third) <= 2:
            orders = [(int(first), int(second), int(third))]
        elif len(first) <= 2 and len(third) == LEAST_YEAR_DIGITS:
            orders = [(int(third), int(second), int(first)), (int(third), int(first), int(second))]
        else:
            continue
        if not any(_is_day(*order) for order in orders):
            yield found[0]


def _is_day(year: int, month: int, day: int) -> bool:
    try:
        date(year, month, day)
    except ValueError:
        return False
    return True


@lru_cache(maxsize=64)
def _months(language: str) -> dict[str, int]:
    """Return the months by their names in a language and in English."""
    names: dict[str, int] = {}
    for locale in (icu.Locale(language), icu.Locale("en")):
        months = enumerate(icu.DateFormatSymbols(locale).getMonths(), 1)
        names |= {name.lower(): number for number, name in months if len(name) > 2}
    return names


@lru_cache(maxsize=64)
def _patterns(language: str) -> tuple[re.Pattern[str], ...]:
    """Return how days are written with the name of a month: before it, and after it."""
    names = "|".join(sorted(map(re.escape, _months(language)), key=len, reverse=True))
    day, year = r"(?P<day>\d{1,2})(?:st|nd|rd|th|\.|º)?", r"(?:,?\s+(?P<year>\d{4}))?"
    written = (rf"\b{day}\s+(?:of\s+|de\s+)?(?P<month>{names})\b{year}", rf"\b(?P<month>{names})\s+{day}\b{year}")
    return tuple(re.compile(one, re.IGNORECASE) for one in written)
