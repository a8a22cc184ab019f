"""The delivery note: what lies in a parcel and where it goes comes in; printed pages (PDF, A4) go out."""

from collections.abc import Iterable
from dataclasses import dataclass
from datetime import date
from pathlib import Path

from yenzo.core.planning.faces import HEADING, TEXT
from yenzo.core.planning.paper import MUTED, PITCH, Color, Paper
from yenzo.core.translation import base_language, current_language, decimal, translate

WIDTH_MM, HEIGHT_MM, MARGIN_MM = 210.0, 297.0, 20.0
ROOM_MM, COUNT_MM = WIDTH_MM - 2 * MARGIN_MM, 24.0
TITLE_MM, PLAIN_MM, SMALL_MM = 8.0, 3.6, 3.0
FOOT_MM = HEIGHT_MM - MARGIN_MM


@dataclass(frozen=True)
class NoteLine:
    """One row: the number on the ticket, what it is, how many lie in this parcel, how many of how many, the texts."""

    number: str
    name: str
    pieces: int
    ordered: int
    texts: tuple[str, ...] = ()


@dataclass(frozen=True)
class DeliveryNote:
    """What goes with a parcel. Addresses are as they are written, names first; `is_all` says that nothing follows."""

    number: str
    day: date
    sender: str
    recipient: str
    lines: tuple[NoteLine, ...]
    carrier: str = ""
    parcel_number: str = ""
    purchase_number: str = ""
    is_all: bool = True


def make_delivery_note(note: DeliveryNote, *, fallbacks: Iterable[Path] = ()) -> bytes:
    """Return the note in the language of who reads; `fallbacks` are fonts for scripts that the faces lack."""
    title = translate("Delivery note {number}", number=note.number)
    paper = Paper(WIDTH_MM, HEIGHT_MM, title, language=base_language(current_language()), fallbacks=fallbacks)
    paper.pdf.add_page()
    paper.top = MARGIN_MM
    _block(paper, note.sender, MARGIN_MM + 100, MUTED)
    sender_end, paper.top = paper.top, MARGIN_MM + 25
    _block(paper, note.recipient, MARGIN_MM)
    paper.top = max(paper.top, sender_end, MARGIN_MM + 55) + 6
    paper.line(HEADING, title, TITLE_MM, MARGIN_MM, paper.top)
    paper.top += TITLE_MM * PITCH + 2
    for label, words in _facts(note):
        if words:
            paper.line(TEXT, label, SMALL_MM, MARGIN_MM, paper.top, MUTED)
            paper.line(TEXT, words, SMALL_MM, MARGIN_MM + 45, paper.top)
            paper.top += SMALL_MM * PITCH
    paper.top += 5
    for line in note.lines:
        _row(paper, line, title)
    ends = translate("This is all of it.") if note.is_all else translate("The rest follows in another parcel.")
    paper.top += 3
    _block(paper, ends, MARGIN_MM)
    return paper.finished()


def _facts(note: DeliveryNote) -> tuple[tuple[str, str], ...]:
    return (
        (translate("Day"), note.day.isoformat()),
        (translate("Your purchase number"), note.purchase_number),
        (translate("Carried by"), " ".join(filter(None, (note.carrier, note.parcel_number)))),
    )


def _row(paper: Paper, line: NoteLine, title: str) -> None:
    width = ROOM_MM - COUNT_MM
    names = paper.broken(TEXT, f"{line.number}  {line.name}", PLAIN_MM, width)
    texts = [part for text in line.texts for one in text.split("\n") for part in _broken(paper, one, width)]
    if paper.top + (len(names) * PLAIN_MM + len(texts) * SMALL_MM) * PITCH + 4 > FOOT_MM:
        paper.pdf.add_page()
        paper.top = MARGIN_MM
        paper.line(TEXT, f"{title} · {paper.pdf.page}", SMALL_MM, MARGIN_MM, paper.top, MUTED)
        paper.top += 10
    paper.rule(MARGIN_MM, paper.top, ROOM_MM, 0.15)
    paper.top += 1.6
    count = decimal(line.pieces)
    if line.pieces != line.ordered:
        count = translate("{count} of {all}", count=count, all=decimal(line.ordered))
    paper.right(HEADING, count, PLAIN_MM + 1, MARGIN_MM + ROOM_MM, paper.top)
    for name in names:
        paper.line(TEXT, name, PLAIN_MM, MARGIN_MM, paper.top)
        paper.top += PLAIN_MM * PITCH
    for text in texts:
        paper.line(paper.face_for(TEXT, text), text, SMALL_MM, MARGIN_MM, paper.top, MUTED)
        paper.top += SMALL_MM * PITCH
    paper.top += 1.2


def _broken(paper: Paper, text: str, width: float) -> list[str]:
    return paper.broken(paper.face_for(TEXT, text), text, SMALL_MM, width)


def _block(paper: Paper, text: str, left: float, color: Color | None = None) -> None:
    for line in text.splitlines():
        face = paper.face_for(TEXT, line)
        paper.line(face, line, PLAIN_MM, left, paper.top, *(() if color is None else (color,)))
        paper.top += PLAIN_MM * PITCH
