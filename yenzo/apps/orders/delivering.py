"""When and how an order can be delivered: its pieces come in; each way there is, with its price and days, goes out."""

from collections.abc import Iterable
from dataclasses import dataclass
from datetime import date
from decimal import Decimal

from django.utils import timezone

from yenzo.apps.workshop.own import own_workshop
from yenzo.apps.workshop.to_core import calendar_of, deliveries_of
from yenzo.core.documents.setup import Setup
from yenzo.core.planning.calendar import Promise, earliest
from yenzo.core.pricing.delivery import DeliveryWay


@dataclass(frozen=True)
class OfferedWay:
    """A way to deliver an order: what it costs for it, and the earliest promise."""

    way: DeliveryWay
    price: Decimal
    promise: Promise


def offered_ways(setups: Iterable[Setup], total: Decimal, *, today: date | None = None) -> tuple[OfferedWay, ...]:
    """Return all ways for an order of goods of these set-ups that come to this sum, as of today."""
    workshop, today = own_workshop(), today or timezone.localdate()
    calendar = calendar_of(workshop)
    takes = (setup.offer.lead_days for setup in setups)
    # What takes longest holds up the whole parcel.
    lead_days = max((calendar.lead_days if days is None else days for days in takes), default=calendar.lead_days)
    return tuple(
        OfferedWay(way, way.price_for(total), earliest(calendar, today, lead_days, way.days))
        for way in deliveries_of(workshop)
    )
