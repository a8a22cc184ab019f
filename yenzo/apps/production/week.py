"""The week: stations and open jobs come in; by station and day the minutes that are due, against its hours, go out."""

from collections import defaultdict
from collections.abc import Iterable
from dataclasses import dataclass
from datetime import date
from itertools import islice

from django.utils import timezone

from yenzo.apps.materials.models import Material
from yenzo.apps.production.models import Job, Station
from yenzo.apps.production.to_core import UNDECORATED
from yenzo.apps.workshop.own import own_workshop
from yenzo.apps.workshop.to_core import calendar_of
from yenzo.core.planning.calendar import WorkingCalendar

DAYS = 6
MOST_LISTED = 400


@dataclass(frozen=True)
class Day:
    """A working day of the board; the first one stands for all that is late, too."""

    day: date
    is_today: bool


@dataclass(frozen=True)
class Load:
    """What is due at a station on a day: how many jobs, their minutes, and the minutes that it works."""

    jobs: int
    minutes: float
    room: float
    late: int = 0

    @property
    def percent(self) -> int:
        """How full it is, at most twice as much as there is room for."""
        return min(200, round(100 * self.minutes / self.room)) if self.room else (200 if self.minutes else 0)

    @property
    def is_over(self) -> bool:
        """Whether there is more than fits."""
        return self.minutes > self.room

    @property
    def hours(self) -> float:
        """The hours that are due."""
        return self.minutes / 60


@dataclass(frozen=True)
class StationRow:
    """A station of the board with its load by day; None stands for methods that no station has."""

    station: Station | None
    loads: tuple[Load, ...]
    ready: int
    later: int


@dataclass(frozen=True)
class Week:
    """The board: its days, its stations, all of whose open jobs count, and the first open jobs; `left` are more."""

    days: tuple[Day, ...]
    rows: tuple[StationRow, ...]
    jobs: tuple[Job, ...]
    left: int
    names: dict[str, str]


def method_names() -> dict[str, str]:
    """Return what the workshop calls its methods now, by key."""
    methods = Material.objects.filter(kind=Material.Kind.METHOD)
    return {UNDECORATED: "Without decoration", **{one.key: str(one.document["name"]) for one in methods}}


def week_of(today: date | None = None) -> Week:
    """Return the board as of today."""
    today = today or timezone.localdate()
    calendar = calendar_of(own_workshop())
    days = _days(calendar, today)
    jobs = list(Job.objects.open())
    stations = list(Station.objects.all())
    taken = {method for station in stations for method in station.methods}
    rows = [_row(station, [job for job in jobs if job.method in station.methods], days, today) for station in stations]
    homeless = [job for job in jobs if job.method not in taken]
    if homeless:
        rows.append(_row(None, homeless, days, today))
    shown = tuple(Job.objects.open().shown()[:MOST_LISTED])
    board = tuple(Day(day, day == today) for day in days)
    return Week(board, tuple(rows), shown, len(jobs) - len(shown), method_names())


def _days(calendar: WorkingCalendar, today: date) -> list[date]:
    """Return the next working days; today for a workshop that doesn't open again."""
    return list(islice(calendar.open_days(today), DAYS)) or [today]


def _row(station: Station | None, jobs: Iterable[Job], days: list[date], today: date) -> StationRow:
    by_day: dict[date, list[Job]] = defaultdict(list)
    ready = later = 0
    for job in jobs:
        ready += job.state == Job.State.READY
        # What is late, or due on a day without work, is due on the next one there is.
        day = next((day for day in days if day >= job.due_on), None)
        if day is None:
            later += 1
        else:
            by_day[day].append(job)
    loads = []
    for day in days:
        due = by_day[day]
        left = sum(job.minutes_planned * job.left / job.quantity for job in due)
        room = 60 * station.hours[day.weekday()] if station else 0
        loads.append(Load(len(due), left, room, sum(job.due_on < today for job in due)))
    return StationRow(station, tuple(loads), ready, later)
