"""Stations, and the jobs that are done there."""

from typing import ClassVar, Self

from django.db import models
from django.db.models import F, Q

from yenzo.apps.accounts.models import Person
from yenzo.apps.designs.models import Personalization
from yenzo.apps.orders.models import Line
from yenzo.apps.production import states

WEEKDAYS = 7
USUAL_HOURS = (8, 8, 8, 8, 8, 0, 0)


def usual_hours() -> list[float]:
    """Return the hours of a new station by weekday, Monday first."""
    return list(USUAL_HOURS)


class Station(models.Model):
    """Where work of some methods is done, and for how many hours on each weekday."""

    key = models.SlugField(max_length=60, unique=True)
    name = models.CharField(max_length=80)
    methods = models.JSONField(default=list, help_text="keys of methods; empty stands for work without decoration")
    hours = models.JSONField(default=usual_hours, help_text="by weekday, Monday first")
    people = models.ManyToManyField(Person, blank=True, related_name="stations", help_text="who usually works there")

    class Meta:
        ordering: ClassVar = ["name"]

    def __str__(self) -> str:
        return self.name


class JobQuerySet(models.QuerySet["Job"]):
    def open(self) -> Self:
        """Return the jobs that are still to be done, what is due first first; a list stays together, in its order."""
        return self.filter(state__in=states.OPEN).in_order()

    def in_order(self) -> Self:
        """Return the jobs as they are done: rushes first, then by day, order, line and piece."""
        return self.order_by(
            "-line__order__is_rush", "planned_on", "line__order__number", "line__number", "index", "place", "attempt"
        )

    def at(self, station: Station) -> Self:
        """Return the jobs of a station."""
        return self.filter(method__in=station.methods)

    def shown(self) -> Self:
        """Return the jobs with what lists show of them."""
        return self.select_related("line__order", "line__revision", "personalization__revision", "holder")


class Job(models.Model):
    """The work of one method on pieces that are alike: how many, how many are made, spoilt, and by whom it is held."""

    class State(models.TextChoices):
        HELD = states.HELD, "Held by the desk"
        WAITING = states.WAITING, "Waits for what comes before"
        READY = states.READY, "Ready"
        BEGUN = states.BEGUN, "Begun"
        DONE = states.DONE, "Done"
        STOPPED = states.STOPPED, "Stopped"

    line = models.ForeignKey(Line, on_delete=models.PROTECT, related_name="jobs")
    index = models.PositiveIntegerField(default=1, help_text="the first of its pieces, counted in the line")
    personalization = models.ForeignKey(Personalization, on_delete=models.PROTECT, related_name="jobs")
    method = models.CharField(max_length=60, blank=True, help_text="key; empty for goods without decoration")
    place = models.PositiveSmallIntegerField(help_text="which of the piece's methods it is, the first is made first")
    attempt = models.PositiveSmallIntegerField(default=1)
    quantity = models.PositiveIntegerField()
    made = models.PositiveIntegerField(default=0)
    spoilt = models.PositiveIntegerField(default=0)
    state = models.CharField(max_length=8, choices=State.choices)
    minutes_planned = models.FloatField(default=0)
    minutes_taken = models.FloatField(default=0)
    cost_planned = models.DecimalField(max_digits=12, decimal_places=2, default=0)
    due_on = models.DateField()
    planned_on = models.DateField(help_text="when it is to be made; the day that it is due, unless it was moved")
    holder = models.ForeignKey(Person, null=True, blank=True, on_delete=models.SET_NULL, related_name="+")
    begun_at = models.DateTimeField(null=True, blank=True)
    done_at = models.DateTimeField(null=True, blank=True)
    why = models.CharField(max_length=200, blank=True, help_text="why it is made again")

    objects = JobQuerySet.as_manager()

    class Meta:
        constraints: ClassVar = [
            models.UniqueConstraint(fields=["line", "index", "place", "attempt"], name="one_job_a_method_and_attempt"),
            models.CheckConstraint(condition=Q(made__lte=F("quantity") - F("spoilt")), name="job_counts_its_pieces"),
            models.CheckConstraint(condition=Q(quantity__gte=1), name="job_has_pieces"),
            models.CheckConstraint(
                condition=~Q(state="begun") | Q(begun_at__isnull=False), name="begun_job_says_since_when"
            ),
        ]
        indexes: ClassVar = [models.Index(fields=["state", "method", "planned_on"], name="job_is_found_by_station")]

    def __str__(self) -> str:
        return self.number

    @property
    def piece(self) -> str:
        """What its pieces are called on tickets."""
        return f"{self.line}.{self.index}" if self.line.is_list else str(self.line)

    @property
    def number(self) -> str:
        """What the job is called: its piece, which method, and which attempt if it isn't the first."""
        again = f"+{self.attempt}" if self.attempt > 1 else ""
        return f"{self.piece}/{self.place}{again}"

    @property
    def left(self) -> int:
        """How many are still to be made."""
        return self.quantity - self.made - self.spoilt

    @property
    def is_planned_late(self) -> bool:
        """Whether it is to be made after the day that it is due."""
        return self.planned_on > self.due_on

    @property
    def is_open(self) -> bool:
        """Whether it is still to be done."""
        return self.state in states.OPEN
