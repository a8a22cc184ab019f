"""Writing for templates: amounts, counts, millimetres and form values as people write them."""

from decimal import Decimal
from functools import lru_cache

from babel.numbers import format_currency
from django import template
from django.utils.html import format_html
from django.utils.safestring import SafeString

from yenzo.core.measure import plain_number

register = template.Library()
ICON = '<svg class="icon" aria-hidden="true"><use href="{}#{}"/></svg>'


@register.filter
def money(amount: Decimal | str, currency: str) -> str:
    """Write an amount with its currency, as English readers do."""
    return format_currency(Decimal(amount), currency, locale="en_GB")


def rate(amount: Decimal, currency: str) -> str:
    """Write an amount for one of many with all its decimals: 0.4 pence must not look like nothing."""
    return format_currency(amount, currency, locale="en_GB", decimal_quantization=amount == round(amount, 2))


@register.filter
def mm(length: float) -> str:
    """Write a length in millimetres with at most one decimal."""
    return plain_number(float(length), 1)


@register.filter
def megabytes(size_bytes: int) -> str:
    """Write a size in kB or MB."""
    return f"{size_bytes / 1e6:.1f} MB" if size_bytes >= 1_000_000 else f"{max(size_bytes // 1000, 1)} kB"


@register.simple_tag
@lru_cache(maxsize=100)
def icon(name: str) -> SafeString:
    """Draw an icon of the sprite; it says nothing by itself, words stand beside it."""
    from django.templatetags.static import static

    return format_html(ICON, static("icons.svg"), name)
