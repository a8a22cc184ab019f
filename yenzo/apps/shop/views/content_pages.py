"""Pages that the workshop writes itself: terms, privacy, imprint, how it delivers."""

from django.http import Http404, HttpRequest, HttpResponse
from django.shortcuts import render
from django.views.decorators.http import require_safe

from yenzo.apps.shop.found_by import absolute
from yenzo.apps.workshop.wording import PAGES, shop_words, shown_wording


@require_safe
def content_page(request: HttpRequest, key: str) -> HttpResponse:
    slot = next((one for one in PAGES if one.key == key), None)
    words = shop_words(key, shown_wording(request)) if slot is not None else None
    if words is None:
        raise Http404
    context = {"slot": slot, "words": words, "canonical": absolute(request.path)}
    return render(request, "shop/content_page.html", context)
