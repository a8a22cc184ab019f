"""The job ticket: a piece of work comes in, printed pages (PDF, A5 across) for the decorator go out.

All words are live text in embedded fonts, to be found and copied. Exact strings stand in a face that tells 0 from O and
l from I; a character that face lacks is written in the typeface that is produced.
"""

import io
from collections.abc import Iterator
from dataclasses import dataclass
from datetime import UTC, datetime
from itertools import groupby
from pathlib import Path
from tempfile import TemporaryDirectory

import segno
from fpdf import FPDF
from fpdf.enums import MethodReturnValue

from yenzo.core.asking.words import entries_in_words
from yenzo.core.documents.fields import DateField
from yenzo.core.measure import plain_number
from yenzo.core.planning.faces import EXACT, FACES, HEADING, TEXT, face_font, face_path
from yenzo.core.planning.work import Work
from yenzo.core.render.page import side_page
from yenzo.core.render.png import render_png
from yenzo.core.scene.nodes import AreaScene, Node, PlacedDrawing, PlacedPicture
from yenzo.core.text.shaping import shape_line
from yenzo.core.text.typefaces import Typefaces

WIDTH_MM, HEIGHT_MM, MARGIN_MM = 210.0, 148.0, 9.0
STUB_LEFT_MM = 160.0
LABEL_MM, LEAST_CUT_MM = 34.0, 0.05
ROOM_MM = STUB_LEFT_MM - 2 * MARGIN_MM
INK, MUTED = (22, 48, 58), (91, 106, 112)
PICTURE_DPI, PICTURE_HEIGHT_MM = 150.0, 46.0
# Any fixed date: a real one would make every ticket different.
NO_DATE = datetime(1980, 1, 1, tzinfo=UTC)
# Letters of an exact row, of another one, of facts and labels; from line to line, in letter sizes.
EXACT_MM, PLAIN_MM, SMALL_MM, PITCH = 4.4, 3.4, 2.8, 1.35


@dataclass(frozen=True)
class Row:
    """One row: what it is about, the exact lines, what else is said of it, and the typeface that is produced."""

    label: str
    lines: tuple[str, ...]
    facts: tuple[str, ...] = ()
    typeface: str | None = None
    is_exact: bool = True


def make_ticket(work: Work) -> bytes:
    """Return the ticket as a PDF of as many pages as its rows need."""
    with TemporaryDirectory() as folder:
        sheet = _Sheet(work, Path(folder))
        sheet.first_page()
        for row in (*area_rows(work), *entry_rows(work), *meant_rows(work)):
            sheet.add(row)
        return sheet.finished()


def area_rows(work: Work) -> Iterator[Row]:
    """Yield what lands on the goods: where, what, how large, in what."""
    for area in work.walked.scene.areas:
        where = place_words(area)
        for lettering in area.letterings:
            ink = lettering.outline.bounds
            size = f"{_mm(ink.width)} × {_mm(ink.height)} mm" if ink else ""
            color = " ".join(filter(None, (lettering.paint.name, lettering.paint.reference)))
            height = f"letters {_mm(lettering.letter_height_mm)} mm"
            facts = " · ".join(filter(None, (lettering.typeface_name, height, size, color, by_hand_words(lettering))))
            yield Row(_name(work, area), lettering.lines, (facts, where), lettering.typeface)
        for picture in area.pictures:
            said = (_shown_words(area, picture), f"{picture.dpi:.0f} dpi", by_hand_words(picture))
            yield Row(_name(work, area), (picture.name,), (" · ".join(filter(None, said)), where))
        for drawing in area.drawings:
            facts = " · ".join(filter(None, (_drawing_facts(area, drawing), by_hand_words(drawing))))
            yield Row(_name(work, area), (drawing.name,), (facts, where))


def turned_deg(node: Node) -> float:
    """Return by how many degrees, clockwise, hands have turned something."""
    moved = node.moved
    return 0.0 if moved is None else round(moved.item.turn_deg if moved.item else moved.adjustment.turn_deg, 3)


def by_hand_words(node: Node) -> str:
    """Return where hands put something in its area, and how they turned it; empty where they left it."""
    box, moved = node.bounds, node.moved
    if box is None or moved is None or not (moved.item or moved.adjustment):
        return ""
    turned = turned_deg(node)
    x, y = box.middle
    place = f"its middle {_mm(x)} mm from the left, {_mm(y)} mm from the top of the area"
    return f"{place}, turned {_mm(turned)}° clockwise" if turned else place


def _shown_words(area: AreaScene, artwork: PlacedPicture | PlacedDrawing) -> str:
    """Return how large artwork shows in its area, and how large all of it would be where some is cut off."""
    (width, height), (whole_width, whole_height) = area.shown_size(artwork), artwork.size_mm
    shown = f"{_mm(width)} × {_mm(height)} mm"
    if max(whole_width - width, whole_height - height) < LEAST_CUT_MM:
        return shown
    return f"{shown} of {_mm(whole_width)} × {_mm(whole_height)} mm"


def _drawing_facts(area: AreaScene, drawing: PlacedDrawing) -> str:
    color = f" · {drawing.paint.name} {drawing.paint.reference}".rstrip() if drawing.paint else ""
    kind = f"QR code of “{drawing.code.text}”" if drawing.code else "drawing"
    return f"{_shown_words(area, drawing)} · {kind}{color}"


def place_words(area: AreaScene) -> str:
    """Return where an area lies on its side, in words."""
    frame = area.area
    turned = f", turned {_mm(frame.turn_deg)}° clockwise about its middle" if frame.turn_deg else ""
    return (
        f"{_mm(frame.x_mm)} mm from the left, {_mm(frame.y_mm)} mm from the top{turned} · "
        f"area {_mm(frame.width_mm)} × {_mm(frame.height_mm)} mm"
    )


def entry_rows(work: Work) -> Iterator[Row]:
    """Yield what is asked and lands in no area: it goes on the ticket all the same."""
    landed = {key for area in work.walked.scene.areas for node in area.nodes for key in node.fields}
    for entry in entries_in_words(work.walked.setup, work.walked.asked):
        if entry.field not in landed:
            yield Row(entry.workshop_label, tuple(entry.words.split("\n")), is_exact=entry.is_exact)


def meant_rows(work: Work) -> Iterator[Row]:
    """Yield what looks wrong and was said to be right: nobody at the station need ask again."""
    for question in work.walked.questions:
        if question.is_meant:
            asked = f"{question.message} The customer says that it is right so."
            yield Row("Meant so", tuple(question.text.split("\n")), (asked,))


def wanted_fields(work: Work) -> tuple[str, ...]:
    """Return the fields whose entries say by when the customer wants the piece."""
    return tuple(
        field.key
        for field in work.walked.setup.fields
        if isinstance(field, DateField) and field.is_wanted and work.walked.asked.is_filled(field.key)
    )


def _name(work: Work, area: AreaScene) -> str:
    side = work.walked.scene.side(area.side)
    return f"{side.name} / {area.name}" if side else area.name


class _Sheet:
    """The pages of a ticket while they are filled, from the top."""

    def __init__(self, work: Work, folder: Path) -> None:
        # The library takes fonts by their paths.
        self._work, self._folder = work, folder
        self._typefaces = Typefaces(work.walked.setup.materials, work.assets)
        self._pdf = FPDF("portrait", "mm", (WIDTH_MM, HEIGHT_MM))
        self._pdf.set_creation_date(NO_DATE)
        self._pdf.set_auto_page_break(False)
        self._pdf.set_margin(0)
        self._pdf.c_margin = 0
        self._pdf.set_title(work.number)
        self._pdf.set_lang("en")
        for face in FACES:
            self._pdf.add_font(face, "", face_path(face))
        self._pdf.set_text_shaping(True)
        self._top = 0.0

    def finished(self) -> bytes:
        """Return the pages as a PDF file."""
        return bytes(self._pdf.output())

    def first_page(self) -> None:
        """Begin with what the whole piece is: number, product, pictures, quantity, code, and when it is wanted."""
        work, offer = self._work, self._work.walked.setup.offer
        self._new_page()
        variant = offer.variant(work.walked.asked.variant)
        about = f"{offer.name}, {variant.name}" if variant else offer.name
        left, width = MARGIN_MM + 64, ROOM_MM - 64
        self._line(HEADING, work.number, 8.0, MARGIN_MM, MARGIN_MM)
        self._flow(TEXT, about, 3.6, left, width)
        self._flow(
            TEXT, f"order {work.order} · piece {work.piece} of {work.pieces_in_order}", SMALL_MM, left, width, MUTED
        )
        self._top = max(self._top, MARGIN_MM + 10) + 2
        self._stub()
        self._side_pictures()

    def add(self, row: Row) -> None:
        """Add a row below the last one, on as many pages as it takes."""
        left, width = MARGIN_MM + LABEL_MM, ROOM_MM - LABEL_MM
        face, lines = self._exact(row)
        letter_mm = EXACT_MM if row.is_exact else PLAIN_MM
        labels = self._broken(TEXT, row.label, SMALL_MM, LABEL_MM - 2)
        beginning = max(min(len(lines), 2) * letter_mm, len(labels) * SMALL_MM) * PITCH + 3
        if self._top + beginning > HEIGHT_MM - MARGIN_MM:
            self._next_page()
        self._rule(MARGIN_MM, self._top, ROOM_MM, 0.15)
        self._top += 1.4
        top, page = self._top, self._pdf.page
        for number, label in enumerate(labels):
            self._line(TEXT, label, SMALL_MM, MARGIN_MM, top + number * SMALL_MM * PITCH, MUTED)
        for line in lines:
            self._flow(face, line, letter_mm, left, width)
        for fact in row.facts:
            self._flow(TEXT, fact, SMALL_MM, left, width, MUTED)
        if self._pdf.page == page:
            self._top = max(self._top, top + len(labels) * SMALL_MM * PITCH)
        self._top += 1.6

    def _new_page(self) -> None:
        self._pdf.add_page()
        for y in range(int(MARGIN_MM), int(HEIGHT_MM - MARGIN_MM), 3):
            self._rule(STUB_LEFT_MM, float(y), 0.25, 1.5)
        self._top = MARGIN_MM

    def _next_page(self) -> None:
        self._new_page()
        self._line(HEADING, self._work.number, 5.0, MARGIN_MM, MARGIN_MM)
        self._line(TEXT, f"page {self._pdf.page}", 3.6, STUB_LEFT_MM + MARGIN_MM / 2, MARGIN_MM)
        self._top = MARGIN_MM + 9

    def _side_pictures(self) -> None:
        sides = self._work.walked.scene.sides
        tallest = 0.0
        for number, side in enumerate(sides):
            room = ROOM_MM / len(sides)
            scale = min((room - 4) / side.width_mm, PICTURE_HEIGHT_MM / side.height_mm)
            picture = render_png(side_page(side, with_goods=True), self._work.assets, PICTURE_DPI * scale)
            left, wide, high = MARGIN_MM + number * room, side.width_mm * scale, side.height_mm * scale
            self._pdf.image(io.BytesIO(picture), left, self._top, wide, high)
            self._line(TEXT, side.name, SMALL_MM, left, self._top + high + 0.8, MUTED)
            tallest = max(tallest, high)
        if sides:
            self._top += tallest + 6.5

    def _stub(self) -> None:
        work, left = self._work, STUB_LEFT_MM + MARGIN_MM / 2
        side = WIDTH_MM - MARGIN_MM - left
        self._code(left, MARGIN_MM, side)
        kept, self._top = self._top, MARGIN_MM + side + 4
        self._flow(HEADING, f"{work.walked.asked.pieces} ×", 7.0, left, side)
        wanted = wanted_fields(work)
        for entry in entries_in_words(work.walked.setup, work.walked.asked):
            if entry.field in wanted:
                self._top += 1
                self._flow(TEXT, entry.workshop_label, SMALL_MM, left, side, MUTED)
                self._flow(HEADING, entry.words, 5.0, left, side)
        self._top += 1
        methods = dict.fromkeys(area.method for area in work.walked.scene.areas if area.nodes)
        for key in methods:
            self._flow(HEADING, work.walked.setup.materials.methods[key].name, 4.0, left, side)
        revision = f"revision {work.revision_number} · " if work.revision_number else "revision "
        self._line(TEXT, f"{revision}{work.revision[:8]}", 2.4, left, HEIGHT_MM - MARGIN_MM - 3, MUTED)
        self._top = kept

    def _code(self, left: float, top: float, side: float) -> None:
        """Draw the number as a QR code (ISO/IEC 18004, error correction M), its quiet zone left to the page."""
        matrix = [list(row) for row in segno.make(self._work.number, error="m", micro=False).matrix]
        module = side / len(matrix)
        self._pdf.set_fill_color(*INK)
        for y, row in enumerate(matrix):
            x = 0
            for is_dark, run in groupby(row):
                wide = len(list(run))
                if is_dark:
                    # A hair higher, so that no line shows between rows.
                    self._pdf.rect(left + x * module, top + y * module, wide * module, module * 1.03, style="F")
                x += wide

    def _exact(self, row: Row) -> tuple[str, tuple[str, ...]]:
        """Return the face for exact lines, and the lines; characters that no face has are named by their codes."""
        text = " ".join(row.lines)
        if not (lacking := shape_line(face_font(EXACT), text).missing):
            return EXACT, row.lines
        materials = self._work.walked.setup.materials.typefaces
        for key in dict.fromkeys([*filter(None, [row.typeface]), *materials]):
            if not self._typefaces.missing(key, text, self._work.walked.asked.language):
                face = f"produced-{key}"
                if face not in self._pdf.fonts:
                    path = self._folder / f"{key}.ttf"
                    path.write_bytes(self._work.assets.read(materials[key].font))
                    self._pdf.add_font(face, "", path)
                return face, row.lines
        named = {char: "".join(f"[U+{ord(one):04X}]" for one in char) for char in lacking}
        for char, code in named.items():
            text = text.replace(char, code)
        return EXACT, (text,)

    def _flow(
        self, face: str, text: str, letter_mm: float, left: float, width: float, color: tuple[int, int, int] = INK
    ) -> None:
        """Write a text from the top on, broken to a width; where the page ends it goes on on the next one."""
        for line in self._broken(face, text, letter_mm, width):
            if self._top + letter_mm * PITCH > HEIGHT_MM - MARGIN_MM:
                self._next_page()
            self._line(face, line, letter_mm, left, self._top, color)
            self._top += letter_mm * PITCH

    def _broken(self, face: str, text: str, letter_mm: float, width: float) -> list[str]:
        if not text.strip():
            return []
        self._pdf.set_font(face, size=letter_mm * self._pdf.k)
        lines = self._pdf.multi_cell(width, text=text, align="L", dry_run=True, output=MethodReturnValue.LINES)
        assert isinstance(lines, list)
        return [line.strip() for line in lines]

    def _line(
        self, face: str, text: str, letter_mm: float, left: float, top: float, color: tuple[int, int, int] = INK
    ) -> None:
        self._pdf.set_font(face, size=letter_mm * self._pdf.k)
        self._pdf.set_text_color(*color)
        self._pdf.set_xy(left, top)
        self._pdf.cell(self._pdf.get_string_width(text) + 1, letter_mm * PITCH, text, align="L")

    def _rule(self, left: float, top: float, width: float, height: float) -> None:
        self._pdf.set_fill_color(*MUTED)
        self._pdf.rect(left, top, width, height, style="F")


def _mm(value: float) -> str:
    return plain_number(value, 1)
