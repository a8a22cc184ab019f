"""Tables that go out: rows of values come in, a CSV or XLSX file goes out; no text in it is taken for a formula."""

import csv
import io
from collections.abc import Iterable, Sequence
from datetime import date, datetime
from decimal import Decimal

from openpyxl import Workbook
from openpyxl.cell.cell import ILLEGAL_CHARACTERS_RE, TYPE_STRING
from openpyxl.styles import Font
from openpyxl.utils import get_column_letter

Value = str | int | Decimal | date | datetime | None
# What a spreadsheet takes for a formula when it opens a CSV file.
BEGINS_FORMULA = ("=", "+", "-", "@", "\t", "\r")
WIDEST = 48


def as_csv(heads: Sequence[str], rows: Iterable[Sequence[Value]]) -> bytes:
    """Return a table as CSV in UTF-8 with its mark, so that spreadsheets read every script."""
    out = io.StringIO(newline="")
    writer = csv.writer(out)
    writer.writerow(heads)
    writer.writerows([_plain(value) for value in row] for row in rows)
    return out.getvalue().encode("utf-8-sig")


def _plain(value: Value) -> str:
    if isinstance(value, str):
        return f"'{value}" if value.startswith(BEGINS_FORMULA) else value
    if isinstance(value, datetime):
        return value.isoformat(" ", "minutes")
    return "" if value is None else str(value)


def as_xlsx(title: str, heads: Sequence[str], rows: Iterable[Sequence[Value]]) -> bytes:
    """Return a table as XLSX: days and amounts as such, texts as texts whatever they begin with."""
    book = Workbook()
    sheet = book.active
    assert sheet is not None
    sheet.title = title[:31]
    for at, head in enumerate(heads, 1):
        sheet.cell(1, at, head).font = Font(bold=True)
    widths = [len(head) for head in heads]
    for number, row in enumerate(rows, 2):
        for at, value in enumerate(row, 1):
            cell = sheet.cell(number, at)
            if isinstance(value, str):
                cell.value = ILLEGAL_CHARACTERS_RE.sub("", value)
                cell.data_type = TYPE_STRING
            else:
                # Spreadsheets know no time zones.
                cell.value = value.replace(tzinfo=None) if isinstance(value, datetime) else value
            widths[at - 1] = min(max(widths[at - 1], *(len(one) for one in str(value or "").split("\n"))), WIDEST)
    for at, width in enumerate(widths, 1):
        sheet.column_dimensions[get_column_letter(at)].width = width + 2
    sheet.freeze_panes = "A2"
    out = io.BytesIO()
    book.save(out)
    return out.getvalue()
