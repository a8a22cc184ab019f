"""What pages of the shop say of goods and of the visitor's basket."""

from collections.abc import Sequence

from django import template
from django.http import HttpRequest

from yenzo.apps.designs.models import Design, NameList
from yenzo.apps.designs.visitors import known_visitor
from yenzo.core.asking.spelled import SpelledLetter, spelled

register = template.Library()


@register.filter
def at(values: Sequence[str], number: int) -> str:
    """Return the value at a place, or nothing."""
    return values[number] if number < len(values) else ""


@register.filter
def letters(text: str) -> tuple[SpelledLetter, ...]:
    """Return a text letter by letter."""
    return spelled(text)


@register.simple_tag
def basket_count(request: HttpRequest) -> int:
    """Return how many pieces and lists lie in the visitor's basket."""
    visitor = known_visitor(request)
    if visitor is None:
        return 0
    own = {"visitor": visitor, "in_basket": True}
    return Design.objects.filter(**own).count() + NameList.objects.filter(**own).count()
