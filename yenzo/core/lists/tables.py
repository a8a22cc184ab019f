"""Tables of outside files: what was pasted or sent comes in; rows of clean cells, or a refusal in words, go out.

Pasted text and CSV are read here. Spreadsheets (XLSX, ODS, XLS) are opened in a process of their own, bounded in
memory and seconds and confined like the one that opens artwork.
"""

import csv
import io
import json
import subprocess
import sys
import tempfile
import unicodedata
from collections import Counter
from dataclasses import dataclass
from pathlib import Path

from charset_normalizer import from_bytes

from yenzo.core.artwork.confinement import ENVIRONMENT, PACKAGE, confined
from yenzo.core.documents.values import clean_line, clean_text
from yenzo.core.errors import TableError
from yenzo.core.translation import translate

MOST_BYTES, MOST_ROWS, MOST_COLUMNS, MOST_CELL = 5_000_000, 1_000, 40, 2_000
MOST_SECONDS = 20
SEPARATORS = ("\t", ";", ",", "|")
# How ZIP containers (XLSX, ODS) and compound files (XLS) begin.
ZIP, COMPOUND = b"PK\x03\x04", b"\xd0\xcf\x11\xe0"
LAST_ASCII, PLAIN_SHARE = 0x7F, 0.5
OTHER_ENCODINGS = ("cp1251", "cp1253", "cp1255", "cp1256", "koi8_r", "shift_jis", "euc_kr", "gb18030", "big5", "cp874")
BYTE_ORDER_MARKS = {b"\xef\xbb\xbf": "utf-8-sig", b"\xff\xfe": "utf-16", b"\xfe\xff": "utf-16"}


@dataclass(frozen=True)
class Table:
    """Rows of cells, all equally long; rows in which nothing stands are left out."""

    rows: tuple[tuple[str, ...], ...]

    @property
    def width(self) -> int:
        """How many columns there are."""
        return len(self.rows[0]) if self.rows else 0


def read_table(data: bytes, name: str) -> Table:
    """Return the table of a file, a spreadsheet's first sheet; raises TableError."""
    if len(data) > MOST_BYTES:
        why = translate("“{name}” is larger than 5 MB. Please send the list without anything else.", name=name)
        raise TableError("too_large", name, why)
    rows = _spreadsheet(data, name) if data.startswith((ZIP, COMPOUND)) else _separated(_decoded(data, name), name)
    return _table(rows, name)


def read_pasted(text: str) -> Table:
    """Return the table of what was pasted from a spreadsheet or typed, a row a line; raises TableError."""
    return _table(_separated(text, translate("what was pasted")), translate("what was pasted"))


def _decoded(data: bytes, name: str) -> str:
    for mark, encoding in BYTE_ORDER_MARKS.items():
        if data.startswith(mark):
            return data.decode(encoding, errors="replace")
    try:
        return _only_text(data.decode("utf-8"), name)
    except UnicodeDecodeError:
        return _only_text(_of_one_byte_encoding(data, name), name)


def _of_one_byte_encoding(data: bytes, name: str) -> str:
    """Return a text that isn't UTF-8. A few letters with accents among plain ones are what Windows writes in the West.

    Short texts are told apart badly by statistics: these are left for scripts that have few plain letters.
    """
    high = sum(byte > LAST_ASCII for byte in data)
    if high < PLAIN_SHARE * sum(chr(byte).isalpha() or byte > LAST_ASCII for byte in data):
        return data.decode("cp1252", errors="replace")
    found = from_bytes(data, cp_isolation=list(OTHER_ENCODINGS)).best()
    if found is None:
        raise _unreadable(name)
    return str(found)


def _only_text(text: str, name: str) -> str:
    """Return the text, unless it has what no text has: then it is another kind of file."""
    if any(unicodedata.category(char) == "Cc" and char not in "\t\r\n" for char in text):
        raise _unreadable(name)
    return text


def _unreadable(name: str) -> TableError:
    why = translate(
        "“{name}” is no list that can be read. Please save it as XLSX, ODS or CSV, or paste its rows here.", name=name
    )
    return TableError("unreadable", name, why)


def _separated(text: str, name: str) -> list[list[str]]:
    """Return the rows of a text with the separator that makes the most rows equally wide."""
    read = [_parsed(text, separator, name) for separator in SEPARATORS]
    widths = [Counter(len(row) for row in rows if len(row) > 1) for rows in read]
    most = [max(counts.items(), key=lambda one: (one[1], one[0]), default=(1, 0)) for counts in widths]
    best = max(range(len(read)), key=lambda at: (most[at][1], most[at][0]))
    if most[best][1] == 0:
        return [[line] for line in text.splitlines()]
    return read[best]


def _parsed(text: str, separator: str, name: str) -> list[list[str]]:
    try:
        return list(csv.reader(io.StringIO(text, newline=""), delimiter=separator))
    except csv.Error as error:
        raise _unreadable(name) from error


def _spreadsheet(data: bytes, name: str) -> list[list[str]]:
    with tempfile.TemporaryDirectory(prefix="table-") as folder:
        path = Path(folder) / "sheet"
        path.write_bytes(data)
        child = [sys.executable, "-m", "yenzo.core.lists.child", str(path)]
        try:
            done = subprocess.run(
                confined(child, reads=path, writes=Path(folder)),
                stdin=subprocess.DEVNULL,
                capture_output=True,
                env=ENVIRONMENT,
                cwd=PACKAGE.parent,
                timeout=4 * MOST_SECONDS,
                check=False,
            )
        except subprocess.TimeoutExpired as error:
            raise _unreadable(name) from error
    if done.returncode:
        raise _unreadable(name)
    rows: list[list[str]] = json.loads(done.stdout)
    return rows


def _table(rows: list[list[str]], name: str) -> Table:
    filled = [row for row in rows if any(cell.strip() for cell in row)]
    if not filled:
        why = translate("Nothing stands in the list. Please send one that has a row for each piece.")
        raise TableError("empty", name, why)
    width = max(max((at for at, cell in enumerate(row, 1) if cell.strip()), default=0) for row in filled)
    if width > MOST_COLUMNS:
        why = translate("The list has {count} columns; there is room for {most}.", count=width, most=MOST_COLUMNS)
        raise TableError("too_wide", name, why)
    # One more than pieces may be: the first row may be a heading.
    if len(filled) > MOST_ROWS + 1:
        why = translate("The list has {count} rows; there is room for {most}.", count=len(filled), most=MOST_ROWS)
        raise TableError("too_long", name, why)
    return Table(tuple(_clean(row, width) for row in filled))


def _clean(row: list[str], width: int) -> tuple[str, ...]:
    cells = [clean_cell(cell) for cell in row[:width]]
    return (*cells, *[""] * (width - len(cells)))


def clean_cell(cell: str) -> str:
    """Return a cell as it is kept: in NFC, without spaces around it, each of its lines by itself."""
    lines = [clean_line(line) for line in clean_text(cell[:MOST_CELL]).split("\n")]
    return "\n".join(lines).strip("\n")
