"""Jobs follow what is decided of pieces: made when they are released, held, stopped when they change, moved in time."""

from collections.abc import Iterable, Iterator
from datetime import date
from typing import Any

from django.db import transaction
from django.db.models import Max
from django.utils import timezone

from yenzo.apps.accounts.rights import SYSTEM, SYSTEM_ACTOR, Actor, service
from yenzo.apps.desk.interface import Place
from yenzo.apps.orders.models import Order
from yenzo.apps.orders.showing import ShownLine, ShownPiece
from yenzo.apps.pages.languages import read_in
from yenzo.apps.production import states
from yenzo.apps.production.models import Job, ParcelItem
from yenzo.apps.production.racking import note_rack
from yenzo.apps.production.services.jobs import note_progress, ready_next_jobs
from yenzo.apps.production.to_core import contents_of, estimate_of
from yenzo.apps.workshop.current import current_workshop
from yenzo.apps.workshop.to_core import calendar_of
from yenzo.core.translation import SOURCE_LANGUAGE


def on_pieces_released(sender: object, order: Order, pieces: list[Place], **_more: Any) -> None:  # noqa: ARG001
    """Make the jobs of pieces that are released, or let those go on that were held."""
    make_jobs(SYSTEM_ACTOR, order.pk, pieces)


def on_pieces_held(sender: object, order: Order, pieces: list[Place], **_more: Any) -> None:  # noqa: ARG001
    """Hold the jobs of pieces that aren't begun; whoever has begun one finishes it."""
    for place in pieces:
        _of(place).filter(state__in=(states.WAITING, states.READY)).update(state=states.HELD)


def on_change_wanted(sender: object, order: Order, place: Place, **_more: Any) -> list[str]:  # noqa: ARG001
    """Say what of pieces is begun, or made."""
    jobs = _of(place).filter(state__in=(states.BEGUN, states.DONE)).select_related("holder", "line__order")
    return [_said(job) for job in jobs.order_by("place", "attempt")]


def _said(job: Job) -> str:
    if job.state == states.DONE:
        return f"{job.number}, {job.made} made"
    return f"{job.number}, in the hands of {job.holder}"


def on_packed_wanted(sender: object, order: Order, place: Place, **_more: Any) -> int:  # noqa: ARG001
    """Say how many of pieces lie in parcels."""
    return ParcelItem.objects.filter(line=place.line_id, index=place.index).count()


def on_pieces_changed(sender: object, order: Order, place: Place, **_more: Any) -> None:  # noqa: ARG001
    """Stop the jobs of pieces as they were before, also those that are begun."""
    _of(place).filter(state__in=states.OPEN).update(state=states.STOPPED)
    note_progress(SYSTEM_ACTOR, order)


def on_order_replanned(sender: object, order: Order, **_more: Any) -> None:  # noqa: ARG001
    """Have the jobs of an order due on the day that it leaves now."""
    if order.leaves_on is not None:
        Job.objects.filter(line__order=order, state__in=states.OPEN).update(
            due_on=order.leaves_on, planned_on=order.leaves_on
        )


def on_order_cancelled(sender: object, order: Order, **_more: Any) -> None:  # noqa: ARG001
    """Stop what isn't begun of an order that is cancelled."""
    stop_jobs(SYSTEM_ACTOR, order.pk)


def _of(place: Place) -> Any:
    return Job.objects.filter(line=place.line_id, index=place.index)


@service(SYSTEM)
def make_jobs(actor: Actor, order_id: int, pieces: Iterable[Place]) -> list[Job]:  # noqa: ARG001
    """Make a job for each method of released pieces of an order, unless they are there; the first is ready.

    Those that were held go on where they were.
    """
    wanted = {(one.line_id, one.index) for one in pieces}
    with transaction.atomic(), read_in(SOURCE_LANGUAGE):
        order = Order.objects.select_for_update().get(pk=order_id)
        if not order.is_paid:
            return []
        there = Job.objects.filter(line__order=order).exclude(state=states.STOPPED)
        known = set(there.values_list("line", "index", "personalization"))
        last = _last_attempts(order)
        due_on = order.leaves_on or calendar_of(current_workshop()).after(timezone.localdate(), 3)
        jobs: list[Job] = []
        lines = order.lines.filter(pk__in={line for line, _ in wanted})
        for line in lines.select_related("order", "revision", "personalization__revision"):
            for piece in ShownLine(line).pieces:
                place = (line.pk, piece.index)
                if place in wanted and (*place, piece.personalization.pk) not in known:
                    jobs += _jobs_of(piece, due_on=due_on, attempt=last.get(place, 0) + 1)
                elif place in wanted:
                    _go_on(piece)
        return Job.objects.bulk_create(jobs)


def _last_attempts(order: Order) -> dict[tuple[int, int], int]:
    rows = Job.objects.filter(line__order=order).values_list("line", "index").annotate(last=Max("attempt"))
    return {(line, index): last for line, index, last in rows}


def _jobs_of(piece: ShownPiece, *, due_on: date, attempt: int) -> Iterator[Job]:
    for place, (method, content) in enumerate(contents_of(piece.recorded).items(), 1):
        planned = estimate_of(piece.recorded, method, content, piece.count)
        yield Job(
            line=piece.line,
            index=piece.index,
            personalization=piece.personalization,
            method=method,
            place=place,
            attempt=attempt,
            quantity=piece.count,
            state=states.READY if place == 1 else states.WAITING,
            minutes_planned=planned.minutes,
            cost_planned=planned.cost,
            due_on=due_on,
            planned_on=due_on,
        )


def _go_on(piece: ShownPiece) -> None:
    """Let the jobs of pieces go on that were held."""
    held = Job.objects.filter(line=piece.line, index=piece.index, state=states.HELD)
    if held.update(state=states.WAITING):
        ready_next_jobs(piece.line, piece.index)


@service(SYSTEM)
def stop_jobs(actor: Actor, order_id: int) -> None:  # noqa: ARG001
    """Stop the jobs of an order that aren't begun; whoever has begun one finishes it or puts it back."""
    with transaction.atomic():
        order = Order.objects.select_for_update().get(pk=order_id)
        Job.objects.filter(line__order=order, state__in=states.UNBEGUN).update(state=states.STOPPED)
        note_rack(order)
