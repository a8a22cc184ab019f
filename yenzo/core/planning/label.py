"""Labels for goods and boxes, 62 mm wide and as long as they need: facts of jobs come in, a page each goes out."""

import io
from collections.abc import Iterable
from dataclasses import dataclass
from pathlib import Path

from PIL import Image

from yenzo.core.planning.faces import EXACT, HEADING, TEXT
from yenzo.core.planning.paper import INK, MUTED, PITCH, Color, Paper

WIDTH_MM, MARGIN_MM, CODE_MM = 62.0, 3.0, 17.0
ROOM_MM = WIDTH_MM - 2 * MARGIN_MM
BESIDE_MM = ROOM_MM - CODE_MM - 2
# Long texts are on the ticket; a label longer than this sticks to nothing.
LONGEST_MM = 180.0
NUMBER_MM, EXACT_MM, PLAIN_MM, SMALL_MM = 6.0, 4.4, 3.2, 2.6
# A picture is to be recognised, not measured: this high at most, in the dots that a label printer has.
PICTURE_MM, PICTURE_DPI, BETWEEN_MM = 24.0, 203.0, 2.0


@dataclass(frozen=True)
class LabelText:
    """A text that is made: letter for letter, and in what: typeface, letter height, color."""

    text: str
    facts: str


@dataclass(frozen=True)
class LabelPicture:
    """A side of the goods as it is to look, a picture file (PNG), and what the side is called."""

    side: str
    picture: bytes


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
    pictures: tuple[LabelPicture, ...] = ()


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
    _side_by_side(paper, label.pictures)
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


def _side_by_side(paper: Paper, pictures: tuple[LabelPicture, ...]) -> None:
    """Draw pictures in a row, none higher than it must be, each with the name of its side below."""
    if not pictures:
        return
    room = (ROOM_MM - BETWEEN_MM * (len(pictures) - 1)) / len(pictures)
    paper.top += 1
    tallest = 0.0
    for number, shown in enumerate(pictures):
        with Image.open(io.BytesIO(shown.picture)) as picture:
            scale = min(room / picture.width, PICTURE_MM / picture.height)
            wide, high = picture.width * scale, picture.height * scale
            dots = (max(round(wide / 25.4 * PICTURE_DPI), 1), max(round(high / 25.4 * PICTURE_DPI), 1))
            left = MARGIN_MM + number * (room + BETWEEN_MM)
            paper.pdf.image(_on_white(picture).resize(dots, Image.Resampling.LANCZOS), left, paper.top, wide, high)
        paper.line(TEXT, _cut(paper, shown.side, room), SMALL_MM, left, paper.top + high, MUTED)
        tallest = max(tallest, high)
    paper.top += tallest + SMALL_MM * PITCH


def _on_white(picture: Image.Image) -> Image.Image:
    """Return a picture in greys, as a thermal printer has them, what is see-through as white."""
    shown = picture.convert("RGBA")
    return Image.alpha_composite(Image.new("RGBA", shown.size, "white"), shown).convert("L")


def _cut(paper: Paper, text: str, room: float) -> str:
    line, *more = paper.broken(TEXT, text, SMALL_MM, room)
    return f"{line[:-1]}…" if more else line


def _flow(paper: Paper, face: str, text: str, letter_mm: float, width_mm: float, color: Color = INK) -> None:
    for line in paper.broken(face, text, letter_mm, width_mm):
        paper.line(face, line, letter_mm, MARGIN_MM, paper.top, color)
        paper.top += letter_mm * PITCH
