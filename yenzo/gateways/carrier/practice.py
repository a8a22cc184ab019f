"""A practice carrier: it books by file, prints a label of words and bars, and says "delivered" after a while."""

import hashlib
import json
import time
from pathlib import Path

from yenzo.core.planning.faces import EXACT, HEADING, TEXT
from yenzo.core.planning.paper import Paper
from yenzo.gateways.carrier.interface import Booking, Carrier

NAME = "Harbor Post"
WIDTH_MM, HEIGHT_MM, MARGIN_MM, CODE_MM = 105.0, 148.0, 8.0, 34.0


class PracticeCarrier(Carrier):
    """Keeps one file a parcel: the first booking of a reference stays."""

    def __init__(self, folder: Path, *, days_on_the_way: float = 2.0) -> None:
        self._folder = folder
        self._seconds_on_the_way = days_on_the_way * 24 * 3600

    def book(self, reference: str, address: str, contents: str) -> Booking:
        """Book once; the number follows from the reference."""
        digits = f"{int(hashlib.sha256(reference.encode()).hexdigest()[:12], 16) % 10**9:09d}"
        number = f"HP {digits[:3]} {digits[3:6]} {digits[6:]}"
        self._folder.mkdir(parents=True, exist_ok=True)
        path, draft = self._path(number), self._folder / f".{reference}.{time.monotonic_ns()}"
        # Linked into place whole, so that nobody reads half of it and only the first one counts.
        draft.write_text(json.dumps({"reference": reference, "at": time.time(), "contents": contents}))
        try:
            path.hardlink_to(draft)
        except FileExistsError:
            pass
        finally:
            draft.unlink()
        return Booking(NAME, number, _label(number, address, contents))

    def is_delivered(self, number: str) -> bool:
        """Tell whether it is long enough on its way."""
        path = self._path(number)
        if not path.exists():
            return False
        return time.time() - float(json.loads(path.read_text())["at"]) >= self._seconds_on_the_way

    def _path(self, number: str) -> Path:
        return self._folder / f"{hashlib.sha256(number.encode()).hexdigest()[:24]}.json"


def _label(number: str, address: str, contents: str) -> bytes:
    paper = Paper(WIDTH_MM, HEIGHT_MM, number)
    paper.pdf.add_page()
    paper.line(HEADING, NAME, 9.0, MARGIN_MM, MARGIN_MM)
    paper.line(TEXT, "practice label, not for real parcels", 3.0, MARGIN_MM, MARGIN_MM + 12)
    paper.rule(MARGIN_MM, MARGIN_MM + 18, WIDTH_MM - 2 * MARGIN_MM, 0.4)
    paper.top = MARGIN_MM + 22
    for line in address.splitlines():
        for part in paper.broken(TEXT, line, 5.0, WIDTH_MM - 2 * MARGIN_MM):
            paper.line(TEXT, part, 5.0, MARGIN_MM, paper.top)
            paper.top += 7
    paper.code(number, MARGIN_MM, HEIGHT_MM - MARGIN_MM - CODE_MM, CODE_MM)
    paper.line(EXACT, number, 5.0, MARGIN_MM + CODE_MM + 4, HEIGHT_MM - MARGIN_MM - CODE_MM)
    paper.line(TEXT, contents, 3.4, MARGIN_MM + CODE_MM + 4, HEIGHT_MM - MARGIN_MM - CODE_MM + 9)
    return paper.finished()
