"""The workshop's own words in templates: a slot's key comes in, its words go out."""

from django import template
from django.template import Context

from yenzo.apps.workshop.wording import PAGES, ShopWords, Slot, shop_words, shown_wording

register = template.Library()


@register.simple_tag(name="shop_words", takes_context=True)
def words_of_slot(context: Context, key: str) -> ShopWords | None:
    """Return the words of a slot for whoever reads; mails, which no request asks for, have them as they are kept."""
    request = context.get("request")
    return shop_words(key, shown_wording(request) if request is not None else None)


@register.simple_tag(takes_context=True)
def content_pages(context: Context) -> list[Slot]:
    """Return the pages that the workshop has written."""
    wording = shown_wording(context["request"])
    return [slot for slot in PAGES if shop_words(slot.key, wording) is not None]
