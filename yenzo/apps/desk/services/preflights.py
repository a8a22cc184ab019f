"""Preflight: pieces are looked at as soon as they are paid, held or released; findings are waived.

An order is the lock over its preflights: every service that changes one locks its order first.
"""

from collections.abc import Iterable
from datetime import datetime
from typing import Any

from django.db import transaction
from django.db.models import prefetch_related_objects
from django.utils import timezone
from django.utils.translation import gettext

from yenzo.apps.accounts.models import Role
from yenzo.apps.accounts.rights import DESK, SYSTEM, SYSTEM_ACTOR, Actor, service
from yenzo.apps.desk.inspection import inspect_personalization
from yenzo.apps.desk.interface import Place, pieces_held, pieces_released
from yenzo.apps.desk.models import Finding, Preflight
from yenzo.apps.desk.waiting import update_waits_for
from yenzo.apps.orders.models import Order, OrderEvent
from yenzo.apps.orders.to_core import different_pieces
from yenzo.apps.outbox.orphaned_jobs import without_job
from yenzo.apps.pages.errors import AppError
from yenzo.apps.workshop.current import current_workshop
from yenzo.core.planning.release import Found

MOST_REASON = 300


class DeskError(AppError):
    """What was wanted of pieces can't be done as they stand; the message says why."""


def on_order_paid(sender: object, order: Order, **_more: Any) -> None:  # noqa: ARG001 - a signal's signature
    """Look at the pieces of an order that is paid."""
    inspect_order(SYSTEM_ACTOR, order.pk)


@service(SYSTEM)
def inspect_order(actor: Actor, order_id: int) -> list[Preflight]:
    """Look at all pieces of a paid order that nobody looked at yet; release what nothing holds."""
    with transaction.atomic():
        order = Order.objects.select_for_update().get(pk=order_id)
        if not order.is_paid:
            return []
        known = set(Preflight.objects.filter(line__order=order).values_list("line", "index"))
        lines = order.lines.select_related("order", "personalization__revision")
        sound: set[str] = set()
        wanted = [
            (
                Preflight(line=line, index=index, personalization=one, state=Preflight.State.HELD),
                inspect_personalization(one, sound=sound),
            )
            for line in lines
            for index, one in different_pieces(line).items()
            if (line.pk, index) not in known
        ]
        made = Preflight.objects.bulk_create([preflight for preflight, _ in wanted])
        Finding.objects.bulk_create(_finding(preflight, one) for preflight, found in wanted for one in found)
        prefetch_related_objects(made, "findings")
        if current_workshop().releases_clean:
            _release(actor, order, [preflight for preflight in made if not holding_findings(preflight)], is_told=False)
        update_waits_for(order)
    return made


def _finding(preflight: Preflight, found: Found) -> Finding:
    facts = found.model_dump()
    return Finding(preflight=preflight, personalization=preflight.personalization, **facts)


def findings_of(preflight: Preflight) -> list[Finding]:
    """Return what was found of pieces as they are now, waived ones included."""
    return [one for one in preflight.findings.all() if one.personalization_id == preflight.personalization_id]


def holding_findings(preflight: Preflight) -> list[Finding]:
    """Return the findings that keep pieces from being made: what blocks, and advice where the workshop says so."""
    advice_holds = current_workshop().advice_holds
    return [one for one in findings_of(preflight) if not one.is_waived and (one.blocks or advice_holds)]


def _release(actor: Actor, order: Order, preflights: Iterable[Preflight], *, is_told: bool = True) -> None:
    preflights = list(preflights)
    keys = [one.pk for one in preflights]
    if not keys:
        return
    Preflight.objects.filter(pk__in=keys).update(
        state=Preflight.State.RELEASED, held_why="", held_by=None, since=timezone.now()
    )
    for one in preflights:
        one.state, one.held_why, one.held_by = Preflight.State.RELEASED, "", None
        if is_told:
            note_event(actor, one, OrderEvent.Kind.RELEASED)
    pieces_released.send(Preflight, order=order, pieces=[place_of(one) for one in preflights])


def place_of(preflight: Preflight) -> Place:
    """Return which pieces a preflight is of."""
    return Place(preflight.line_id, preflight.index)


def note_event(actor: Actor, preflight: Preflight, kind: OrderEvent.Kind, **facts: str) -> None:
    """Note what happened of pieces on their order."""
    said = {"piece": preflight.piece, **facts}
    OrderEvent.objects.create(order=preflight.line.order, who=actor.name, kind=kind, facts=said)


def locked(preflight_id: int) -> tuple[Order, Preflight]:
    """Lock the order of a preflight, and return both as they are from then on; raises DeskError where there is none."""
    order_id = Preflight.objects.filter(pk=preflight_id).values_list("line__order", flat=True).first()
    if order_id is None:
        raise DeskError("There are no such pieces.")
    order = Order.objects.select_for_update().get(pk=order_id)
    preflight = Preflight.objects.select_related("line", "personalization__revision").get(pk=preflight_id)
    # One order in memory: what one part of a change finds out, the others know.
    preflight.line.order = order
    return order, preflight


def open_locked(preflight_id: int) -> tuple[Order, Preflight]:
    """Do as `locked`, for what is still to be made; raises DeskError for what is cancelled, or sent."""
    order, preflight = locked(preflight_id)
    if not order.is_paid or order.sent_at is not None:
        raise DeskError(gettext("Order {number} isn’t to be made any more.").format(number=order.number))
    return order, preflight


def to_be_made(preflight_id: int) -> tuple[Order, Preflight]:
    """Do as `open_locked`, for pieces that aren't cancelled."""
    order, preflight = open_locked(preflight_id)
    if preflight.is_cancelled:
        raise DeskError(gettext("{piece} is cancelled.").format(piece=preflight.piece))
    return order, preflight


def inspect_anew(preflight: Preflight) -> None:
    """Look at pieces once more, by the checks of today; what was waived of them stays so, as far as it is the same.

    To be called within a transaction that holds the order.
    """
    before = {_key(one): one for one in findings_of(preflight)}
    found = {_key(one): one for one in inspect_personalization(preflight.personalization)}
    gone = [one.pk for key, one in before.items() if key not in found]
    Finding.objects.filter(pk__in=gone).delete()
    Finding.objects.bulk_create(_finding(preflight, one) for key, one in found.items() if key not in before)


def _key(one: Finding | Found) -> tuple[object, ...]:
    return one.code, one.field, one.side, one.area, one.message


def settle(actor: Actor, order: Order, preflight: Preflight) -> None:
    """Release pieces that nothing holds any more, if the workshop lets them be released by themselves.

    To be called within a transaction that holds the order.
    """
    is_asked = preflight.questions.filter(state="open").exists()
    may_go = not (preflight.held_why or is_asked or holding_findings(preflight))
    if preflight.is_held and may_go and current_workshop().releases_clean:
        _release(actor, order, [preflight])
    update_waits_for(order)


def keep_held(preflight: Preflight, why: str = "", actor: Actor | None = None) -> None:
    """Hold pieces, by hand if a reason is given, and have what is planned of them wait.

    To be called within a transaction that holds the order.
    """
    preflight.state, preflight.held_why, preflight.since = Preflight.State.HELD, why[:MOST_REASON], timezone.now()
    preflight.held_by = actor.person if actor and why else None
    preflight.save(update_fields=["state", "held_why", "held_by", "since"])
    pieces_held.send(Preflight, order=preflight.line.order, pieces=[place_of(preflight)])


@service(*DESK)
def hold_pieces(actor: Actor, preflight_id: int, why: str) -> Preflight:
    """Keep pieces from being made (further); what is begun of them its holder finishes. A reason is needed."""
    return _held(actor, preflight_id, why)


@service(*DESK, Role.DECORATOR)
def hold_from_station(actor: Actor, preflight_id: int, question: str) -> Preflight:
    """Keep pieces from being made further, as somebody at a station asks the desk about them."""
    return _held(actor, preflight_id, f"The station asks: {question.strip()}")


def _held(actor: Actor, preflight_id: int, why: str) -> Preflight:
    with transaction.atomic():
        order, preflight = to_be_made(preflight_id)
        if not why.strip():
            raise DeskError("Please say why it is held: whoever releases it needs to know.")
        if preflight.held_why == why.strip():
            return preflight
        keep_held(preflight, why.strip(), actor)
        note_event(actor, preflight, OrderEvent.Kind.HELD, reason=preflight.held_why)
        update_waits_for(order)
    return preflight


@service(*DESK)
def release_pieces(actor: Actor, preflight_id: int) -> Preflight:
    """Release pieces to be made, after another look; raises DeskError as long as a finding holds them."""
    refused = ""
    with transaction.atomic():
        order, preflight = to_be_made(preflight_id)
        if not preflight.is_held:
            return preflight
        # What is found now stays found, also where it keeps them from being released.
        inspect_anew(preflight)
        held_by = holding_findings(preflight)
        if preflight.questions.filter(state="open").exists():
            refused = f"{preflight.piece} waits for its customer's answer. Take the question back to release it."
        elif held_by:
            refused = f"{preflight.piece} can't be released yet: {held_by[0].message}"
        else:
            _release(actor, order, [preflight])
        update_waits_for(order)
    if refused:
        raise DeskError(refused)
    return preflight


@service(*DESK)
def waive_finding(actor: Actor, finding_id: int, why: str) -> Finding:
    """Say that a finding may stay, and why; what nothing else holds is released. What was said first stays."""
    with transaction.atomic():
        found = Finding.objects.filter(pk=finding_id).values_list("preflight", flat=True).first()
        if found is None:
            raise DeskError("This finding is gone: the piece was looked at once more.")
        order, preflight = to_be_made(found)
        finding = Finding.objects.get(pk=finding_id)
        if finding.code == "unreadable":
            raise DeskError("What can't be drawn can't be made. Please mend it, or ask the customer.")
        if finding.is_waived:
            return finding
        if not why.strip():
            raise DeskError("Please say why it may stay: whoever makes it reads that.")
        waive(actor, preflight, finding, why.strip())
        settle(actor, order, preflight)
    return finding


def waive(actor: Actor, preflight: Preflight, finding: Finding, why: str) -> None:
    """Note that a finding may stay. To be called within a transaction that holds the order."""
    finding.waived_by, finding.waived_at, finding.waived_why = actor.name, timezone.now(), why[:MOST_REASON]
    finding.save(update_fields=["waived_by", "waived_at", "waived_why"])
    note_event(actor, preflight, OrderEvent.Kind.WAIVED, finding=finding.message, reason=finding.waived_why)


@service(SYSTEM)
def look_after_preflights(actor: Actor, before: datetime) -> None:
    """Look at paid orders that no job will look at any more, or that nobody looked at when they were paid."""
    paid = Order.objects.with_status(Order.PaymentState.PAID).filter(
        payments__ended_at__lt=before, lines__preflights=None
    )
    for order_id in without_job("orders.tell_paid", "order_id", paid.values_list("pk", flat=True).distinct()):
        inspect_order(actor, int(order_id))
