"""A list of names as its page shows it: a list comes in; its columns, and rows with their cells, go out."""

from dataclasses import dataclass
from functools import cached_property

from django.core.paginator import Page, Paginator

from yenzo.apps.designs.listed import Listed, ListedRow
from yenzo.apps.designs.models import NameList, NameRow
from yenzo.core.asking.ask import ask
from yenzo.core.asking.words import EntryInWords, entries_in_words
from yenzo.core.documents.reading import read_entries
from yenzo.core.lists.columns import UNUSED, Target
from yenzo.core.lists.marked import MarkedRow, marked_sheet

ROWS_A_PAGE = 100
FAULTY, ASKS = "faulty", "asks"


@dataclass(frozen=True)
class Column:
    """A column: what it is headed by, and what it gives."""

    at: int
    head: str
    target: Target | None
    # Only what one of some possibilities is given for has these.
    choices: tuple[str, ...] = ()

    @property
    def label(self) -> str:
        """What it gives, as the form calls it; its own head where it gives nothing."""
        return self.target.label if self.target else self.head


@dataclass(frozen=True)
class Cell:
    """A cell of a row, with what is wrong with it."""

    column: Column
    value: str
    fault: str


@dataclass(frozen=True)
class PageRow:
    """A row with its cells, and what else is to be said of it."""

    listed: ListedRow
    cells: tuple[Cell, ...]

    @property
    def number(self) -> int:
        """Its number in the list."""
        return self.listed.row.number

    @property
    def faulty_columns(self) -> str:
        """The columns that something is wrong with, for the page's script."""
        return ",".join(str(cell.column.at) for cell in self.cells if cell.fault)


class ListPage:
    """The page of a list; `only` shows the rows of a verdict alone."""

    def __init__(self, names: NameList, *, only: str = "", number: object = 1) -> None:
        self.names, self.only, self._number = names, only if only in (FAULTY, ASKS) else "", number
        self.listed = Listed(names)

    @cached_property
    def columns(self) -> tuple[Column, ...]:
        """All columns of the list."""
        by_key = {target.key: target for target in self.listed.targets}
        heads = zip(self.names.targets, self.names.heads, strict=True)
        return tuple(self._column(at, head, by_key.get(key)) for at, (key, head) in enumerate(heads))

    def _column(self, at: int, head: str, target: Target | None) -> Column:
        return Column(at, head, target, target.offered if target else ())

    @property
    def free_targets(self) -> tuple[Target, ...]:
        """What no column gives yet."""
        return tuple(target for target in self.listed.targets if target.key not in self.names.targets)

    @cached_property
    def page(self) -> Page[ListedRow]:
        """The rows that are shown."""
        rows = [one for one in self.listed.rows if not self.only or one.verdict == self.only]
        return Paginator(rows, ROWS_A_PAGE).get_page(self._number)  # type: ignore[arg-type] # any number is understood

    @property
    def rows(self) -> list[PageRow]:
        """The rows that are shown, with their cells."""
        return [self.row(one) for one in self.page]

    def row(self, one: ListedRow) -> PageRow:
        """Return a row with its cells."""
        faults = {target: words for target, words in reversed(one.faults) if target}
        keys = self.names.targets
        cells = (
            Cell(column, value, faults.get(key, "") if key != UNUSED else "")
            for column, key, value in zip(self.columns, keys, one.row.cells, strict=True)
        )
        return PageRow(one, tuple(cells))

    def row_numbered(self, number: int) -> PageRow | None:
        """Return the row of this number, if it stands in the list."""
        return next((self.row(one) for one in self.listed.rows if one.row.number == number), None)

    @property
    def asks(self) -> int:
        """How many rows have a question."""
        return sum(one.verdict == ASKS for one in self.listed.rows)

    @property
    def is_ready(self) -> bool:
        """Whether all its rows are in order."""
        rows = self.listed.rows
        return bool(rows) and all(one.row.state == NameRow.State.GOOD for one in rows)

    @property
    def checked(self) -> int:
        """How many rows are checked."""
        return len(self.listed.rows) - self.listed.unchecked

    @property
    def shared(self) -> tuple[EntryInWords, ...]:
        """What all rows share, in words; nothing that a column gives."""
        setup = self.listed.setup
        asked = ask(setup, read_entries(self.names.common))
        entries = entries_in_words(setup, asked)
        return tuple(one for one in entries if one.is_asked and one.field not in self.names.targets and one.words)

    @property
    def as_of_now(self) -> bool:
        """Whether its product is still sold as when the list was begun."""
        return self.names.revision.product.live_id == self.names.revision_id


def faulty_sheet(names: NameList) -> bytes:
    """Return an XLSX of the rows that must be mended, their cells marked."""
    shown = ListPage(names)
    rows = (shown.row(one) for one in shown.listed.rows if one.row.state == NameRow.State.FAULTY)
    return marked_sheet([column.head for column in shown.columns], (_marked(row) for row in rows))


def _marked(row: PageRow) -> MarkedRow:
    faults = {cell.column.at: cell.fault for cell in row.cells if cell.fault}
    others = tuple(words for _, words in row.listed.faults if words not in faults.values())
    return MarkedRow(tuple(cell.value for cell in row.cells), faults, others)
