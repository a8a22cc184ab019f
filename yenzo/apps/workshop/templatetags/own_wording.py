"""The workshop's own words in templates: a slot's key comes in, its words go out."""

from django import template
from django.template import Context

from yenzo.apps.workshop.wording import PAGES, OwnWords, Slot, own_words, shown_wording

register = template.Library()


@register.simple_tag(takes_context=True)
def own(context: Context, key: str) -> OwnWords | None:
    """Return the words of a slot for whoever reads; mails, which no request asks for, have them as they are kept."""
    request = context.get("request")
    return own_words(key, shown_wording(request) if request is not None else None)


@register.simple_tag(takes_context=True)
def own_pages(context: Context) -> list[Slot]:
    """Return the pages that the workshop has written."""
    wording = shown_wording(context["request"])
    return [slot for slot in PAGES if own_words(slot.key, wording) is not None]
