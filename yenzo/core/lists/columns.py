"""Columns of a list: a set-up and a table come in; what each column gives, as far as it can be told, goes out."""

from collections.abc import Mapping, Sequence
from dataclasses import dataclass
from difflib import SequenceMatcher

from yenzo.core.asking.kinds import EntryContext, kind_of
from yenzo.core.documents.fields import AddressField, AnyField, ArtworkField, ExtraField, HeadingField
from yenzo.core.documents.own_field import OwnItemsField
from yenzo.core.documents.rules import AXIS, VARIANT
from yenzo.core.documents.setup import Setup
from yenzo.core.lists.tables import Table
from yenzo.core.translation import current_language, translate

PIECES = "@pieces"
UNUSED = ""
# How alike a heading and a name must be, and how many of a column's cells must be something that can be chosen.
ALIKE, CHOSEN_SHARE = 0.8, 0.8
# What stands below a heading says nothing of it unless there are some.
LEAST_BELOW, MOST_COUNT_DIGITS = 2, 4


@dataclass(frozen=True)
class Target:
    """What a column can give: an entry of a field, the variant or where it stands on an axis, or how many pieces.

    `names` are what it is called by heads; `offered` what can be chosen, as people read it, `choices` however written.
    """

    key: str
    label: str
    names: tuple[str, ...]
    offered: tuple[str, ...] = ()
    choices: frozenset[str] = frozenset()
    is_needed: bool = False


@dataclass(frozen=True)
class Columns:
    """What each column gives (a target's key, or nothing), what it is headed by, and whether its head is a row."""

    targets: tuple[str, ...]
    heads: tuple[str, ...]
    has_heads: bool


def targets_of(setup: Setup) -> tuple[Target, ...]:
    """Return all that the columns of a list can give, in the order of the form."""
    context = EntryContext(setup=setup, language=current_language(), today=None)
    fields = [_of_field(field, context) for field in setup.fields if takes_cells(field)]
    offer = setup.offer
    if offer.axes:
        fields += [
            _chosen(f"{AXIS}{axis.key}", axis.name, [(one.key, one.name) for one in axis.values]) for axis in offer.axes
        ]
    elif len(offer.variants) > 1:
        fields.append(_chosen(VARIANT, translate("Comes in"), [(one.key, one.name) for one in offer.variants]))
    pieces = translate("Pieces")
    return (*fields, Target(PIECES, pieces, (pieces, translate("Quantity"), translate("Number of pieces"))))


def takes_cells(field: AnyField) -> bool:
    """Tell whether a cell can hold an entry of a field: files, addresses and what is moved by hand have no room."""
    no_room = isinstance(field, ArtworkField | AddressField | OwnItemsField | ExtraField | HeadingField)
    return field.is_asked and field.has_entry and not no_room


def match_columns(table: Table, targets: Sequence[Target], remembered: Mapping[str, str]) -> Columns:
    """Return what each column of a table gives, by its head where the first row has them, else by its cells.

    `remembered` are heads that somebody has matched before. What can't be told is left for people to say.
    """
    first = table.rows[0] if table.rows else ()
    by_head = _by_heads(first, targets, remembered)
    has_heads = any(by_head) or _looks_headed(table, targets)
    cells = table.rows[1:] if has_heads else table.rows
    columns = [[row[at] for row in cells] for at in range(table.width)]
    found = list(by_head) if has_heads else [UNUSED] * table.width
    for at, column in enumerate(columns):
        found[at] = found[at] or _by_choices(column, targets, found)
    if not any(by_head):
        counted = next((at for at, column in enumerate(columns) if not found[at] and _are_counts(column)), None)
        if counted is not None:
            found[counted] = PIECES
        _fill_in_turn(found, columns, targets)
    heads = first if has_heads else tuple(translate("Column {number}", number=at) for at in range(1, table.width + 1))
    return Columns(tuple(found), tuple(heads), has_heads)


def _looks_headed(table: Table, targets: Sequence[Target]) -> bool:
    """Tell whether the first row is another kind of thing than those below it, in any column."""
    first, rest = table.rows[0] if table.rows else (), table.rows[1:]
    if len(rest) < LEAST_BELOW:
        return False
    for at, head in enumerate(first):
        below = [row[at] for row in rest]
        chosen = _by_choices(below, targets, ())
        offered = next((target.choices for target in targets if target.key == chosen), frozenset[str]())
        if head and ((chosen and head.casefold() not in offered) or (_are_counts(below) and not head.isdecimal())):
            return True
    return False


def _are_counts(column: Sequence[str]) -> bool:
    """Tell whether most cells of a column are whole numbers such as people count pieces by."""
    filled = [cell for cell in column if cell]
    counts = sum(cell.isdecimal() and len(cell) <= MOST_COUNT_DIGITS for cell in filled)
    return bool(filled) and counts / len(filled) >= CHOSEN_SHARE


def _of_field(field: AnyField, context: EntryContext) -> Target:
    kind = kind_of(field)
    offered = context.setup.offered_of(field)
    words = set(offered) | {kind.words(field, key, context).casefold() for key in offered}
    words |= {kind.produced(field, key, context).casefold() for key in offered}
    names = tuple(name for name in (field.label, field.workshop_name, field.key) if name)
    shown = tuple(kind.words(field, key, context) for key in offered)
    return Target(field.key, field.label, names, shown, frozenset(words - {""}), is_needed=field.required)


def _chosen(key: str, label: str, offered: Sequence[tuple[str, str]]) -> Target:
    words = frozenset(word for one, name in offered for word in (one, name.casefold()))
    return Target(key, label, (label,), tuple(name for _, name in offered), words)


def _by_heads(first: Sequence[str], targets: Sequence[Target], remembered: Mapping[str, str]) -> tuple[str, ...]:
    known = {target.key for target in targets}
    found: list[str] = []
    for head in first:
        before = remembered.get(head.casefold())
        target = before if before in known else _named(head, targets)
        found.append(target if target and target not in found else UNUSED)
    return tuple(found)


def _named(head: str, targets: Sequence[Target]) -> str:
    """Return the target that a head names, word for word or nearly so."""
    wanted = head.casefold().strip(" :*")
    if not wanted:
        return UNUSED
    alike = [
        (SequenceMatcher(None, wanted, name.casefold()).ratio(), -at, target.key)
        for at, target in enumerate(targets)
        for name in target.names
    ]
    best = max(alike, default=(0.0, 0, UNUSED))
    return best[2] if best[0] >= ALIKE else UNUSED


def _by_choices(column: Sequence[str], targets: Sequence[Target], taken: Sequence[str]) -> str:
    """Return the free target most of whose cells name something that can be chosen for it."""
    filled = [cell.casefold() for cell in column if cell]
    for target in targets:
        if filled and target.choices and target.key not in taken:
            share = sum(cell in target.choices for cell in filled) / len(filled)
            if share >= CHOSEN_SHARE:
                return target.key
    return UNUSED


def _fill_in_turn(found: list[str], columns: Sequence[Sequence[str]], targets: Sequence[Target]) -> None:
    """Let the columns that are left give what can be typed, in the order of the form, what is needed first."""
    free = [target for target in targets if not target.choices and target.key not in (*found, PIECES)]
    free.sort(key=lambda target: not target.is_needed)
    for at, column in enumerate(columns):
        if found[at] == UNUSED and any(column) and free:
            found[at] = free.pop(0).key
