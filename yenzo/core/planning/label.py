"""Labels for goods and boxes, 62 mm wide and as long as they need: facts of jobs come in, a page each goes out."""

from collections.abc import Iterable
from dataclasses import dataclass
from pathlib import Path

from yenzo.core.planning.faces import EXACT, HEADING, TEXT
from yenzo.core.planning.paper import INK, MUTED, PITCH, Color, Paper

WIDTH_MM, MARGIN_MM, CODE_MM = 62.0, 3.0, 17.0
ROOM_MM = WIDTH_MM - 2 * MARGIN_MM
BESIDE_MM = ROOM_MM - CODE_MM - 2
# Long texts are on the ticket; a label longer than this sticks to nothing.
LONGEST_MM = 180.0
NUMBER_MM, EXACT_MM, PLAIN_MM, SMALL_MM = 6.0, 4.4, 3.2, 2.6


@dataclass(frozen=True)
class LabelText:
    """A text that is made: letter for letter, and in what: typeface, letter height, color."""

    text: str
    facts: str


@dataclass(frozen=True)
class Label:
    """What stands on a label: the number that its code holds, what to take and how many, by when, what comes after.

    A badge has a quantity of 0: nothing is to be taken.
    """

    number: str
    goods: str
    blank: str
    quantity: int
    method: str
    due: str
    after: str
    texts: tuple[LabelText, ...]
    notes: tuple[str, ...] = ()


def make_labels(labels: Iterable[Label], *, fallbacks: Iterable[Path] = ()) -> bytes:
    """Return labels as a PDF of a page each; `fallbacks` are fonts for scripts that the faces lack."""
    labels, fallbacks = list(labels), list(fallbacks)
    measured = Paper(WIDTH_MM, LONGEST_MM, "Labels", fallbacks=fallbacks)
    paper = Paper(WIDTH_MM, LONGEST_MM, "Labels", fallbacks=fallbacks)
    for label in labels:
        measured.pdf.add_page()
        long_mm = min(max(_write(measured, label), CODE_MM + 2 * MARGIN_MM), LONGEST_MM)
        paper.pdf.add_page("portrait", format=(WIDTH_MM, long_mm))
        _write(paper, label)
    measured.throw_away()
    return paper.finished()


def _write(paper: Paper, label: Label) -> float:
    """Write a label on a page, and return how long it is."""
    paper.top = MARGIN_MM
    paper.code(label.number, WIDTH_MM - MARGIN_MM - CODE_MM, MARGIN_MM, CODE_MM)
    _flow(paper, HEADING, label.number, NUMBER_MM, BESIDE_MM)
    _flow(paper, TEXT, label.goods, PLAIN_MM, BESIDE_MM)
    if label.quantity:
        _flow(paper, HEADING, f"{label.quantity} × {label.blank}", PLAIN_MM, BESIDE_MM)
    paper.top = max(paper.top, MARGIN_MM + CODE_MM + 1)
    steps = [label.method, label.due, f"then {label.after}" if label.after else ""]
    _flow(paper, TEXT, " · ".join(filter(None, steps)), PLAIN_MM, ROOM_MM)
    for text in label.texts:
        paper.rule(MARGIN_MM, paper.top + 0.6, ROOM_MM, 0.15)
        paper.top += 1.4
        for line in text.text.split("\n"):
            _flow(paper, paper.face_for(EXACT, line), line, EXACT_MM, ROOM_MM)
        _flow(paper, TEXT, text.facts, SMALL_MM, ROOM_MM, MUTED)
    for note in label.notes:
        paper.top += 0.6
        _flow(paper, TEXT, note, SMALL_MM, ROOM_MM)
    return paper.top + MARGIN_MM


def _flow(paper: Paper, face: str, text: str, letter_mm: float, width_mm: float, color: Color = INK) -> None:
    for line in paper.broken(face, text, letter_mm, width_mm):
        paper.line(face, line, letter_mm, MARGIN_MM, paper.top, color)
        paper.top += letter_mm * PITCH
