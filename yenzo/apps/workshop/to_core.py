"""The workshop's settings come in, the core's working calendar and delivery ways go out."""

from typing import Any

from yenzo.apps.workshop.models import Workshop
from yenzo.core.planning.calendar import WorkingCalendar
from yenzo.core.pricing.delivery import DeliveryWay
from yenzo.core.theme import Theme


def calendar_of(workshop: Workshop) -> WorkingCalendar:
    """Return when the workshop works."""
    return WorkingCalendar.model_validate(workshop.calendar)


def theme_of(workshop: Workshop) -> Theme:
    """Return how the shop looks."""
    return theme_of_values(workshop.theme)


def theme_of_values(values: dict[str, Any]) -> Theme:
    """Return the theme that values are of, as they are kept or stand in an address."""
    return Theme.model_validate(values)


def home_country(workshop: Workshop) -> str:
    """Return the country that the workshop is in: that whose public holidays it keeps, else Great Britain."""
    return calendar_of(workshop).holidays_of.partition("-")[0] or "GB"


def deliveries_of(workshop: Workshop) -> tuple[DeliveryWay, ...]:
    """Return how the workshop delivers; where it hasn't said that, by post for nothing."""
    ways = tuple(DeliveryWay.model_validate(one) for one in workshop.deliveries)
    return ways or (DeliveryWay(key="post", name="Post"),)
