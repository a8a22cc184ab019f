"""What pages of the shop say of goods and of the visitor's basket."""

from django import template
from django.http import HttpRequest

from yenzo.apps.designs.models import Design
from yenzo.apps.designs.visitors import known_visitor

register = template.Library()


@register.simple_tag
def basket_count(request: HttpRequest) -> int:
    """Return how many pieces lie in the visitor's basket."""
    visitor = known_visitor(request)
    return Design.objects.filter(visitor=visitor, in_basket=True).count() if visitor else 0
