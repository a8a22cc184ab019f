"""Writing for templates: amounts, counts, millimetres and form values as people write them."""

from datetime import date, datetime
from decimal import Decimal
from functools import lru_cache

from babel.dates import format_date, format_time
from django import template
from django.templatetags.static import static
from django.utils import timezone
from django.utils.html import format_html
from django.utils.safestring import SafeString

from yenzo.apps.pages.glossary import Term, terms_in
from yenzo.core import translation
from yenzo.core.measure import plain_number
from yenzo.core.translation import current_language, decimal, locale_of

register = template.Library()
ICON = '<svg class="icon" aria-hidden="true"><use href="{}#{}"/></svg>'


@register.filter
def money(amount: Decimal | str, currency: str) -> str:
    """Write an amount with its currency, as its reader does."""
    return translation.money(Decimal(amount), currency)


@register.filter
def less(amount: Decimal, currency: str) -> str:
    """Write by how much an amount below 0 is less than nothing."""
    return translation.money(-amount, currency)


def rate(amount: Decimal, currency: str) -> str:
    """Write an amount for one of many with all its decimals."""
    return translation.money(amount, currency, is_rate=True)


@register.filter
def mm(length: float) -> str:
    """Write a length in millimetres with at most one decimal."""
    return decimal(float(plain_number(float(length), 1)))


@register.filter
def megabytes(size_bytes: int) -> str:
    """Write a size in kB or MB."""
    return f"{decimal(size_bytes / 1e6, 1)} MB" if size_bytes >= 1_000_000 else f"{max(size_bytes // 1000, 1)} kB"


@register.filter
def plain(value: object) -> str:
    """Write a value as programs read it, whatever language the page has."""
    return str(value)


@register.filter
def quoted(value: str) -> SafeString:
    """Write JSON as an attribute in single quotes: it is full of double ones, each of which would be six letters."""
    return SafeString("'{}'".format(value.replace("&", "&amp;").replace("<", "&lt;").replace("'", "&#x27;")))


@register.filter
def moment(at: datetime) -> str:
    """Write a day and the time in the workshop's time zone."""
    here, locale = timezone.localtime(at), locale_of(current_language())
    return f"{format_date(here, 'medium', locale=locale)} {format_time(here, 'short', locale=locale)}"


@register.filter
def day(of: date) -> str:
    """Write a day as its reader does, with its weekday."""
    return str(format_date(of, "EEE d MMM y", locale=locale_of(current_language())))


@register.filter
def terms(label: object) -> tuple[Term, ...]:
    """Return the trade words of a label, each with what it means."""
    return terms_in(str(label))


@register.simple_tag
@lru_cache(maxsize=100)
def icon(name: str) -> SafeString:
    """Draw an icon of the sprite; it says nothing by itself, words stand beside it."""
    return format_html(ICON, static("icons.svg"), name)
