"""The process that opens outside spreadsheets and may die without harm: a path comes in; rows as JSON go out.

Run by `read_table` only. Bounds are set before the file is touched.
"""

import datetime as dt
import json
import resource
import sys

from python_calamine import CalamineWorkbook

MEMORY_BYTES, SECONDS = 1_000_000_000, 20
# A row more than are taken, so that there being too many is noticed.
MOST_ROWS, MOST_COLUMNS = 5_000, 200


def main() -> None:
    """Write the cells of the first sheet as people read them."""
    resource.setrlimit(resource.RLIMIT_AS, (MEMORY_BYTES, MEMORY_BYTES))
    resource.setrlimit(resource.RLIMIT_CPU, (SECONDS, SECONDS + 1))
    resource.setrlimit(resource.RLIMIT_FSIZE, (0, 0))
    resource.setrlimit(resource.RLIMIT_CORE, (0, 0))
    sheet = CalamineWorkbook.from_path(sys.argv[1]).get_sheet_by_index(0)
    rows = sheet.to_python(skip_empty_area=False, nrows=MOST_ROWS)
    json.dump([[cell_text(cell) for cell in row[:MOST_COLUMNS]] for row in rows], sys.stdout)


def cell_text(cell: object) -> str:
    """Return a cell as a person would type it: whole numbers without decimals, days as YYYY-MM-DD."""
    if isinstance(cell, bool):
        return "yes" if cell else "no"
    if isinstance(cell, float) and cell.is_integer() and abs(cell) < 10**15:
        return str(int(cell))
    if isinstance(cell, dt.datetime) and cell.time() == dt.time():
        return cell.date().isoformat()
    return str(cell)


if __name__ == "__main__":
    main()
