"""Working days: when a workshop works, and a day, come in; the day when something can be done goes out.

Public holidays are those of the library `holidays`, by country and part of it (ISO 3166-1 and 3166-2).
"""

from collections.abc import Iterator
from dataclasses import dataclass
from datetime import date, timedelta
from functools import lru_cache

import holidays
from pydantic import Field, field_validator

from yenzo.core.documents.values import Frozen, Text

ONE_DAY = timedelta(days=1)
# A workshop that is closed for longer than this is closed.
MOST_DAYS_AHEAD = 1100
COUNTRIES: dict[str, list[str]] = holidays.list_supported_countries(include_aliases=False)


class ClosedDays(Frozen):
    """Days on which nothing is made, both ends included, and why."""

    first: date
    last: date
    why: Text = ""

    def __contains__(self, day: object) -> bool:
        """Tell whether a day is among them."""
        return isinstance(day, date) and self.first <= day <= self.last


class WorkingCalendar(Frozen):
    """When a workshop works: weekdays (0 is Monday), days on which it is closed, whose public holidays it keeps.

    `lead_days` is how many working days it needs for goods that don't say that themselves.
    """

    weekdays: tuple[int, ...] = (0, 1, 2, 3, 4)
    closed: tuple[ClosedDays, ...] = ()
    holidays_of: str = Field(default="", pattern=r"^([A-Z]{2}(-[A-Z0-9]{1,4})?)?$")
    lead_days: int = Field(default=3, ge=0, le=365)

    @field_validator("weekdays")
    @classmethod
    def _some_day(cls, weekdays: tuple[int, ...]) -> tuple[int, ...]:
        known = tuple(sorted({day for day in weekdays if 0 <= day <= 6}))
        if not known:
            raise ValueError("a workshop works on one day of the week at least")
        return known

    def why_closed(self, day: date) -> str | None:
        """Return why nothing is made on a day, by its name where it has one (else empty); None where it is open."""
        if day.weekday() not in self.weekdays:
            return ""
        for closed in self.closed:
            if day in closed:
                return closed.why
        return _holidays(self.holidays_of, day.year).get(day)

    def is_open(self, day: date) -> bool:
        """Tell whether something is made on a day."""
        return self.why_closed(day) is None

    def open_days(self, first: date) -> Iterator[date]:
        """Yield the working days from a day on, that day included."""
        for ahead in range(MOST_DAYS_AHEAD):
            day = first + ahead * ONE_DAY
            if self.is_open(day):
                yield day

    def after(self, first: date, working_days: int) -> date:
        """Return the day that many working days after a day; for none, the first working day from then on.

        A workshop that doesn't open again within three years gives the last day looked at.
        """
        left = working_days
        for day in self.open_days(first):
            if left == 0 or (day > first and left == 1):
                return day
            left -= day > first
        return first + MOST_DAYS_AHEAD * ONE_DAY


@dataclass(frozen=True)
class Promise:
    """The day by which something leaves the workshop, and the day by which it arrives."""

    leaves_on: date
    arrives_on: date


def earliest(calendar: WorkingCalendar, today: date, lead_days: int, days_on_the_way: int) -> Promise:
    """Return the earliest promise for what takes so many working days to make and to be brought."""
    leaves_on = calendar.after(today, lead_days)
    return Promise(leaves_on, calendar.after(leaves_on, days_on_the_way))


def latest_leaving(calendar: WorkingCalendar, arrives_on: date, days_on_the_way: int) -> date:
    """Return the last working day on which something may leave that is to arrive by a day."""
    day = arrives_on
    left = days_on_the_way
    for _ in range(MOST_DAYS_AHEAD):
        if left <= 0 and calendar.is_open(day):
            return day
        left -= calendar.is_open(day)
        day -= ONE_DAY
    return day


@lru_cache(maxsize=64)
def _holidays(of: str, year: int) -> dict[date, str]:
    if not of:
        return {}
    country, _, part = of.partition("-")
    return dict(holidays.country_holidays(country, subdiv=part or None, years=year, language=None))
