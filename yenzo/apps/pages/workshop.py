"""What every page says of the workshop and its languages: a request comes in, template values go out."""

from django.conf import settings
from django.http import HttpRequest

from yenzo.apps.pages.languages import shop_languages
from yenzo.core.speaking import is_right_to_left, reader


def workshop_context(request: HttpRequest) -> dict[str, object]:  # noqa: ARG001 - Django's signature
    """Return the workshop's name and the reader's language for all templates."""
    return {
        "workshop_name": settings.WORKSHOP_NAME,
        "page_language": reader(),
        "page_direction": "rtl" if is_right_to_left(reader()) else "ltr",
        "shop_languages": shop_languages(),
    }
