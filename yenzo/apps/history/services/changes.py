"""Undo of what all products share: each change keeps what was before, and goes back to it while nobody came between."""

from collections.abc import Iterator
from contextlib import contextmanager
from typing import Any, Literal

from django.db import transaction
from django.db.models import Max

from yenzo.apps.accounts.rights import SELLERS, Actor, service
from yenzo.apps.history.interface import KEEPERS
from yenzo.apps.history.locks import HISTORY, one_after_another
from yenzo.apps.history.models import SharedChange
from yenzo.core.errors import DocumentError

Way = Literal["undo", "redo"]


@contextmanager
def recorded(actor: Actor, kept_by: str, subject: str, label: str) -> Iterator[None]:
    """Carry out a change in one transaction with the record of it; one that changes nothing leaves none."""
    keeper = KEEPERS[kept_by]
    with transaction.atomic():
        one_after_another(HISTORY)
        before = keeper.read(subject)
        yield
        after = keeper.read(subject)
        if before == after or actor.person is None:
            return
        SharedChange.objects.redoable_by(actor.member).update(state=SharedChange.State.DROPPED)
        SharedChange.objects.create(
            person=actor.member,
            label=label[:200],
            kept_by=kept_by,
            subject=subject,
            before=before,
            after=after,
            moved=_next_move(),
        )


@service(*SELLERS)
def step_shared(actor: Actor, way: Way) -> str:
    """Take back this person's latest change, or do again what was taken back last; return its label.

    Raises DocumentError when there is none, or when somebody came between.
    """
    changes = SharedChange.objects
    with transaction.atomic():
        one_after_another(HISTORY)
        change = (changes.undoable_by if way == "undo" else changes.redoable_by)(actor.member).first()
        if change is None:
            message = "There is nothing of yours to undo." if way == "undo" else "There is nothing to do again."
            raise DocumentError("nothing", "shared", message)
        if way == "undo":
            _go(change, change.after, change.before, SharedChange.State.UNDONE)
        else:
            _go(change, change.before, change.after, SharedChange.State.DONE)
    return change.label


def _go(change: SharedChange, expected: Any, wanted: Any, state: SharedChange.State) -> None:
    keeper = KEEPERS[change.kept_by]
    if keeper.read(change.subject) != expected:
        message = f"“{change.label}” can't be taken back or done again: it has changed since. Look at it and decide."
        raise DocumentError("stale", change.subject, message)
    keeper.write(change.subject, wanted)
    change.state, change.moved = state, _next_move()
    change.save(update_fields=["state", "moved"])


def _next_move() -> int:
    return (SharedChange.objects.aggregate(last=Max("moved"))["last"] or 0) + 1
