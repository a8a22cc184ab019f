"""What every page says of the workshop and its languages: a request comes in, template values go out."""

from django.http import HttpRequest
from django.utils.functional import SimpleLazyObject

from yenzo.apps.workshop.languages import shop_languages
from yenzo.apps.workshop.looks import mark_stands_alone, shown_mark, theme_address
from yenzo.apps.workshop.own import workshop_name
from yenzo.core.speaking import is_right_to_left, reader


def workshop_context(request: HttpRequest) -> dict[str, object]:
    """Return the workshop's name and the reader's language for all templates."""
    return {
        # Answers to keystrokes name no workshop, and need not ask for it.
        "workshop_name": SimpleLazyObject(workshop_name),
        "theme_address": SimpleLazyObject(lambda: theme_address(request)),
        "shop_mark": SimpleLazyObject(lambda: shown_mark(request)),
        "mark_stands_alone": SimpleLazyObject(lambda: mark_stands_alone(request)),
        "page_language": reader(),
        "page_direction": "rtl" if is_right_to_left(reader()) else "ltr",
        "shop_languages": SimpleLazyObject(shop_languages),
    }
