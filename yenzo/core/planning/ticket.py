"""The job ticket: a piece of work comes in, a printed page (PDF, A5 across) for the decorator goes out.

Exact strings are drawn as outlines of a face that tells 0 from O and l from I; a character that face lacks is
drawn in the typeface that is produced.
"""

from collections.abc import Iterator
from dataclasses import replace
from functools import lru_cache
from pathlib import Path

import segno

from yenzo.core.asking.words import say_entries
from yenzo.core.documents.areas import Area
from yenzo.core.measure import plain_number
from yenzo.core.planning.work import Work
from yenzo.core.render.page import area_page, side_page
from yenzo.core.render.pdf import render_pdf
from yenzo.core.render.png import render_png
from yenzo.core.scene.nodes import AreaScene, Lettering, Node, PlacedPicture, SideScene
from yenzo.core.scene.paints import Paint
from yenzo.core.shapes.box import Box
from yenzo.core.shapes.matrix import Matrix
from yenzo.core.shapes.outline import Outline
from yenzo.core.text.fonts import Font
from yenzo.core.text.line import fit_line
from yenzo.core.text.styles import TextStyle
from yenzo.core.text.typefaces import Typefaces

WIDTH_MM, HEIGHT_MM = 210.0, 148.0
MARGIN_MM = 9.0
STUB_LEFT_MM = 160.0
# Where a line of a text ends, on the one line that the ticket has for it.
LINE_END = " ¶ "
INK = Paint("#16303a")
MUTED = Paint("#5b6a70")
FONTS_FOLDER = Path(__file__).parent / "fonts"
PICTURE_DPI = 150.0
PICTURE_HEIGHT_MM = 54.0


def make_ticket(work: Work) -> bytes:
    """Return the ticket as a PDF."""
    pictures = _SidePictures(work)
    nodes = tuple(_nodes(work, pictures))
    area = Area(key="ticket", name="Ticket", x_mm=0, y_mm=0, width_mm=WIDTH_MM, height_mm=HEIGHT_MM, method="paper")
    sheet = AreaScene("ticket", area, nodes)
    return render_pdf(area_page(sheet), pictures)


class _SidePictures:
    """The pictures of the sides, drawn once and served to the PDF as assets by the side's key."""

    def __init__(self, work: Work) -> None:
        self._work = work
        self.sides = work.walked.scene.sides

    def read(self, sha256: str) -> bytes:
        side = next(side for side in self.sides if side.key == sha256)
        return render_png(side_page(side, with_goods=True), self._work.assets, PICTURE_DPI * self.scale(side))

    def scale(self, side: SideScene) -> float:
        """Return how large a side is drawn, 1 being its true size."""
        room = (STUB_LEFT_MM - 2 * MARGIN_MM) / len(self.sides)
        return min((room - 4) / side.width_mm, PICTURE_HEIGHT_MM / side.height_mm)


def _nodes(work: Work, pictures: _SidePictures) -> Iterator[Node]:
    offer = work.walked.setup.offer
    variant = offer.variant(work.walked.asked.variant)
    product = offer.name + (f", {variant.name}" if variant else "")
    yield _text("heading", work.number, MARGIN_MM, MARGIN_MM, 7)
    about = f"{product} · order {work.order} · piece {work.piece} of {work.pieces_in_order}"
    yield _text("text", about, MARGIN_MM + 46, MARGIN_MM + 3.2, 2.6, width_mm=STUB_LEFT_MM - MARGIN_MM - 52)
    top = MARGIN_MM + 12
    if pictures.sides:
        yield from _side_pictures(pictures, top)
        top += 58
    rows = [*_area_rows(work), *_entry_rows(work)]
    row_height = min(13.0, (HEIGHT_MM - MARGIN_MM - top) / max(len(rows), 1))
    for number, row in enumerate(rows):
        yield from _row(work, row, top + number * row_height, row_height)
    yield from _stub(work)


def _side_pictures(pictures: _SidePictures, top: float) -> Iterator[Node]:
    room = (STUB_LEFT_MM - 2 * MARGIN_MM) / len(pictures.sides)
    for number, side in enumerate(pictures.sides):
        scale = pictures.scale(side)
        width, height = side.width_mm * scale, side.height_mm * scale
        matrix = Matrix(width, 0, 0, height, MARGIN_MM + number * room, top)
        yield PlacedPicture("", "", side.name, side.key, 1, 1, matrix)


_Row = tuple[str, str, str, str | None]


def _area_rows(work: Work) -> Iterator[_Row]:
    for area in work.walked.scene.areas:
        for lettering in area.letterings:
            ink = lettering.outline.bounds
            size = f"{_mm(ink.width)} × {_mm(ink.height)} mm" if ink else ""
            color = " ".join(filter(None, (lettering.paint.name, lettering.paint.reference)))
            facts = f"{lettering.typeface_name} · letters {_mm(lettering.letter_height_mm)} mm · {size} · {color}"
            yield area.name, LINE_END.join(lettering.lines), facts, lettering.typeface
        for picture in area.pictures:
            width, height = picture.size_mm
            facts = f"{_mm(width)} × {_mm(height)} mm · {picture.dpi:.0f} dpi"
            yield area.name, picture.name, facts, None
        for drawing in area.drawings:
            width, height = drawing.size_mm
            color = f" · {drawing.paint.name} {drawing.paint.reference}".rstrip() if drawing.paint else ""
            yield area.name, drawing.name, f"{_mm(width)} × {_mm(height)} mm · drawing{color}", None


def _entry_rows(work: Work) -> Iterator[_Row]:
    """Yield what is asked and lands in no area: it goes on the ticket all the same."""
    areas = work.walked.scene.areas
    landed = {key for area in areas for node in area.nodes for key in node.fields}
    for entry in say_entries(work.walked.setup, work.walked.asked):
        if entry.field not in landed:
            yield entry.workshop_label, entry.words.replace("\n", LINE_END), "", None


def _row(work: Work, row: _Row, top: float, height: float) -> Iterator[Node]:
    name, exact, facts, typeface = row
    yield _rule(Box(MARGIN_MM, top, STUB_LEFT_MM - MARGIN_MM, top + 0.15))
    yield _text("text", name, MARGIN_MM, top + 1.6, 2.2, MUTED, width_mm=32)
    left, width = MARGIN_MM + 34, STUB_LEFT_MM - 2 * MARGIN_MM - 34
    letters = min(4.0, height * 0.3)
    yield _exact(work, exact, typeface, Box(left, top + 1.4, left + width, top + 1.4 + letters * 1.5))
    if facts:
        yield _text("text", facts, left, top + height * 0.62, min(2.1, height * 0.17), width_mm=width)


def _stub(work: Work) -> Iterator[Node]:
    left = STUB_LEFT_MM + MARGIN_MM / 2
    for y in range(int(MARGIN_MM), int(HEIGHT_MM - MARGIN_MM), 3):
        yield _rule(Box(STUB_LEFT_MM, y, STUB_LEFT_MM + 0.25, y + 1.5))
    side = WIDTH_MM - MARGIN_MM - left
    yield _shape(_qr_outline(work.number, Box(left, MARGIN_MM, left + side, MARGIN_MM + side)))
    top = MARGIN_MM + side + 5
    yield _text("heading", f"{work.walked.asked.pieces} ×", left, top, 6)
    methods = dict.fromkeys(area.method for area in work.walked.scene.areas if area.nodes)
    names = [work.walked.setup.materials.methods[key].name for key in methods]
    for number, name in enumerate(names):
        yield _text("heading", name, left, top + 11 + number * 6, 3.4, width_mm=side)
    yield _text("text", f"revision {work.revision[:8]}", left, HEIGHT_MM - MARGIN_MM - 3, 1.8, MUTED)


def _qr_outline(data: str, box: Box) -> Outline:
    """Return a QR code (ISO/IEC 18004, error correction M) as squares, its quiet zone left to the page."""
    matrix = [list(row) for row in segno.make(data, error="m", micro=False).matrix]
    module = box.width / len(matrix)
    return Outline.joined(
        Outline.rectangle(
            Box(
                box.left + x * module,
                box.top + y * module,
                box.left + (x + 1) * module,
                box.top + (y + 1) * module,
            )
        )
        for y, row in enumerate(matrix)
        for x, is_dark in enumerate(row)
        if is_dark
    )


def _text(
    face: str, text: str, left: float, top: float, letter_mm: float, paint: Paint = INK, width_mm: float = 400
) -> Lettering:
    style = TextStyle(letter_mm * 0.4, letter_mm, "left", "top")
    box = Box(left, top, left + width_mm, top + letter_mm * 1.6)
    return _shape(fit_line(_ticket_font(face), text, box, style).outline, paint)


def _exact(work: Work, text: str, typeface: str | None, box: Box) -> Lettering:
    style = TextStyle(0.5, box.height / 1.5, "left", "middle")
    line = fit_line(_ticket_font("mono"), text, box, style)
    produced = Typefaces(work.walked.setup.materials, work.assets).font(typeface) if typeface else None
    if line.missing and produced is not None:
        line = fit_line(produced, text, box, replace(style, language=work.walked.asked.language))
    return _shape(line.outline)


def _rule(box: Box) -> Lettering:
    return _shape(Outline.rectangle(box), MUTED)


def _shape(outline: Outline, paint: Paint = INK) -> Lettering:
    return Lettering("", "", "", "", "", 0, 0, outline, paint)


def _mm(value: float) -> str:
    return plain_number(value, 1)


@lru_cache(maxsize=3)
def _ticket_font(face: str) -> Font:
    path = FONTS_FOLDER / f"ticket-{face}.ttf"
    return Font(path.read_bytes(), path.name)
