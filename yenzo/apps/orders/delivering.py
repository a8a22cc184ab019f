"""When and how an order can be delivered: its pieces come in; each way there is, with its price and days, goes out."""

from collections.abc import Iterable
from dataclasses import dataclass
from datetime import date
from decimal import Decimal

from django.utils import timezone

from yenzo.apps.workshop.current import current_workshop
from yenzo.apps.workshop.to_core import calendar_of, deliveries_of
from yenzo.core.documents.setup import Setup
from yenzo.core.planning.calendar import Promise, WorkingCalendar, earliest, latest_leaving
from yenzo.core.pricing.delivery import DeliveryWay


@dataclass(frozen=True)
class OfferedWay:
    """A way to deliver an order: what it costs for it, and the earliest promise."""

    way: DeliveryWay
    price: Decimal
    promise: Promise


def promise_for(offered: OfferedWay, wished_for: date | None) -> Promise:
    """Return what is promised: the earliest, or the day that is wished for where that is later."""
    if wished_for is None or wished_for <= offered.promise.arrives_on:
        return offered.promise
    leaves_on = latest_leaving(calendar_of(current_workshop()), wished_for, offered.way.days)
    return Promise(max(leaves_on, offered.promise.leaves_on), wished_for)


def promise_from(way: DeliveryWay, setups: Iterable[Setup], today: date) -> Promise:
    """Return the earliest promise of a way for goods of these set-ups, if they are begun on a day."""
    calendar = calendar_of(current_workshop())
    return earliest(calendar, today, _lead_days(setups, calendar), way.days)


def _lead_days(setups: Iterable[Setup], calendar: WorkingCalendar) -> int:
    """Return how many working days it takes: what takes longest holds up the whole parcel."""
    takes = (setup.offer.lead_days for setup in setups)
    return max((calendar.lead_days if days is None else days for days in takes), default=calendar.lead_days)


def offered_ways(setups: Iterable[Setup], total: Decimal, *, today: date | None = None) -> tuple[OfferedWay, ...]:
    """Return all ways for an order of goods of these set-ups that come to this sum, as of today."""
    workshop, today = current_workshop(), today or timezone.localdate()
    calendar = calendar_of(workshop)
    lead_days = _lead_days(setups, calendar)
    return tuple(
        OfferedWay(way, way.price_for(total), earliest(calendar, today, lead_days, way.days))
        for way in deliveries_of(workshop)
    )
