"""Groups: made of a list, changed by its organiser, filled by its members."""

import uuid
from collections.abc import Sequence
from dataclasses import dataclass
from datetime import date

from django.db import transaction
from django.db.models import Max
from django.utils.translation import gettext

from yenzo.apps.accounts.rights import Actor, service
from yenzo.apps.designs.models import Design, Group, NameList, NameRow
from yenzo.apps.designs.services.designs import VISITORS, remove_design
from yenzo.apps.designs.services.lists import ListError, leave_basket, own_list, unchecked
from yenzo.core.lists.tables import MOST_ROWS


@dataclass(frozen=True)
class GroupTerms:
    """What an organiser says of a group."""

    title: str
    organiser: str
    closes_on: date
    pays: str
    goes: str


@dataclass(frozen=True)
class Filled:
    """What a column of a list gives and what it is headed by, in the order of the columns."""

    targets: tuple[str, ...]
    heads: tuple[str, ...]


@service(*VISITORS)
def open_group(
    actor: Actor,  # noqa: ARG001 - a visitor owns the lists, whoever is signed in
    list_id: uuid.UUID,
    terms: GroupTerms,
    asked: Filled,
    *,
    visitor: uuid.UUID,
) -> Group:
    """Let members fill in a list; one without columns gets those that are asked. A list that has a group keeps it."""
    with transaction.atomic():
        names = own_list(list_id, visitor)
        group = names.group or Group(visitor=visitor)
        group.title, group.organiser, group.closes_on = terms.title, terms.organiser, terms.closes_on
        group.pays, group.goes = terms.pays, terms.goes
        group.save()
        _take_part(names, group, asked)
        # Who pays may be another now: what else the group orders is looked through anew, too.
        for other in group.lists.filter(in_basket=True):
            leave_basket(other)
    return group


def _take_part(names: NameList, group: Group, asked: Filled) -> None:
    names.group = group
    if not any(names.targets):
        names.targets, names.heads = list(asked.targets), list(asked.heads)
    names.save(update_fields=["group", "targets", "heads", "changed_at"])
    leave_basket(names)


@service(*VISITORS)
def join_group(actor: Actor, list_id: uuid.UUID, group_id: int, asked: Filled, *, visitor: uuid.UUID) -> None:  # noqa: ARG001
    """Let the members of another list's group fill in this one, too."""
    with transaction.atomic():
        names = own_list(list_id, visitor)
        _take_part(names, Group.objects.get(pk=group_id, visitor=visitor), asked)


@service(*VISITORS)
def fill_in(
    actor: Actor,  # noqa: ARG001
    list_id: uuid.UUID,
    cells: Sequence[str],
    *,
    member: uuid.UUID,
    by: str,
    sent_as: uuid.UUID,
    design: Design | None = None,
) -> NameRow:
    """Put a member's own row in a group's list, or in the place of what they sent as the same; raises ListError."""
    with transaction.atomic():
        names = NameList.objects.select_for_update(of=("self",)).select_related("group").get(pk=list_id)
        if names.group is None or not names.group.is_open or names.ordered_at is not None:
            raise ListError(gettext("This group takes no more orders. Please ask who organises it."))
        row = names.rows.select_for_update().filter(member=member, sent_as=sent_as).first()
        if row is None:
            if names.rows.active().count() >= MOST_ROWS:
                raise ListError(gettext("This list is full. Please ask who organises it."))
            last = names.rows.aggregate(last=Max("number"))["last"] or 0
            row = NameRow(list=names, number=last + 1, member=member, sent_as=sent_as)
        row.cells, row.by, row.design, row.is_out = list(cells), by, design, False
        unchecked(row).save()
        leave_basket(names)
    return row


@service(*VISITORS)
def take_own_back(actor: Actor, list_id: uuid.UUID, number: int, *, member: uuid.UUID) -> bool:
    """Take a member's own row out, and of their basket, while the group is open and they haven't ordered it.

    Tell whether it was there.
    """
    with transaction.atomic():
        names = NameList.objects.select_for_update(of=("self",)).select_related("group").get(pk=list_id)
        if names.group is None or not names.group.is_open or names.ordered_at is not None:
            return False
        own = names.rows.active().filter(number=number, member=member).select_related("design")
        row = own.filter(design__ordered_at=None).first()
        if row is None:
            return False
        row.is_out = True
        row.save(update_fields=["is_out"])
        if row.design is not None:
            remove_design(actor, row.design.pk, visitor=member)
        leave_basket(names)
    return True
