"""Rows of a list: what all pieces share, and a row's own cells, come in; that row's entries go out.

A cell that is empty leaves what all share. What a cell names that isn't there is kept as it was written, for the checks
of the entries to tell; what they could not tell is told here.
"""

from collections.abc import Mapping, Sequence
from dataclasses import dataclass
from typing import Any

from yenzo.core.asking.kinds import EntryContext, kind_of
from yenzo.core.documents.axes import variant_at
from yenzo.core.documents.entries import MOST_PIECES, Entries, Meant
from yenzo.core.documents.rules import AXIS, VARIANT
from yenzo.core.documents.setup import Setup
from yenzo.core.lists.columns import PIECES, UNUSED, takes_cells
from yenzo.core.translation import translate


@dataclass(frozen=True)
class RowTrouble:
    """What a cell says that can't be understood: of which target, in words."""

    target: str
    message: str


@dataclass(frozen=True)
class RowRead:
    """A row as entries, and what of it could not be understood."""

    entries: Entries
    troubles: tuple[RowTrouble, ...]


def read_row(
    setup: Setup,
    common: Entries,
    targets: Sequence[str],
    cells: Sequence[str],
    meant: Mapping[str, tuple[Meant, ...]] | None = None,
) -> RowRead:
    """Return the entries of one row; `meant` are answers to questions about this row."""
    values: dict[str, Any] = dict(common.values)
    context = EntryContext(setup=setup, language=common.language, today=None)
    troubles: list[RowTrouble] = []
    changed: dict[str, Any] = {}
    along: dict[str, str] = {}
    for target, cell in zip(targets, cells, strict=False):
        if target == UNUSED or not cell:
            continue
        field = setup.field(target)
        if field is not None and takes_cells(field):
            raw = kind_of(field).of_cell(field, cell, context)
            if raw is None:
                troubles.append(_unclear(target, field.label, cell, translate("Please write yes or no.")))
            else:
                values[target] = raw
        elif target == PIECES:
            count = _count(cell)
            if count is None:
                why = translate("Please write a number from 1 to {most}.", most=MOST_PIECES)
                troubles.append(_unclear(target, translate("Pieces"), cell, why))
            else:
                changed["pieces"] = count
        elif target == VARIANT:
            found = _named(cell, [(one.key, one.name) for one in setup.offer.variants])
            changed["variant"] = found
            if found is None:
                troubles.append(_unclear(target, translate("Comes in"), cell, _offered(setup.offer.variants)))
        elif target.startswith(AXIS) and (axis := setup.offer.axis(target.removeprefix(AXIS))):
            found = _named(cell, [(one.key, one.name) for one in axis.values])
            if found is None:
                troubles.append(_unclear(target, axis.name, cell, _offered(axis.values)))
            else:
                along[axis.key] = found
    if along:
        changed["variant"], trouble = _variant_along(setup, common, along)
        troubles += [trouble] if trouble else []
    changed["values"] = values
    if meant:
        changed["meant"] = {**common.meant, **meant}
    return RowRead(common.model_copy(update=changed), tuple(troubles))


def _unclear(target: str, label: str, cell: str, remedy: str) -> RowTrouble:
    why = translate("“{cell}” can't be understood for “{label}”.", cell=cell, label=label)
    return RowTrouble(target, f"{why} {remedy}")


def _offered(offered: Sequence[Any]) -> str:
    return translate("There are: {names}.", names=", ".join(one.name for one in offered))


def _named(cell: str, offered: Sequence[tuple[str, str]]) -> str | None:
    wanted = cell.casefold()
    by_name = {name.casefold(): key for key, name in reversed(offered)} | {key: key for key, _ in offered}
    return by_name.get(wanted)


def _count(cell: str) -> int | None:
    digits = cell.replace("\u00a0", "").strip()
    count = int(digits) if digits.isdecimal() and len(digits) < 10 else 0
    return count if 1 <= count <= MOST_PIECES else None


def _variant_along(setup: Setup, common: Entries, along: dict[str, str]) -> tuple[str | None, RowTrouble | None]:
    """Return the variant that a row picks along the axes, the rest as all have it, and what keeps it from being had."""
    before = setup.offer.variant(common.variant) or next(iter(setup.offer.variants), None)
    wanted = {**(before.at if before else {}), **along}
    found = variant_at(setup.offer.variants, wanted)
    if found is None or any(found.at.get(axis) != value for axis, value in along.items()):
        first = next(iter(along))
        names = [axis.value(along[axis.key]) for axis in setup.offer.axes if axis.key in along]
        together = ", ".join(one.name for one in names if one)
        return None, RowTrouble(f"{AXIS}{first}", translate("“{together}” can't be had together.", together=together))
    return found.key, None
