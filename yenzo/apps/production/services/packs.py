"""Packs: wanted when pieces are released, kept as first made, wanted again when one failed."""

from collections.abc import Iterable
from datetime import datetime
from typing import TYPE_CHECKING, Any

from django.db import transaction
from django.utils import timezone
from procrastinate.contrib.django import app

from yenzo.apps.accounts.rights import STAFF, SYSTEM, SYSTEM_ACTOR, Actor, service
from yenzo.apps.desk.interface import Place
from yenzo.apps.files.store import store_file
from yenzo.apps.orders.models import Order, OrderEvent
from yenzo.apps.orders.to_core import different_pieces
from yenzo.apps.outbox.orphaned_jobs import without_job
from yenzo.apps.production.models import Pack

if TYPE_CHECKING:
    from yenzo.core.planning import pack as core_pack

MAKING = "production.make_pack"
SETTLED = (Pack.State.DONE, Pack.State.DROPPED)


def on_pieces_released(sender: object, order: Order, pieces: list[Place], **_more: Any) -> None:  # noqa: ARG001
    """Want the packs of pieces that are released, in the transaction that does that."""
    request_packs(SYSTEM_ACTOR, order.pk, pieces)


def on_pieces_changed(sender: object, order: Order, place: Place, **_more: Any) -> None:  # noqa: ARG001
    """Drop packs of pieces as they were before that aren't made; those that are stay, as what was."""
    packs = Pack.objects.filter(line=place.line_id, index=place.index).exclude(state=Pack.State.DONE)
    packs.update(state=Pack.State.DROPPED, trouble="")


@service(SYSTEM)
def request_packs(actor: Actor, order_id: int, pieces: Iterable[Place]) -> list[Pack]:  # noqa: ARG001
    """Have the worker make the packs of released pieces of an order, unless they are wanted already."""
    packs = []
    wanted = {(one.line_id, one.index) for one in pieces}
    with transaction.atomic():
        lines = Order.objects.get(pk=order_id).lines.filter(pk__in={line for line, _ in wanted})
        for line in lines.select_related("personalization"):
            for index, personalization in different_pieces(line).items():
                if (line.pk, index) in wanted:
                    pack, is_new = Pack.objects.get_or_create(line=line, index=index, personalization=personalization)
                    packs.append(pack)
                    if is_new:
                        _hand_to_worker(pack)
    return packs


@service(*STAFF)
def retry_pack(actor: Actor, pack_id: int) -> Pack:
    """Try a failed pack once more. One that is made stays as it was made."""
    with transaction.atomic():
        pack = Pack.objects.select_for_update().select_related("line__order").get(pk=pack_id)
        if pack.state == Pack.State.FAILED:
            pack.state, pack.trouble, pack.steps_done = Pack.State.WAITING, "", 0
            pack.save(update_fields=["state", "trouble", "steps_done"])
            _note(actor, pack, OrderEvent.Kind.PACK_AGAIN)
            _hand_to_worker(pack)
    return pack


def _note(actor: Actor, pack: Pack, kind: OrderEvent.Kind) -> None:
    facts = {"piece": pack.piece}
    OrderEvent.objects.create(order=pack.line.order, who=actor.name, kind=kind, facts=facts)


@service(SYSTEM)
def note_progress(actor: Actor, pack_id: int, steps_done: int, steps: int) -> None:  # noqa: ARG001
    """Say how far the making is; nothing changes on a pack that is done."""
    Pack.objects.filter(pk=pack_id).exclude(state__in=SETTLED).update(
        state=Pack.State.MAKING, steps_done=steps_done, steps=steps, trouble=""
    )


@service(SYSTEM)
def keep_pack(actor: Actor, pack_id: int, made: "core_pack.Pack", *, questioned: str = "") -> Pack:
    """Keep a pack that was made, with what today's checks ask of it. The first one stays: that is the past."""
    stored = store_file(made.data)
    with transaction.atomic():
        pack = Pack.objects.select_for_update(of=("self",)).select_related("line__order").get(pk=pack_id)
        if pack.state in SETTLED:
            return pack
        pack.state, pack.file, pack.engine = Pack.State.DONE, stored, made.manifest.engine
        pack.made_at, pack.steps_done, pack.trouble = timezone.now(), pack.steps, ""
        pack.questioned = questioned[:500]
        pack.save()
        _note(actor, pack, OrderEvent.Kind.PACK_READY)
    return pack


@service(SYSTEM)
def note_delay(actor: Actor, pack_id: int, why: str) -> None:  # noqa: ARG001
    """Say that a pack could not be made yet and is tried again by itself."""
    delayed = {"state": Pack.State.WAITING, "trouble": why[:500], "steps_done": 0}
    Pack.objects.filter(pk=pack_id).exclude(state__in=SETTLED).update(**delayed)


@service(SYSTEM)
def note_failure(actor: Actor, pack_id: int, why: str) -> None:  # noqa: ARG001
    """Say that a pack could not be made, and why, where staff see it."""
    failed = {"state": Pack.State.FAILED, "trouble": why[:500]}
    Pack.objects.filter(pk=pack_id).exclude(state__in=SETTLED).update(**failed)


@service(SYSTEM)
def look_after_packs(actor: Actor, before: datetime) -> None:  # noqa: ARG001
    """Have packs made that no job will make any more."""
    waiting = Pack.objects.under_way().filter(wanted_at__lt=before).in_bulk()
    for key in without_job(MAKING, "pack_id", waiting):
        _hand_to_worker(waiting[int(key)])


def _hand_to_worker(pack: Pack) -> None:
    # One pack is never made by two workers at once, unless one of them is taken for dead.
    app.configure_task(MAKING, lock=f"pack-{pack.pk}").defer(pack_id=pack.pk)
