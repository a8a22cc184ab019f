"""What every page says of the workshop and its languages: a request comes in, template values go out."""

from django.http import HttpRequest
from django.utils.functional import SimpleLazyObject

from yenzo.apps.workshop.current import workshop_name
from yenzo.apps.workshop.languages import shop_languages
from yenzo.apps.workshop.looks import mark_stands_alone, shown_mark, theme_address
from yenzo.core.translation import current_language, is_right_to_left


def workshop_context(request: HttpRequest) -> dict[str, object]:
    """Return the workshop's name and the reader's language for all templates."""
    return {
        # Answers to keystrokes name no workshop, and need not ask for it.
        "workshop_name": SimpleLazyObject(workshop_name),
        "theme_address": SimpleLazyObject(lambda: theme_address(request)),
        "shop_mark": SimpleLazyObject(lambda: shown_mark(request)),
        "mark_stands_alone": SimpleLazyObject(lambda: mark_stands_alone(request)),
        "page_language": current_language(),
        "page_direction": "rtl" if is_right_to_left(current_language()) else "ltr",
        "shop_languages": SimpleLazyObject(shop_languages),
    }
