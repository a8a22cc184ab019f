"""Jobs on the floor: taken, finished, spoilt and made again.

An order is the lock over its jobs: every service that changes one locks its order first, and only that.
"""

from collections import Counter
from collections.abc import Iterable
from datetime import date, timedelta

from django.db import transaction
from django.utils import timezone

from yenzo.apps.accounts.models import Person, Role
from yenzo.apps.accounts.rights import DESK, Actor, service
from yenzo.apps.desk.models import Preflight
from yenzo.apps.desk.services.preflights import hold_from_station
from yenzo.apps.desk.waiting import update_waits_for
from yenzo.apps.orders.models import Line, Order, OrderEvent
from yenzo.apps.orders.showing import ShownLine
from yenzo.apps.pages.errors import AppError
from yenzo.apps.production import states
from yenzo.apps.production.models import Job, Station
from yenzo.apps.production.piece_counts import made_by_pieces
from yenzo.apps.production.racking import note_rack
from yenzo.apps.production.to_core import contents_of, estimate_of
from yenzo.apps.stock.services.stock import OutOfStockError, take_stock
from yenzo.apps.workshop.current import current_workshop
from yenzo.apps.workshop.to_core import calendar_of

FLOOR = (*DESK, Role.DECORATOR)
MOST_REASON = 200


class JobError(AppError):
    """What was wanted of a job can't be done as it stands; the message says why."""


@service(*FLOOR)
def take_next(actor: Actor, station_id: int) -> Job | None:
    """Begin the job that is due first at a station; never one that somebody else is just taking. None if none is.

    Whoever has one in hand there keeps to that.
    """
    station = Station.objects.get(pk=station_id)
    in_hand = Job.objects.at(station).filter(state=states.BEGUN, holder=actor.member).first()
    if in_hand is not None:
        return in_hand
    ready = Job.objects.at(station).filter(state=states.READY).in_order()
    while (first := ready.first()) is not None:
        with transaction.atomic():
            job = _locked(first.pk)
            if job.state == states.READY:
                return _begun(actor, job)
    return None


@service(*FLOOR)
def begin_job(actor: Actor, job_id: int) -> Job:
    """Begin a job; raises JobError when it isn't ready, or is somebody else's."""
    with transaction.atomic():
        job = _locked(job_id)
        if job.state == states.BEGUN and job.holder == actor.person:
            return job
        if not states.may_become(job.state, states.BEGUN):
            raise JobError(_why_not(job))
        return _begun(actor, job)


def _begun(actor: Actor, job: Job) -> Job:
    job.state, job.holder, job.begun_at = states.BEGUN, actor.member, timezone.now()
    job.save(update_fields=["state", "holder", "begun_at"])
    order = job.line.order
    if order.begun_at is None:
        Order.objects.filter(pk=order.pk, begun_at=None).update(begun_at=job.begun_at)
        OrderEvent.objects.create(order=order, who=actor.name, kind=OrderEvent.Kind.BEGUN)
    return job


@service(*FLOOR)
def put_back(actor: Actor, job_id: int) -> Job:  # noqa: ARG001
    """Give a job back that was begun: ready for whoever takes it next, with what is made of it counted.

    That of an order that was cancelled meanwhile stops.
    """
    with transaction.atomic():
        job = _locked(job_id)
        if job.state != states.BEGUN:
            raise JobError(_why_not(job))
        job.minutes_taken += _minutes_since(job)
        job.state = states.STOPPED if job.line.order.is_cancelled else states.READY
        job.holder = None
        job.save(update_fields=["state", "holder", "minutes_taken"])
    return job


@service(*FLOOR)
def ask_about(actor: Actor, job_id: int, words: str) -> Job:
    """Ask the desk about a job in one's hands: it is put back, and its pieces are held until the desk has decided."""
    with transaction.atomic():
        job = _locked(job_id)
        if job.state != states.BEGUN:
            raise JobError(_why_not(job))
        if not words.strip():
            raise JobError("Please say what is to be known: the desk decides by that.")
        put_back(actor, job_id)
        preflight = Preflight.objects.get(line=job.line, index=job.index)
        hold_from_station(actor, preflight.pk, words)
    return job


@service(*FLOOR)
def lay_aside(actor: Actor, job_id: int) -> Job:
    """Say that a job is laid aside that was stopped while it was in one's hands."""
    with transaction.atomic():
        job = _locked(job_id)
        if job.state == states.STOPPED and job.holder == actor.person:
            job.holder = None
            job.save(update_fields=["holder"])
    return job


@service(*FLOOR)
def count_made(actor: Actor, job_id: int, count: int) -> Job:
    """Say how many more are made; the last one finishes the job, and what comes after it is ready."""
    with transaction.atomic():
        job = _locked(job_id)
        if job.state != states.BEGUN:
            raise JobError(_why_not(job))
        if not 1 <= count <= job.left:
            raise JobError(f"Of {job.number} {job.left} are left to be made; {count} can't be.")
        job.made += count
        _save_counts(actor, job)
    return job


@service(*FLOOR)
def count_spoilt(actor: Actor, job_id: int, count: int, reason: str) -> Job:
    """Say how many were spoilt and why: they are made again from the first method on, out of new blanks.

    Return the first job that makes them again; it says where no blank is left.
    """
    with transaction.atomic():
        job = _locked(job_id)
        if job.state != states.BEGUN:
            raise JobError(_why_not(job))
        if not 1 <= count <= job.left:
            raise JobError(f"Of {job.number} {job.left} are left; {count} can't be spoilt.")
        if job.line.order.is_cancelled:
            raise JobError(f"Order {job.line.order.number} is cancelled: nothing is made again. Please put it back.")
        if not reason.strip():
            raise JobError("Please say what happened: it is made again, and others learn from it.")
        job.spoilt += count
        again = _make_again(actor, job, count, reason.strip()[:MOST_REASON])
        facts = {"job": job.number, "count": count, "reason": reason.strip()[:MOST_REASON]}
        OrderEvent.objects.create(order=job.line.order, who=actor.name, kind=OrderEvent.Kind.SPOILT, facts=facts)
        _save_counts(actor, job)
    return again


def _make_again(actor: Actor, job: Job, count: int, reason: str) -> Job:
    """Make the jobs of a spoilt piece anew, up to the one that spoilt it, and take a blank for each."""
    piece = next(one for one in ShownLine(job.line).pieces if one.index == job.index)
    before = Job.objects.filter(line=job.line, index=job.index)
    attempt = max(before.values_list("attempt", flat=True)) + 1
    contents = contents_of(piece.recorded)
    why = reason
    is_held = Preflight.objects.held().filter(line=job.line, index=job.index).exists()
    begins = states.HELD if is_held else states.READY
    try:
        sku = piece.recorded.setup.sku_of(piece.recorded.asked.variant)
        take_stock(actor, Counter({sku: count}) if sku else {})
    except OutOfStockError as error:
        why = f"{reason} · {error}"
    made = [
        Job(
            line=job.line,
            index=job.index,
            personalization=job.personalization,
            method=method,
            place=place,
            attempt=attempt,
            quantity=count,
            state=begins if place == 1 else states.WAITING,
            minutes_planned=(planned := estimate_of(piece.recorded, method, content, count)).minutes,
            cost_planned=planned.cost,
            due_on=job.due_on,
            planned_on=job.planned_on,
            why=why[:MOST_REASON],
        )
        for place, (method, content) in enumerate(contents.items(), 1)
        if place <= job.place
    ]
    return Job.objects.bulk_create(made)[0]


def _save_counts(actor: Actor, job: Job) -> None:
    """Keep the counts of a job; finish it when nothing is left, and let what comes after it begin."""
    if job.left == 0:
        job.minutes_taken += _minutes_since(job)
        job.state, job.done_at = states.DONE, timezone.now()
    job.save(update_fields=["made", "spoilt", "minutes_taken", "state", "done_at"])
    if job.state == states.DONE:
        ready_next_jobs(job.line, job.index)
    note_progress(actor, job.line.order)


def ready_next_jobs(line: Line, index: int) -> None:
    """Let the next jobs of pieces begin, as far as nothing before them is still to be done."""
    same = Job.objects.filter(line=line, index=index)
    # What comes after waits for all pieces, those that are made again included.
    open_places = set(same.filter(state__in=(states.READY, states.BEGUN)).values_list("place", flat=True))
    waiting = same.filter(state=states.WAITING).order_by("place", "attempt")
    for one in waiting:
        if all(place >= one.place for place in open_places):
            one.state = states.READY
            one.save(update_fields=["state"])
            open_places.add(one.place)


def note_progress(actor: Actor, order: Order) -> None:
    """Count an order's pieces that are made; all of them make it ready to be sent."""
    unmade = Job.objects.filter(line__order=order, state__in=states.OPEN)
    made = sum(made_by_pieces(order).values())
    order.pieces_made = made
    is_made = made >= order.pieces and not unmade.exists()
    if is_made and order.made_at is None:
        order.made_at = timezone.now()
        OrderEvent.objects.create(order=order, who=actor.name, kind=OrderEvent.Kind.MADE)
    elif not is_made:
        order.made_at = None
    order.save(update_fields=["pieces_made", "made_at"])
    note_rack(order)
    update_waits_for(order)


@service(*DESK)
def plan_jobs(actor: Actor, line_id: int, place: int, day: date) -> list[Job]:  # noqa: ARG001
    """Have the open jobs of a line's method made on another day; those of a list stay together. Return them.

    Raises JobError for a day that is over, or on which the workshop is closed.
    """
    calendar = calendar_of(current_workshop())
    if day < timezone.localdate():
        raise JobError("That day is over.")
    if not calendar.is_open(day):
        raise JobError(f"The workshop is closed on {day:%A} {day.day} {day:%B}.")
    with transaction.atomic():
        order_id = Line.objects.filter(pk=line_id).values_list("order", flat=True).first()
        if order_id is None:
            raise JobError("There is no such job.")
        order = Order.objects.select_for_update().get(pk=order_id)
        jobs = Job.objects.filter(line=line_id, place=place, state__in=states.OPEN)
        jobs.update(planned_on=day)
        if not jobs:
            raise JobError(f"Nothing of it is to be made any more of order {order.number}.")
        return list(jobs)


@service(*DESK)
def save_station(
    actor: Actor,  # noqa: ARG001
    key: str,
    *,
    name: str,
    methods: list[str],
    hours: list[float],
    people: Iterable[Person] = (),
) -> Station:
    """Keep a station, a new one where none is called so, with who usually works there."""
    facts = {"name": name, "methods": methods, "hours": hours}
    with transaction.atomic():
        station, _ = Station.objects.update_or_create(key=key, defaults=facts)
        station.people.set(people)
    return station


def _locked(job_id: int) -> Job:
    """Lock a job's order, and return the job as it is from then on."""
    order_id = Job.objects.filter(pk=job_id).values_list("line__order", flat=True).first()
    if order_id is None:
        raise JobError("There is no such job.")
    order = Order.objects.select_for_update().get(pk=order_id)
    job = Job.objects.select_related("line", "holder").get(pk=job_id)
    job.line.order = order
    return job


def _minutes_since(job: Job) -> float:
    assert job.begun_at is not None
    return (timezone.now() - job.begun_at) / timedelta(minutes=1)


def _why_not(job: Job) -> str:
    if job.state == states.BEGUN:
        return f"{job.number} is begun by {job.holder}."
    return f"{job.number}: {Job.State(job.state).label.lower()}."
