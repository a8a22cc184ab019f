"""What every page says of the workshop: a request comes in, template values go out."""

from django.conf import settings
from django.http import HttpRequest


def workshop_context(request: HttpRequest) -> dict[str, object]:
    """Return the workshop's name for all templates."""
    return {
        "workshop_name": settings.WORKSHOP_NAME,
        "area_of_page": request.resolver_match and request.resolver_match.app_name,
    }
