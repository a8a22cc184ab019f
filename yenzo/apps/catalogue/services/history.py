"""Undo of what all products share: each change keeps what was before, and goes back to it while nobody came between."""

from collections.abc import Callable, Iterator
from contextlib import contextmanager
from dataclasses import dataclass
from typing import Any, Literal

from django.db import transaction
from django.db.models import Max

from yenzo.apps.accounts.rights import SELLERS, Actor, service
from yenzo.apps.catalogue.models import KitMember, KitScope, Material, SharedChange, StockItem
from yenzo.apps.catalogue.services.locks import HISTORY, one_after_another
from yenzo.core.errors import DocumentError

Way = Literal["undo", "redo"]


@dataclass(frozen=True)
class Keeper:
    """How one kind of thing is read and put back, as JSON values; None for what isn't there.

    What is read stays locked until the transaction ends: sales and other people change some of it too.
    """

    read: Callable[[str], Any]
    write: Callable[[str, Any], None]


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


def _read_material(subject: str) -> Any:
    kind, _, key = subject.partition("/")
    found = Material.objects.select_for_update().filter(kind=kind, key=key).first()
    return found and found.document


def _write_material(subject: str, document: Any) -> None:
    kind, _, key = subject.partition("/")
    if document is None:
        Material.objects.filter(kind=kind, key=key).delete()
    else:
        Material.objects.update_or_create(kind=kind, key=key, defaults={"document": document})


def _read_stock(subject: str) -> Any:
    skus = subject.split("\n")
    # In the order in which orders take them, so that neither waits for the other.
    items = StockItem.objects.select_for_update().filter(sku__in=skus).order_by("sku")
    counted = {item.sku: item.pieces for item in items}
    return {sku: counted.get(sku) for sku in skus}


def _write_stock(_subject: str, counts: Any) -> None:
    StockItem.objects.filter(sku__in=[sku for sku, pieces in counts.items() if pieces is None]).delete()
    for sku, pieces in counts.items():
        if pieces is not None:
            StockItem.objects.update_or_create(sku=sku, defaults={"pieces": pieces})


MEMBER = ("product_id", "is_picked", "is_excluded", "variants", "overrides")


def _read_kit(subject: str) -> Any:
    scopes = KitScope.objects.select_for_update().filter(kit_id=int(subject))
    scope = scopes.values("reach", "category", "only_signed_in").first()
    members = list(KitMember.objects.filter(kit_id=int(subject)).order_by("product_id").values(*MEMBER))
    return scope and {**scope, "members": members}


def _write_kit(subject: str, users: Any) -> None:
    KitScope.objects.filter(kit_id=int(subject)).update(
        **{name: users[name] for name in ("reach", "category", "only_signed_in")}
    )
    KitMember.objects.filter(kit_id=int(subject)).delete()
    KitMember.objects.bulk_create(KitMember(kit_id=int(subject), **member) for member in users["members"])


KEEPERS = {
    "material": Keeper(_read_material, _write_material),
    "stock": Keeper(_read_stock, _write_stock),
    "kit": Keeper(_read_kit, _write_kit),
}
