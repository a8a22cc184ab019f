"""The week: stations and open jobs come in; by station and day what is planned, against its hours, goes out."""

from collections import defaultdict
from collections.abc import Iterable
from dataclasses import dataclass
from datetime import date
from itertools import islice

from django.utils import timezone

from yenzo.apps.accounts.models import Person
from yenzo.apps.materials.models import Material
from yenzo.apps.production.models import Job, Station
from yenzo.apps.production.to_core import UNDECORATED
from yenzo.apps.stock.models import StockItem
from yenzo.apps.workshop.current import current_workshop
from yenzo.apps.workshop.to_core import calendar_of
from yenzo.core.planning.calendar import WorkingCalendar

DAYS = 6
MOST_LISTED, MOST_CARDS = 40, 12
# All that the board reads of hundreds of jobs: no documents, no addresses.
OF_JOBS = ("method", "place", "index", "attempt", "quantity", "made", "spoilt", "state", "minutes_planned", "why")
SHOWN = (
    *OF_JOBS,
    *("due_on", "planned_on", "line__number", "line__rows", "line__order__number", "line__order__is_rush"),
    *("line__revision__name", "holder__first_name", "holder__last_name", "holder__username"),
)


@dataclass(frozen=True)
class Day:
    """A working day of the board; the first one stands for all that is late, too."""

    day: date
    is_today: bool


@dataclass(frozen=True)
class Card:
    """The jobs of one line and method on a day: a list of names stays together. It is moved as a whole."""

    jobs: tuple[Job, ...]

    @property
    def first(self) -> Job:
        """The first of them."""
        return self.jobs[0]

    @property
    def key(self) -> str:
        """What identifies it on the board."""
        return f"{self.first.line_id}-{self.first.place}"

    @property
    def pieces(self) -> int:
        """How many pieces are left to be made."""
        return sum(job.left for job in self.jobs)

    @property
    def minutes(self) -> float:
        """The minutes that they take."""
        return sum(job.minutes_planned * job.left / job.quantity for job in self.jobs)

    @property
    def number(self) -> str:
        """What it is called: its piece, or its line where that has several."""
        return f"{self.first.line}/{self.first.place}" if len(self.jobs) > 1 else self.first.number

    @property
    def is_late(self) -> bool:
        """Whether it was due before today."""
        return self.first.due_on < timezone.localdate()

    @property
    def is_planned_late(self) -> bool:
        """Whether it is planned after the day that it is due."""
        return any(job.is_planned_late for job in self.jobs)

    @property
    def is_ready(self) -> bool:
        """Whether any of it can be begun or is begun."""
        return any(job.state in {Job.State.READY, Job.State.BEGUN} for job in self.jobs)

    @property
    def is_held(self) -> bool:
        """Whether the desk holds any of it."""
        return any(job.state == Job.State.HELD for job in self.jobs)


@dataclass(frozen=True)
class Load:
    """What is planned at a station on a day: how many jobs, their minutes, the minutes that it works, and cards."""

    day: date
    jobs: int
    minutes: float
    room: float
    late: int = 0
    cards: tuple[Card, ...] = ()

    @property
    def shown(self) -> tuple[Card, ...]:
        """The first cards."""
        return self.cards[:MOST_CARDS]

    @property
    def more(self) -> int:
        """How many cards aren't shown."""
        return max(0, len(self.cards) - MOST_CARDS)

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
        """The hours that are planned."""
        return self.minutes / 60


@dataclass(frozen=True)
class StationRow:
    """A station of the board with its load by day; None stands for methods that no station has."""

    station: Station | None
    loads: tuple[Load, ...]
    ready: int
    later: int

    @property
    def people(self) -> list[Person]:
        """Who usually works there."""
        return list(self.station.people.all()) if self.station else []


@dataclass(frozen=True)
class Week:
    """The board: its days, its stations, all of whose open jobs count, and the first open jobs; `left` are more."""

    days: tuple[Day, ...]
    rows: tuple[StationRow, ...]
    jobs: tuple[Job, ...]
    left: int
    names: dict[str, str]
    low: tuple[StockItem, ...] = ()


def method_names() -> dict[str, str]:
    """Return what the workshop calls its methods now, by key."""
    methods = Material.objects.filter(kind=Material.Kind.METHOD)
    return {UNDECORATED: "Without decoration", **{one.key: str(one.document["name"]) for one in methods}}


def week_of(today: date | None = None) -> Week:
    """Return the board as of today."""
    today = today or timezone.localdate()
    calendar = calendar_of(current_workshop())
    days = _days(calendar, today)
    jobs = list(Job.objects.open().select_related("line__order", "line__revision", "holder").only(*SHOWN))
    stations = list(Station.objects.prefetch_related("people"))
    taken = {method for station in stations for method in station.methods}
    rows = [_row(station, [job for job in jobs if job.method in station.methods], days, today) for station in stations]
    homeless = [job for job in jobs if job.method not in taken]
    if homeless:
        rows.append(_row(None, homeless, days, today))
    low = tuple(StockItem.objects.low()[:MOST_CARDS])
    board = tuple(Day(day, day == today) for day in days)
    return Week(board, tuple(rows), tuple(jobs[:MOST_LISTED]), max(0, len(jobs) - MOST_LISTED), method_names(), low)


def _days(calendar: WorkingCalendar, today: date) -> list[date]:
    """Return the next working days; today for a workshop that doesn't open again."""
    return list(islice(calendar.open_days(today), DAYS)) or [today]


def _row(station: Station | None, jobs: Iterable[Job], days: list[date], today: date) -> StationRow:
    by_day: dict[date, list[Job]] = defaultdict(list)
    ready = later = 0
    for job in jobs:
        ready += job.state == Job.State.READY
        # What is late, or planned on a day without work, is done on the next one there is.
        day = next((day for day in days if day >= job.planned_on), None)
        if day is None:
            later += 1
        else:
            by_day[day].append(job)
    loads = []
    for day in days:
        due = by_day[day]
        left = sum(job.minutes_planned * job.left / job.quantity for job in due)
        room = 60 * station.hours[day.weekday()] if station else 0
        late = sum(job.due_on < today for job in due)
        loads.append(Load(day, len(due), left, room, late, tuple(_cards(due))))
    return StationRow(station, tuple(loads), ready, later)


def _cards(jobs: Iterable[Job]) -> list[Card]:
    together: dict[tuple[int, int, int], list[Job]] = defaultdict(list)
    for job in jobs:
        # What is made again goes by itself: it has a reason of its own.
        together[job.line_id, job.place, job.attempt].append(job)
    return [Card(tuple(one)) for one in together.values()]
