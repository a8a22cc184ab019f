"""The list back as a spreadsheet: heads, rows and their faults come in; an XLSX with the cells marked goes out."""

import io
from collections.abc import Iterable, Mapping, Sequence
from dataclasses import dataclass, field

from openpyxl import Workbook
from openpyxl.cell.cell import TYPE_STRING, Cell
from openpyxl.comments import Comment
from openpyxl.styles import Alignment, Font, PatternFill
from openpyxl.utils import get_column_letter
from openpyxl.worksheet.datavalidation import DataValidation
from openpyxl.worksheet.worksheet import Worksheet

from yenzo.core.lists.columns import Target
from yenzo.core.lists.tables import MOST_ROWS
from yenzo.core.translation import translate

MARKED = PatternFill("solid", fgColor="F3C9BF")
WIDEST, WORDS_WIDTH = 40, 70
# What a cell offers to choose from has room for so many characters (ECMA-376, 18.3.1.33).
MOST_LISTED = 255


@dataclass(frozen=True)
class MarkedRow:
    """A row of a list, with what is wrong by column (counted from 0) and with the row as a whole."""

    cells: tuple[str, ...]
    faults: Mapping[int, str] = field(default_factory=dict)
    others: tuple[str, ...] = ()


def marked_sheet(heads: Sequence[str], rows: Iterable[MarkedRow]) -> bytes:
    """Return an XLSX of the rows. Each marked cell has its fault as a comment; the last column says all of them."""
    book = Workbook()
    sheet = book.active
    assert isinstance(sheet, Worksheet)
    for at, head in enumerate((*heads, translate("What is wrong")), 1):
        cell = _written(sheet, 1, at, head)
        cell.font = Font(bold=True)
    widths = [*(len(head) for head in heads), WORDS_WIDTH]
    for number, row in enumerate(rows, 2):
        for at, words in enumerate(row.cells):
            cell = _written(sheet, number, at + 1, words)
            widths[at] = max(widths[at], len(words))
            if at in row.faults:
                cell.fill = MARKED
                cell.comment = Comment(row.faults[at], "", width=320, height=120)
        said = _written(sheet, number, len(heads) + 1, " ".join((*row.faults.values(), *row.others)))
        said.alignment = Alignment(wrap_text=True, vertical="top")
    for at, width in enumerate(widths, 1):
        letter = get_column_letter(at)
        sheet.column_dimensions[letter].width = min(max(width + 2, 10), WIDEST if at <= len(heads) else WORDS_WIDTH)
    sheet.freeze_panes = "A2"
    return _saved(book)


def _written(sheet: Worksheet, row: int, column: int, words: str) -> Cell:
    """Write words in a cell as words, whatever they begin with: nothing that somebody typed becomes a formula."""
    cell = sheet.cell(row, column)
    assert isinstance(cell, Cell)
    cell.value = words
    cell.data_type = TYPE_STRING
    cell.number_format = "@"
    return cell


def blank_sheet(targets: Iterable[Target]) -> bytes:
    """Return an XLSX with a head for each thing that a row can give; what can be chosen is offered in the cells."""
    book = Workbook()
    sheet = book.active
    assert isinstance(sheet, Worksheet)
    for at, target in enumerate(targets, 1):
        cell = _written(sheet, 1, at, target.label)
        cell.font = Font(bold=True)
        sheet.column_dimensions[cell.column_letter].width = max(len(target.label) + 2, 14)
        listed = ",".join(name.replace('"', '""') for name in target.offered)
        if target.offered and not any("," in name for name in target.offered) and len(listed) <= MOST_LISTED:
            offered = DataValidation(type="list", formula1=f'"{listed}"', allow_blank=True)
            offered.add(f"{cell.column_letter}2:{cell.column_letter}{MOST_ROWS + 1}")
            sheet.add_data_validation(offered)
    sheet.freeze_panes = "A2"
    return _saved(book)


def _saved(book: Workbook) -> bytes:
    written = io.BytesIO()
    book.save(written)
    return written.getvalue()
