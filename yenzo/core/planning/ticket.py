"""The job ticket: a piece of work comes in, printed pages (PDF, A5 across) for the decorator go out.

All words are live text in embedded fonts, to be found and copied. Exact strings stand in a face that tells 0 from O and
l from I; a character that face lacks is written in the typeface that is produced.
"""

import io
from collections.abc import Iterator
from dataclasses import dataclass
from pathlib import Path
from tempfile import TemporaryDirectory

from yenzo.core.asking.spelled import spelled
from yenzo.core.asking.words import entries_in_words
from yenzo.core.documents.fields import DateField
from yenzo.core.measure import plain_number
from yenzo.core.planning.faces import EXACT, HEADING, TEXT, face_font
from yenzo.core.planning.paper import INK, MUTED, PITCH, Color, Paper
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
PICTURE_DPI, PICTURE_HEIGHT_MM = 150.0, 46.0
# What has a name of its own on a ticket where it stands in a text: figures and letters that look alike, and odd spaces.
EASILY_MISTAKEN = frozenset("0O1Il\u00a0\u2013\u2019")
DOUBTFUL = frozenset("0123456789\u00a0\u2013\u2019")
# Of the small drawing of places: how high at most, and what its numbers take on the left.
PLACES_HEIGHT_MM, PLACES_EDGE_MM = 26.0, 6.0
# Letters of an exact row, of another one, of facts and labels.
EXACT_MM, PLAIN_MM, SMALL_MM, TINY_MM = 4.4, 3.4, 2.8, 2.2


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


def stamp_of(words: str) -> bytes:
    """Return a page with words in a ticket's foot: what is known only when it is printed. It lies over the ticket's."""
    paper = Paper(WIDTH_MM, HEIGHT_MM, words)
    paper.pdf.add_page()
    room = WIDTH_MM - 2 * MARGIN_MM
    line, *more = paper.broken(TEXT, words, SMALL_MM + 0.4, room)
    cut = f"{line[:-1]}…" if more else line
    paper.line(TEXT, cut, SMALL_MM + 0.4, MARGIN_MM, HEIGHT_MM - MARGIN_MM + 1.5)
    return paper.finished()


def area_rows(work: Work) -> Iterator[Row]:
    """Yield what lands on the goods: where, what, how large, in what."""
    for area in work.evaluation.scene.areas:
        where = place_words(area)
        for lettering in area.letterings:
            ink = lettering.outline.bounds
            size = f"{_mm(ink.width)} × {_mm(ink.height)} mm" if ink else ""
            color = " ".join(filter(None, (lettering.paint.name, lettering.paint.reference)))
            height = f"letters {_mm(lettering.letter_height_mm)} mm"
            facts = " · ".join(filter(None, (lettering.typeface_name, height, size, color, by_hand_words(lettering))))
            yield Row(
                _name(work, area), lettering.lines, (facts, *_mistaken(lettering.lines), where), lettering.typeface
            )
        for picture in area.pictures:
            said = (_shown_words(area, picture), f"{picture.dpi:.0f} dpi", by_hand_words(picture))
            yield Row(_name(work, area), (picture.name,), (" · ".join(filter(None, said)), where))
        for drawing in area.drawings:
            facts = " · ".join(filter(None, (_drawing_facts(area, drawing), by_hand_words(drawing))))
            yield Row(_name(work, area), (drawing.name,), (facts, where))


def _mistaken(lines: tuple[str, ...]) -> Iterator[str]:
    """Yield which letters are easily mistaken, with their names; nothing of plain words, which speak for themselves."""
    letters = set("".join(lines))
    if not (DOUBTFUL & letters or {"I", "l"} <= letters):
        return
    named = dict.fromkeys(
        f"{one.letter.strip() or '␣'} {one.name}"
        for line in lines
        for one in spelled(line)
        if one.name and one.letter in EASILY_MISTAKEN
    )
    if named:
        yield "mind: " + ", ".join(named)


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
    landed = {key for area in work.evaluation.scene.areas for node in area.nodes for key in node.fields}
    for entry in entries_in_words(work.evaluation.setup, work.evaluation.asked):
        if entry.field not in landed:
            yield Row(entry.workshop_label, tuple(entry.words.split("\n")), is_exact=entry.is_exact)


def meant_rows(work: Work) -> Iterator[Row]:
    """Yield what looks wrong and was said to be right: nobody at the station need ask again."""
    for question in work.evaluation.questions:
        if question.is_meant:
            asked = f"{question.message} The customer says that it is right so."
            yield Row("Meant so", tuple(question.text.split("\n")), (asked,))


def wanted_fields(work: Work) -> tuple[str, ...]:
    """Return the fields whose entries say by when the customer wants the piece."""
    return tuple(
        field.key
        for field in work.evaluation.setup.fields
        if isinstance(field, DateField) and field.is_wanted and work.evaluation.asked.is_filled(field.key)
    )


def _name(work: Work, area: AreaScene) -> str:
    side = work.evaluation.scene.side(area.side)
    return f"{side.name} / {area.name}" if side else area.name


class _Sheet:
    """The pages of a ticket while they are filled, from the top."""

    def __init__(self, work: Work, folder: Path) -> None:
        # The library takes fonts by their paths.
        self._work, self._folder = work, folder
        self._typefaces = Typefaces(work.evaluation.setup.materials, work.assets)
        self._paper = Paper(WIDTH_MM, HEIGHT_MM, work.number)
        # Where numbers of the drawing of places stand already.
        self._across: list[float] = []
        self._down: list[float] = []

    def finished(self) -> bytes:
        """Return the pages as a PDF file."""
        return self._paper.finished()

    def first_page(self) -> None:
        """Begin with what the whole piece is: number, product, pictures, quantity, code, and when it is wanted."""
        work, offer = self._work, self._work.evaluation.setup.offer
        self._new_page()
        variant = offer.variant(work.evaluation.asked.variant)
        about = f"{offer.name}, {variant.name}" if variant else offer.name
        left, width = MARGIN_MM + 64, ROOM_MM - 64
        self._paper.line(HEADING, work.number, 8.0, MARGIN_MM, MARGIN_MM)
        self._flow(TEXT, about, 3.6, left, width)
        self._flow(
            TEXT, f"order {work.order} · piece {work.piece} of {work.pieces_in_order}", SMALL_MM, left, width, MUTED
        )
        sku = work.evaluation.setup.sku_of(work.evaluation.asked.variant)
        if sku:
            self._flow(EXACT, f"take {work.evaluation.asked.pieces} × {sku}", SMALL_MM, left, width)
        self._paper.top = max(self._paper.top, MARGIN_MM + 10) + 1
        self._stub()
        self._side_pictures()

    def add(self, row: Row) -> None:
        """Add a row below the last one, on as many pages as it takes."""
        left, width = MARGIN_MM + LABEL_MM, ROOM_MM - LABEL_MM
        face, lines = self._exact(row)
        letter_mm = EXACT_MM if row.is_exact else PLAIN_MM
        labels = self._paper.broken(TEXT, row.label, SMALL_MM, LABEL_MM - 2)
        beginning = max(min(len(lines), 2) * letter_mm, len(labels) * SMALL_MM) * PITCH + 3
        if self._paper.top + beginning > HEIGHT_MM - MARGIN_MM:
            self._next_page()
        self._paper.rule(MARGIN_MM, self._paper.top, ROOM_MM, 0.15)
        self._paper.top += 1.4
        top, page = self._paper.top, self._paper.pdf.page
        for number, label in enumerate(labels):
            self._paper.line(TEXT, label, SMALL_MM, MARGIN_MM, top + number * SMALL_MM * PITCH, MUTED)
        for line in lines:
            self._flow(face, line, letter_mm, left, width)
        for fact in row.facts:
            self._flow(TEXT, fact, SMALL_MM, left, width, MUTED)
        if self._paper.pdf.page == page:
            self._paper.top = max(self._paper.top, top + len(labels) * SMALL_MM * PITCH)
        self._paper.top += 1.6

    def _new_page(self) -> None:
        self._paper.pdf.add_page()
        for y in range(int(MARGIN_MM), int(HEIGHT_MM - MARGIN_MM), 3):
            self._paper.rule(STUB_LEFT_MM, float(y), 0.25, 1.5)
        self._paper.top = MARGIN_MM

    def _next_page(self) -> None:
        self._new_page()
        self._paper.line(HEADING, self._work.number, 5.0, MARGIN_MM, MARGIN_MM)
        self._paper.line(TEXT, f"page {self._paper.pdf.page}", 3.6, STUB_LEFT_MM + MARGIN_MM / 2, MARGIN_MM)
        self._paper.top = MARGIN_MM + 9

    def _side_pictures(self) -> None:
        sides = self._work.evaluation.scene.sides
        tallest = 0.0
        for number, side in enumerate(sides):
            room = ROOM_MM / len(sides)
            scale = min((room - 4) / side.width_mm, PICTURE_HEIGHT_MM / side.height_mm)
            picture = render_png(side_page(side, with_goods=True), self._work.assets, PICTURE_DPI * scale)
            left, wide, high = MARGIN_MM + number * room, side.width_mm * scale, side.height_mm * scale
            self._paper.pdf.image(io.BytesIO(picture), left, self._paper.top, wide, high)
            self._paper.line(TEXT, side.name, SMALL_MM, left, self._paper.top + high + 0.8, MUTED)
            tallest = max(tallest, high)
        if sides:
            self._paper.top += tallest + 6.5

    def _places(self, left: float, width: float, bottom: float) -> None:
        """Draw where areas lie on their sides, with their distances from the left and the top edge, as far as it fits.

        The same is said in words in the rows.
        """
        for side in self._work.evaluation.scene.sides:
            if not any(area.nodes for area in side.areas):
                continue
            scale = min((width - PLACES_EDGE_MM) / side.width_mm, PLACES_HEIGHT_MM / side.height_mm)
            at, top = left + PLACES_EDGE_MM, self._paper.top + 5
            if top + side.height_mm * scale > bottom:
                return
            self._frame(at, top, side.width_mm * scale, side.height_mm * scale)
            self._across, self._down = [], []
            for area in side.areas:
                if area.nodes:
                    self._place(area, at, top, scale)
            self._paper.top = top + side.height_mm * scale + 1

    def _place(self, area: AreaScene, left: float, top: float, scale: float) -> None:
        frame = area.area
        x, y = left + frame.x_mm * scale, top + frame.y_mm * scale
        wide, high = frame.width_mm * scale, frame.height_mm * scale
        self._frame(x, y, wide, high, INK)
        # From the edges to the area, through its middle, with the numbers where the lines begin.
        self._paper.rule(left, y + high / 2, max(x - left, 0.1), 0.12, INK)
        self._paper.rule(x + wide / 2, top, 0.12, max(y - top, 0.1), INK)
        # Numbers that would lie on each other are left to the rows.
        if _is_apart(self._down, y + high / 2, TINY_MM):
            self._paper.right(TEXT, _mm(frame.x_mm), TINY_MM, left - 0.6, y + high / 2 - TINY_MM * 0.7)
        if _is_apart(self._across, x + wide / 2, 2.5 * TINY_MM):
            self._paper.line(TEXT, _mm(frame.y_mm), TINY_MM, x + wide / 2 + 0.4, top - TINY_MM * PITCH)

    def _frame(self, left: float, top: float, wide: float, high: float, color: Color = MUTED) -> None:
        for x, y, width, height in (
            (left, top, wide, 0.12),
            (left, top + high, wide, 0.12),
            (left, top, 0.12, high),
            (left + wide, top, 0.12, high),
        ):
            self._paper.rule(x, y, width, height, color)

    def _stub(self) -> None:
        work, left = self._work, STUB_LEFT_MM + MARGIN_MM / 2
        side = WIDTH_MM - MARGIN_MM - left
        self._paper.code(work.number, left, MARGIN_MM, side)
        kept, self._paper.top = self._paper.top, MARGIN_MM + side + 4
        self._flow(HEADING, f"{work.evaluation.asked.pieces} ×", 7.0, left, side)
        wanted = wanted_fields(work)
        for entry in entries_in_words(work.evaluation.setup, work.evaluation.asked):
            if entry.field in wanted:
                self._paper.top += 1
                self._flow(TEXT, entry.workshop_label, SMALL_MM, left, side, MUTED)
                self._flow(HEADING, entry.words, 5.0, left, side)
        self._paper.top += 1
        known = work.evaluation.setup.materials.methods
        used = dict.fromkeys(area.method for area in work.evaluation.scene.areas if area.nodes)
        # In the order in which they are made.
        for key in sorted(used, key=lambda one: (known[one].order, one)):
            self._flow(HEADING, known[key].name, 4.0, left, side)
        self._places(left, side, HEIGHT_MM - MARGIN_MM - 5)
        revision = f"revision {work.revision_number} · " if work.revision_number else "revision "
        self._paper.line(TEXT, f"{revision}{work.revision[:8]}", 2.4, left, HEIGHT_MM - MARGIN_MM - 3, MUTED)
        self._paper.top = kept

    def _exact(self, row: Row) -> tuple[str, tuple[str, ...]]:
        """Return the face for exact lines, and the lines; characters that no face has are named by their codes."""
        text = " ".join(row.lines)
        if not (lacking := shape_line(face_font(EXACT), text).missing):
            return EXACT, row.lines
        materials = self._work.evaluation.setup.materials.typefaces
        for key in dict.fromkeys([*filter(None, [row.typeface]), *materials]):
            if not self._typefaces.missing(key, text, self._work.evaluation.asked.language):
                face = f"produced-{key}"
                if face not in self._paper.pdf.fonts:
                    path = self._folder / f"{key}.ttf"
                    path.write_bytes(self._work.assets.read(materials[key].font))
                    self._paper.pdf.add_font(face, "", path)
                return face, row.lines
        named = {char: "".join(f"[U+{ord(one):04X}]" for one in char) for char in lacking}
        for char, code in named.items():
            text = text.replace(char, code)
        return EXACT, (text,)

    def _flow(self, face: str, text: str, letter_mm: float, left: float, width: float, color: Color = INK) -> None:
        """Write a text from the top on, broken to a width; where the page ends it goes on on the next one."""
        for line in self._paper.broken(face, text, letter_mm, width):
            if self._paper.top + letter_mm * PITCH > HEIGHT_MM - MARGIN_MM:
                self._next_page()
            self._paper.line(face, line, letter_mm, left, self._paper.top, color)
            self._paper.top += letter_mm * PITCH


def _is_apart(taken: list[float], at: float, least: float) -> bool:
    """Take a place on a line, unless another is nearer to it than the least; tell whether it was taken."""
    if any(abs(at - one) < least for one in taken):
        return False
    taken.append(at)
    return True


def _mm(value: float) -> str:
    return plain_number(value, 1)
