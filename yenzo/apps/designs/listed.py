"""Lists of names as they are checked and read: a list comes in; its rows, their verdicts and its price go out."""

import json
from collections.abc import Iterable, Sequence
from dataclasses import dataclass
from decimal import Decimal
from functools import cached_property
from typing import Any

from yenzo.apps.accounts.rights import Actor
from yenzo.apps.designs.models import NameList, NameRow
from yenzo.apps.designs.request_context import request_context
from yenzo.apps.designs.services.lists import CheckedRow, check_soon, keep_checked
from yenzo.apps.designs.to_core import ROW, amounts_of, asked_of, meant_of
from yenzo.apps.files.store import StoredAssets
from yenzo.apps.products.to_core import shop_setup
from yenzo.core.asking.ask import Context
from yenzo.core.asking.second_look.listed import CODE, twice_in_list
from yenzo.core.documents.entries import Entries
from yenzo.core.documents.reading import read_entries
from yenzo.core.documents.setup import Setup
from yenzo.core.evaluation import Evaluation, evaluate
from yenzo.core.lists.columns import UNUSED, Target, targets_of
from yenzo.core.lists.rows import RowRead, read_row
from yenzo.core.pricing.order import OrderLine, quote_of_list, quote_order
from yenzo.core.pricing.quote import Quote
from yenzo.core.translation import base_language, current_language

# So many rows are checked while their page is waited for; of more, those that it shows first, the rest by workers.
MOST_AT_ONCE, FIRST_AT_ONCE = 40, 8


def row_read(setup: Setup, names: NameList, common: Entries, row: NameRow) -> RowRead:
    """Return the entries of a row, with the answers to questions about it."""
    return read_row(setup, common, names.targets, row.cells, meant_of(row))


def check_some(actor: Actor, names: NameList, rows: Iterable[NameRow], *, signed_in: bool = False) -> None:
    """Check rows, and keep what was found; in the language of who reads."""
    setup = shop_setup(names.revision)
    context, common, assets = request_context([setup], signed_in=signed_in), read_entries(names.common), StoredAssets()
    checked = []
    for row in rows:
        read = row_read(setup, names, common, row)
        evaluation = evaluate(setup, read.entries, assets, context)
        checked.append(CheckedRow(row, read.entries, evaluation, _told(names, read, evaluation)))
    keep_checked(actor, names, checked)


def check_or_leave(actor: Actor, names: NameList, *, signed_in: bool = False) -> bool:
    """Check the rows of a list that are to be checked, of many only the first ones; tell whether some are left."""
    few = list(names.rows.unchecked()[: MOST_AT_ONCE + 1])
    are_many = len(few) > MOST_AT_ONCE
    if few:
        check_some(actor, names, few[:FIRST_AT_ONCE] if are_many else few, signed_in=signed_in)
    return are_many


def _told(names: NameList, read: RowRead, evaluation: Evaluation) -> dict[str, Any]:
    """Return what is wrong, advised and asked, each with the target that it is about, if it is about a column's."""
    used = set(names.targets) - {UNUSED}

    def said(items: Iterable[Any]) -> list[list[str]]:
        once = dict.fromkeys((item.field if item.field in used else "", item.message) for item in items)
        return [list(one) for one in once]

    return {
        "faults": [*([one.target, one.message] for one in read.troubles), *said(evaluation.verdict.blocking)],
        "advice": said(evaluation.verdict.advice),
        "questions": [
            {"field": one.field, "code": one.code, "message": one.message, "text": one.text, "mend": one.suggestion}
            for one in evaluation.questions
            if not one.is_meant
        ],
    }


@dataclass(frozen=True)
class ListedRow:
    """A row as a page shows it: with its price among all rows, and what is asked about it in the list."""

    row: NameRow
    quote: Quote | None
    told: dict[str, Any]
    twice: str = ""

    @property
    def amount(self) -> Decimal | None:
        """What its own pieces cost, without what is charged once for all rows."""
        return self.quote.each * self.quote.pieces if self.quote else None

    @property
    def verdict(self) -> str:
        """Good, faulty, unchecked; asks where it can be made and there is a question."""
        return "asks" if self.row.state == NameRow.State.GOOD and self.questions else str(self.row.state)

    @property
    def faults(self) -> list[list[str]]:
        """What must be mended: target and words."""
        faults: list[list[str]] = self.told.get("faults", [])
        return faults

    @property
    def further_faults(self) -> list[list[str]]:
        """What must be mended beside the first fault, which is often what the others come from."""
        return self.faults[1:]

    @property
    def advice(self) -> list[str]:
        """What may stay as it is."""
        return [words for _, words in self.told.get("advice", [])]

    @property
    def questions(self) -> list[dict[str, Any]]:
        """What is asked once more."""
        asked = list(self.told.get("questions", [])) if self.row.state != NameRow.State.UNCHECKED else []
        if self.twice:
            asked.append({"field": ROW, "code": CODE, "message": self.twice, "text": "", "mend": None})
        return [
            {
                **one,
                "means": json.dumps([one["field"], one["code"], one["text"]], ensure_ascii=False),
                "takes": json.dumps([one["field"], one["code"], one["mend"]], ensure_ascii=False),
            }
            for one in asked
        ]


class Listed:
    """A list with its rows as they stand."""

    def __init__(self, names: NameList) -> None:
        self.names = names
        self.setup = shop_setup(names.revision)

    @cached_property
    def targets(self) -> tuple[Target, ...]:
        """All that columns can give."""
        return targets_of(self.setup)

    @cached_property
    def rows(self) -> tuple[ListedRow, ...]:
        """Its rows in their order."""
        active = list(self.names.rows.active().select_related("personalization", "design"))
        quotes = quotes_of(self.names, active)
        used = [at for at, target in enumerate(self.names.targets) if target != UNUSED]
        twice = twice_in_list((row.number, tuple(row.cells[at] for at in used)) for row in active)
        return tuple(
            ListedRow(
                row,
                quotes.get(row.pk),
                self._told(row),
                twice[row.number].message if row.number in twice and not _is_meant_twice(row) else "",
            )
            for row in active
        )

    def _told(self, row: NameRow) -> dict[str, Any]:
        """Return what was found of a row, in the language of who reads now."""
        told: dict[str, Any] = row.told
        if base_language(self.names.language) == base_language(current_language()) or not any(told.values()):
            return told
        read = row_read(self.setup, self.names, self._common, row)
        return _told(self.names, read, evaluate(self.setup, read.entries, self._assets, self._context))

    @cached_property
    def _common(self) -> Entries:
        return read_entries(self.names.common)

    @cached_property
    def _assets(self) -> StoredAssets:
        return StoredAssets()

    @cached_property
    def _context(self) -> Context:
        return request_context([self.setup], signed_in=False)

    @cached_property
    def quote(self) -> Quote | None:
        """The price of all rows that can be made."""
        quotes = [one.quote for one in self.rows if one.quote is not None]
        return quote_of_list(quotes) if quotes else None

    @cached_property
    def faulty(self) -> int:
        """How many rows must be mended."""
        return sum(one.row.state == NameRow.State.FAULTY for one in self.rows)

    @cached_property
    def unchecked(self) -> int:
        """How many rows are still to be checked."""
        return sum(one.row.state == NameRow.State.UNCHECKED for one in self.rows)

    @cached_property
    def shared_faults(self) -> tuple[str, ...]:
        """What must be mended in what all share: each row says it, so it is said once."""
        rows = [one for one in self.rows if one.row.state == NameRow.State.FAULTY]
        if len(rows) < 2 or len(rows) < len(self.rows):
            return ()
        said = [{words for target, words in one.faults if not target} for one in rows]
        return tuple(sorted(set.intersection(*said)))


def _is_meant_twice(row: NameRow) -> bool:
    return any(one.get("code") == CODE for one in row.meant.get(ROW, ()))


def quotes_of(names: NameList, rows: Sequence[NameRow]) -> dict[int, Quote]:
    """Return the prices of rows that can be made, by their key: they are ordered together as one line."""
    setup = shop_setup(names.revision)
    good = [row for row in rows if row.personalization is not None and row.state == NameRow.State.GOOD]
    lines = (
        OrderLine(
            str(names.revision.product_id),
            setup,
            asked_of(row.personalization),
            amounts_of(row.personalization),
            of_list=str(names.pk),
        )
        for row in good
        if row.personalization is not None
    )
    return {row.pk: quote for row, quote in zip(good, quote_order(lines), strict=True)}


def begin_check(actor: Actor, names: NameList, *, signed_in: bool = False) -> None:
    """See to it that rows which changed are checked: at once if they are few, else all but the first by the workers."""
    if check_or_leave(actor, names, signed_in=signed_in):
        check_soon(actor, names, signed_in=signed_in)
