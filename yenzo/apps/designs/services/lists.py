"""Lists of names: begun, filled, changed row by row, checked, put in the basket and out of it again."""

import uuid
from collections.abc import Mapping, Sequence
from dataclasses import dataclass
from datetime import datetime
from typing import Any

from django.db import transaction
from django.db.models import F, Max
from django.utils.translation import gettext, ngettext
from procrastinate.contrib.django import app

from yenzo.apps.accounts.rights import SYSTEM, Actor, service
from yenzo.apps.designs.models import NameList, NameRow, Upload
from yenzo.apps.designs.services.designs import VISITORS
from yenzo.apps.designs.services.personalizations import keep_rows
from yenzo.apps.outbox.orphaned_jobs import without_job
from yenzo.apps.pages.errors import AppError
from yenzo.apps.products.models import Revision
from yenzo.core.documents.entries import Entries
from yenzo.core.documents.reading import dump_document
from yenzo.core.evaluation import Evaluation
from yenzo.core.lists.columns import Columns
from yenzo.core.lists.tables import MOST_ROWS, Table
from yenzo.core.translation import current_language

CHECKING = "designs.check_list"
ROWS_A_JOB = 50
# Whoever waits for a list waits for all workers there are.
QUEUES = ("default", "artwork")


class ListError(AppError):
    """What was wanted of a list can't be done; the message says why."""


@service(*VISITORS)
def begin_list(
    actor: Actor,  # noqa: ARG001 - a visitor owns the lists, whoever is signed in
    revision: Revision,
    common: Entries,
    *,
    visitor: uuid.UUID,
    uploads: Sequence[Upload],
    list_id: uuid.UUID | None = None,
) -> NameList:
    """Begin a list with what all its pieces share, or change that of one; then all its rows are to be checked anew."""
    with transaction.atomic():
        own = NameList.objects.select_for_update(of=("self",)).of_visitor(visitor)
        names = own.filter(pk=list_id, revision__product=revision.product).first() if list_id else None
        names = names or NameList(visitor=visitor)
        names.revision, names.common, names.language = revision, dump_document(common), current_language()
        names.save()
        names.uploads.set(uploads)
        _check_anew(names)
    return names


@service(*VISITORS)
def fill_list(
    actor: Actor,  # noqa: ARG001
    list_id: uuid.UUID,
    table: Table,
    columns: Columns,
    *,
    visitor: uuid.UUID,
    adds: bool,
) -> NameList:
    """Put the rows of a table in a list, in place of those there or, of a table that is as wide, after them."""
    rows = table.rows[1:] if columns.has_heads else table.rows
    with transaction.atomic():
        names = own_list(list_id, visitor)
        if adds and names.targets and table.width > len(names.targets):
            raise ListError(
                gettext(
                    "The list has {columns} columns and these rows have {more}. Please give the rows the same columns."
                ).format(columns=len(names.targets), more=table.width)
            )
        if not adds or not names.targets:
            names.rows.all().delete()
            names.targets, names.heads = list(columns.targets), list(columns.heads)
            names.save(update_fields=["targets", "heads", "changed_at"])
        _append(names, rows)
    return names


def _append(names: NameList, rows: Sequence[Sequence[str]]) -> None:
    there = names.rows.active().count()
    if there + len(rows) > MOST_ROWS:
        raise ListError(
            gettext("The list would have {count} rows; there is room for {most}.").format(
                count=there + len(rows), most=MOST_ROWS
            )
        )
    last = names.rows.aggregate(last=Max("number"))["last"] or 0
    width = len(names.targets)
    NameRow.objects.bulk_create(
        NameRow(list=names, number=last + at, cells=[*cells[:width], *[""] * (width - len(cells))])
        for at, cells in enumerate(rows, 1)
    )
    leave_basket(names)


@service(*VISITORS)
def set_columns(actor: Actor, list_id: uuid.UUID, targets: Sequence[str], *, visitor: uuid.UUID) -> NameList:  # noqa: ARG001
    """Say what each column gives; all rows are to be checked anew. Each target is given by one column only."""
    with transaction.atomic():
        names = own_list(list_id, visitor)
        once = [target if target not in targets[:at] else "" for at, target in enumerate(targets)]
        if once != names.targets:
            names.targets = once
            names.save(update_fields=["targets", "changed_at"])
            _check_anew(names)
    return names


@service(*VISITORS)
def add_column(actor: Actor, list_id: uuid.UUID, target: str, head: str, *, visitor: uuid.UUID) -> NameList:  # noqa: ARG001
    """Give the list one more column, empty in all rows."""
    with transaction.atomic():
        names = own_list(list_id, visitor)
        if target not in names.targets:
            names.targets, names.heads = [*names.targets, target], [*names.heads, head]
            names.save(update_fields=["targets", "heads", "changed_at"])
            for row in names.rows.select_for_update():
                row.cells = [*row.cells, ""]
                row.save(update_fields=["cells"])
    return names


@service(*VISITORS)
def change_rows(
    actor: Actor,  # noqa: ARG001
    list_id: uuid.UUID,
    cells: Mapping[int, Mapping[int, str]],
    *,
    visitor: uuid.UUID,
) -> NameList:
    """Write cells, by number of row and column; rows that change are to be checked anew."""
    with transaction.atomic():
        names = own_list(list_id, visitor)
        changed = []
        for row in names.rows.select_for_update().filter(number__in=cells):
            after = list(row.cells)
            for at, cell in cells[row.number].items():
                if at < len(after):
                    after[at] = cell
            if after != row.cells:
                row.cells = after
                changed.append(unchecked(row))
        NameRow.objects.bulk_update(changed, ["cells", *CHECK_FIELDS])
        if changed:
            leave_basket(names)
    return names


@service(*VISITORS)
def mean_row(
    actor: Actor,  # noqa: ARG001
    list_id: uuid.UUID,
    number: int,
    field: str,
    answer: Mapping[str, str],
    *,
    visitor: uuid.UUID,
) -> None:
    """Keep the answer to a question about a row: it is right so."""
    with transaction.atomic():
        names = own_list(list_id, visitor)
        row = names.rows.select_for_update().filter(number=number).first()
        if row is None:
            return
        there = row.meant.get(field, [])
        if dict(answer) not in there:
            row.meant = {**row.meant, field: [*there, dict(answer)]}
            unchecked(row).save(update_fields=["meant", *CHECK_FIELDS])


@service(*VISITORS)
def take_row_out(
    actor: Actor,  # noqa: ARG001
    list_id: uuid.UUID,
    number: int,
    *,
    visitor: uuid.UUID,
    is_out: bool,
) -> None:
    """Take a row out of its list, or put it back where it was."""
    with transaction.atomic():
        names = own_list(list_id, visitor)
        names.rows.filter(number=number).update(is_out=is_out)
        leave_basket(names)


@service(*VISITORS)
def renew_list(actor: Actor, list_id: uuid.UUID, revision: Revision, *, visitor: uuid.UUID) -> None:  # noqa: ARG001
    """Have a list made as its product is sold by now; all its rows are to be checked anew."""
    with transaction.atomic():
        names = own_list(list_id, visitor)
        names.revision = revision
        names.save(update_fields=["revision", "changed_at"])
        _check_anew(names)


@service(*VISITORS)
def put_list_in_basket(actor: Actor, list_id: uuid.UUID, *, visitor: uuid.UUID) -> None:  # noqa: ARG001
    """Put a list in its visitor's basket; raises ListError while any row isn't in order."""
    with transaction.atomic():
        names = own_list(list_id, visitor)
        if names.group is not None and names.group.each_pays:
            raise ListError(gettext("Each member orders and pays their own: there is nothing to be ordered together."))
        active = names.rows.active()
        faulty = active.exclude(state=NameRow.State.GOOD).count()
        if faulty or not active.exists():
            raise ListError(
                ngettext(
                    "{count} row must be mended or taken out first.",
                    "{count} rows must be mended or taken out first.",
                    faulty,
                ).format(count=faulty)
                if faulty
                else gettext("There is no row yet.")
            )
        names.in_basket = True
        names.save(update_fields=["in_basket", "changed_at"])


@service(*VISITORS)
def take_list_out(actor: Actor, list_id: uuid.UUID, *, visitor: uuid.UUID) -> bool:  # noqa: ARG001
    """Take a list out of its visitor's basket; it stays a list. Tell whether it was there."""
    return bool(NameList.objects.filter(pk=list_id, visitor=visitor, in_basket=True).update(in_basket=False))


@service(*VISITORS, SYSTEM)
def check_soon(actor: Actor, names: NameList, *, signed_in: bool = False) -> None:  # noqa: ARG001
    """Have workers check all rows of a list that are to be checked, some at a time, unless they are at it."""
    if not without_job(CHECKING, "list_id", [names.pk]):
        return
    numbers = list(names.rows.unchecked().values_list("number", flat=True))
    for at in range(0, len(numbers), ROWS_A_JOB):
        part = numbers[at : at + ROWS_A_JOB]
        queue = QUEUES[at // ROWS_A_JOB % len(QUEUES)]
        where = {"list_id": str(names.pk), "first": part[0], "last": part[-1]}
        app.configure_task(CHECKING, queue=queue).defer(**where, signed_in=signed_in)


@service(SYSTEM)
def look_after_lists(actor: Actor, before: datetime) -> None:
    """Have rows checked that no job will check any more."""
    waiting = NameList.objects.filter(ordered_at=None, changed_at__lt=before, rows__state=NameRow.State.UNCHECKED)
    names = {str(one.pk): one for one in waiting.distinct()}
    for key in without_job(CHECKING, "list_id", names):
        check_soon(actor, names[key])


@dataclass(frozen=True)
class CheckedRow:
    """A row with the entries that it was read as, what followed from them, and what is told of it in words."""

    row: NameRow
    entries: Entries
    evaluation: Evaluation
    told: dict[str, Any]


@service(*VISITORS, SYSTEM)
def keep_checked(actor: Actor, names: NameList, checked: Sequence[CheckedRow]) -> None:  # noqa: ARG001
    """Keep what a check found of rows; of rows that were changed meanwhile it says nothing."""
    with transaction.atomic():
        locked = NameRow.objects.select_for_update().filter(pk__in=[one.row.pk for one in checked])
        versions = {row.pk: row.version for row in locked}
        still = [one for one in checked if versions.get(one.row.pk) == one.row.version]
        good = [one for one in still if not one.told["faults"]]
        kept = keep_rows(names.revision, [(one.entries, one.evaluation) for one in good], names.uploads.all())
        made = {one.row.pk: personalization for one, personalization in zip(good, kept, strict=True)}
        for one in still:
            row, sides = one.row, one.evaluation.scene.sides
            row.personalization = made.get(row.pk)
            row.state = NameRow.State.GOOD if row.pk in made else NameRow.State.FAULTY
            row.told, row.digest = one.told, sides[0].digest if sides else ""
        NameRow.objects.bulk_update([one.row for one in still], ["personalization", "state", "told", "digest"])


CHECK_FIELDS = ["state", "version", "personalization"]


def unchecked(row: NameRow) -> NameRow:
    """Return a row as one that is to be checked; not saved yet."""
    row.state, row.version, row.personalization = NameRow.State.UNCHECKED, row.version + 1, None
    return row


def _check_anew(names: NameList) -> None:
    names.rows.update(state=NameRow.State.UNCHECKED, version=F("version") + 1, personalization=None)
    leave_basket(names)


def leave_basket(names: NameList) -> None:
    """Take a list that changes out of the basket: what lies there was looked through."""
    names.in_basket = False
    names.save(update_fields=["in_basket", "changed_at"])


def own_list(list_id: uuid.UUID, visitor: uuid.UUID) -> NameList:
    """Return a visitor's list, locked; raises ListError. To be called within a transaction."""
    names = NameList.objects.select_for_update(of=("self",)).of_visitor(visitor).filter(pk=list_id).first()
    if names is None:
        raise ListError(gettext("This list isn't there any more: it was ordered, or is somebody else's."))
    return names
