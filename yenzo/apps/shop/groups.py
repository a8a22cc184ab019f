"""A group's page: its lists come in; what members fill in of each, and who has filled in what, go out."""

import uuid
from collections.abc import Sequence
from dataclasses import dataclass

from yenzo.apps.designs.models import Design, Group, NameList, NameRow
from yenzo.apps.designs.services.groups import Filled
from yenzo.apps.products.to_core import shop_setup
from yenzo.apps.shop.lists import Column, ListPage
from yenzo.core.asking.ask import ask
from yenzo.core.asking.check import is_needed
from yenzo.core.documents.entries import Entries, RawValue
from yenzo.core.documents.fields import TextField
from yenzo.core.documents.reading import read_entries
from yenzo.core.documents.setup import Setup
from yenzo.core.lists.columns import PIECES, takes_cells, targets_of


@dataclass(frozen=True)
class GroupGoods:
    """One of a group's goods, with what a member has filled in of it."""

    names: NameList
    page: ListPage
    own: tuple[NameRow, ...]

    @property
    def setup(self) -> Setup:
        """The set-up of its goods."""
        return self.page.listed.setup

    @property
    def asked(self) -> tuple[Column, ...]:
        """What each member fills in."""
        return tuple(column for column in self.page.columns if column.target)


def goods_of(group: Group, member: uuid.UUID | None) -> list[GroupGoods]:
    """Return a group's goods, with what a member has filled in already."""
    lists = group.lists.select_related("revision__product__live").order_by("created_at")
    found = []
    for names in lists:
        own = names.rows.active().filter(member=member).select_related("design") if member else ()
        found.append(GroupGoods(names, ListPage(names), tuple(own)))
    return found


def group_of(designs: Sequence[Design]) -> Group | None:
    """Return the group that all of these designs go together with; None where any of them goes by itself."""
    rows = NameRow.objects.filter(design__in=designs, is_out=False).select_related("list__group")
    groups = {row.design_id: row.list.group for row in rows}
    found = {groups.get(design.pk) for design in designs}
    group = found.pop() if len(found) == 1 else None
    return group if group and group.goes == Group.Goes.TOGETHER else None


def asked_of_members(names: NameList) -> Filled:
    """Return what members fill in where the organiser hasn't said it: texts, what must be chosen, and the variant."""
    setup, common = shop_setup(names.revision), read_entries(names.common)
    wanted = _left_open(setup, common)
    others = [target for target in targets_of(setup) if target.key != PIECES]
    targets = [target for target in others if target.key in wanted or target.key.startswith("@")]
    return Filled(tuple(target.key for target in targets), tuple(target.label for target in targets))


def _left_open(setup: Setup, common: Entries) -> frozenset[str]:
    """Return the fields that what is shared leaves open: texts, and what must be chosen; with it they may be asked."""
    asked = ask(setup, common)
    empty = [field for field in setup.fields if takes_cells(field) and not common.values.get(field.key)]
    texts = {field.key for field in empty if isinstance(field, TextField)}
    chosen = [field for field in empty if field.key not in texts and is_needed(setup, field, asked)]
    # Whether a text is asked may hang on what a member chooses, or writes into another.
    answers: list[dict[str, RawValue]] = [{}, dict.fromkeys(texts, "A")]
    answers += [{field.key: option} for field in chosen for option in setup.offered_of(field)]
    values = [common.model_copy(update={"values": {**common.values, **answer}}) for answer in answers]
    ever = {key for one in values for key in ask(setup, one).values}
    return frozenset((texts | {field.key for field in chosen}) & ever)
