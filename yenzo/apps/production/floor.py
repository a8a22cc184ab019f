"""The floor: a station and who works there come in; the job in hand and the next ones, as read there, go out."""

from dataclasses import dataclass
from functools import cached_property

from django.utils import timezone

from yenzo.apps.accounts.models import Person
from yenzo.apps.orders.showing import ShownArea, ShownLine, ShownPiece
from yenzo.apps.production import states
from yenzo.apps.production.models import Job, Station
from yenzo.apps.production.to_core import contents_of, estimate_of, method_in, method_of
from yenzo.core.planning.estimate import Estimate

NEXT_SHOWN = 4


@dataclass(frozen=True)
class ShownJob:
    """A job as the floor reads it: its piece, what this method makes of it, and what comes after."""

    job: Job

    @cached_property
    def piece(self) -> ShownPiece:
        """Its pieces, those of a list that it is of."""
        return next(one for one in ShownLine(self.job.line).pieces if one.index == self.job.index)

    @property
    def method_name(self) -> str:
        """What its method is called, as the set-up had it."""
        return method_in(self.piece.recorded, self.job.method).name

    @property
    def areas(self) -> tuple[ShownArea, ...]:
        """The areas that this method decorates."""
        own = {
            area.name for area in self.piece.recorded.areas if method_of(self.piece.recorded, area) == self.job.method
        }
        return tuple(area for area in self.piece.areas if area.name in own)

    @property
    def estimate(self) -> Estimate:
        """How long it takes, and why."""
        content = contents_of(self.piece.recorded)[self.job.method]
        return estimate_of(self.piece.recorded, self.job.method, content, self.job.quantity)

    @property
    def blank(self) -> str:
        """What to take: the goods, their variant and SKU."""
        setup, asked = self.piece.setup, self.piece.recorded.asked
        variant = self.piece.variant
        name = f"{setup.offer.name}, {variant.name}" if variant else setup.offer.name
        sku = setup.sku_of(asked.variant)
        return f"{name} ({sku})" if sku else name

    @cached_property
    def after(self) -> str:
        """The method that comes next on the piece; empty for none."""
        later = Job.objects.filter(line=self.job.line, index=self.job.index, place=self.job.place + 1).first()
        return method_in(self.piece.recorded, later.method).name if later else ""

    @property
    def is_late(self) -> bool:
        """Whether it is due before today."""
        return self.job.is_open and self.job.due_on < timezone.localdate()


@dataclass(frozen=True)
class Floor:
    """A station: what is in hand of who works there, what comes next, and who else has begun what.

    `stopped` were in their hands and aren't to be made any more: they are still to be laid aside.
    """

    station: Station
    in_hand: ShownJob | None
    coming: tuple[ShownJob, ...]
    others: tuple[Job, ...]
    left: int
    stopped: tuple[Job, ...] = ()


def floor_of(station: Station, person: Person) -> Floor:
    """Return a station as somebody sees it who works there."""
    jobs = Job.objects.at(station).shown()
    begun = list(jobs.filter(state=states.BEGUN).order_by("begun_at"))
    own = next((job for job in begun if job.holder_id == person.pk), None)
    ready = jobs.filter(state=states.READY).in_order()
    return Floor(
        station,
        ShownJob(own) if own else None,
        tuple(ShownJob(job) for job in ready[:NEXT_SHOWN]),
        tuple(job for job in begun if job.holder_id != person.pk),
        ready.count(),
        tuple(jobs.filter(state=states.STOPPED, holder=person).order_by("pk")),
    )


def job_called(scanned: str, station: Station) -> Job | None:
    """Return the open job of a station that a scanned number names: a job's own, or its piece's."""
    wanted = scanned.strip().upper()
    open_jobs = list(Job.objects.at(station).shown().filter(state__in=(states.READY, states.BEGUN)).in_order())
    return next((job for job in open_jobs if wanted in {job.number.upper(), job.piece.upper()}), None)
