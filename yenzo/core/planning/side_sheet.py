"""A side at its true size: a side of the goods comes in; a page with the areas in place, and measured, goes out (PDF).

The goods lie faint below what is made, so that a piece can be laid on the print and checked.
"""

import io
from collections.abc import Iterator, Sequence
from dataclasses import replace
from itertools import cycle

from yenzo.core.documents.areas import Area
from yenzo.core.documents.assets import Assets
from yenzo.core.measure import plain_number
from yenzo.core.planning.faces import HEADING, TEXT, face_font
from yenzo.core.render.page import Page, PlacedArea, side_page
from yenzo.core.render.pdf import render_pdf
from yenzo.core.render.pictures import open_picture
from yenzo.core.scene.inking import drawn
from yenzo.core.scene.nodes import AreaScene, Node, PlacedPicture, SideScene
from yenzo.core.scene.paints import Layer, Paint
from yenzo.core.shapes.areas import arc_outline
from yenzo.core.shapes.booleans import Pen, stroked
from yenzo.core.shapes.box import Box
from yenzo.core.shapes.matrix import Matrix
from yenzo.core.shapes.outline import Outline
from yenzo.core.text.line import fit_line
from yenzo.core.text.styles import TextStyle

INK, MEASURE = Paint("#16303a"), Paint("#b3261e")
FAINT = 0.25
# Around the goods, above them for the heading, and from one line of the list of areas to the next, in letters.
MARGIN_MM, PITCH = 12.0, 1.9
LEAST_LETTER_MM, MOST_LETTER_MM, LETTER_SHARE = 2.0, 6.0, 0.012
LINE_MM = 0.2
LEAST_WIDTH_MM = 60.0
# Where along its area each dimension stands, so that those of areas inside each other don't lie on each other.
STANDS = (0.5, 0.3, 0.7, 0.15, 0.85)


def make_side_sheet(side: SideScene, number: str, assets: Assets) -> bytes:
    """Return a side at its true size: goods faint, areas in place, dimensioned from the edges of the goods."""
    letter = min(max(LETTER_SHARE * max(side.width_mm, side.height_mm), LEAST_LETTER_MM), MOST_LETTER_MM)
    measured = [area for area in side.areas if area.nodes]
    heading_mm = 5 * letter
    width = max(side.width_mm, LEAST_WIDTH_MM) + 2 * MARGIN_MM
    height = heading_mm + side.height_mm + 2 * MARGIN_MM + letter * PITCH * (len(measured) + 1)
    to_page = Matrix.shift(MARGIN_MM, MARGIN_MM + heading_mm)
    goods = [
        PlacedPicture("", "", side.name, asset, 1, 1, Matrix(side.width_mm, 0, 0, side.height_mm, 0, 0))
        for asset in (side.picture, *side.overlays)
    ]
    notes = [
        *_heading(side, number, letter),
        *_list_of_areas(side, measured, letter),
        *(
            note
            for area, stand in zip(measured, cycle(STANDS), strict=False)
            for note in _dimensions(area, letter, stand)
        ),
        drawn(Layer(_frame(Outline.rectangle(Box(0, 0, side.width_mm, side.height_mm))), INK, "ink")),
    ]
    shown = side_page(side, with_goods=False).areas
    outlines = [drawn(Layer(_frame(placed.shown(placed.scene.trim_outline)), MEASURE, "ink")) for placed in shown]
    areas = (
        _sheet_area(width, height, goods, to_page),
        *(replace(placed, place=placed.place.then(to_page)) for placed in shown),
        _sheet_area(width, height, [*outlines, *notes], to_page),
    )
    return render_pdf(Page(width, height, Box(0, 0, width, height), areas), _FaintAssets(assets, side))


class _FaintAssets:
    """The assets of a work, with the goods' own pictures faint."""

    def __init__(self, assets: Assets, side: SideScene) -> None:
        self._assets, self._goods = assets, {side.picture, *side.overlays}

    def read(self, sha256: str) -> bytes:
        """Return an asset's bytes, a picture of the goods as a faint PNG; raises AssetError."""
        data = self._assets.read(sha256)
        if sha256 not in self._goods:
            return data
        picture = open_picture(data, sha256).convert("RGBA")
        picture.putalpha(picture.getchannel("A").point(lambda value: round(value * FAINT)))
        output = io.BytesIO()
        picture.save(output, "PNG", compress_level=1)
        return output.getvalue()


def _sheet_area(width: float, height: float, nodes: Sequence[Node], place: Matrix) -> PlacedArea:
    sheet = Area(key="sheet", name="Sheet", x_mm=0, y_mm=0, width_mm=width, height_mm=height, method="paper")
    around = Outline.rectangle(Box(-width, -height, 2 * width, 2 * height))
    return PlacedArea(AreaScene("sheet", sheet, tuple(nodes)), place, around)


def _heading(side: SideScene, number: str, letter: float) -> Iterator[Node]:
    width = max(side.width_mm, LEAST_WIDTH_MM)
    yield _text(HEADING, f"{number} · {side.name}", 0, -5 * letter, letter * 1.3, width=width)
    size = f"{_mm(side.width_mm)} × {_mm(side.height_mm)} mm, true size (print it at 100 %), measured from this frame"
    yield _text(TEXT, size, 0, -2.4 * letter, letter, width=width)


def _list_of_areas(side: SideScene, areas: list[AreaScene], letter: float) -> Iterator[Node]:
    top = side.height_mm + MARGIN_MM / 2
    for number, area in enumerate(areas):
        frame = area.area
        turned = f", turned {_mm(frame.turn_deg)}° clockwise about its middle" if frame.turn_deg else ""
        words = (
            f"{area.name}: {_mm(frame.x_mm)} mm from the left, {_mm(frame.y_mm)} mm from the top, "
            f"{_mm(frame.width_mm)} × {_mm(frame.height_mm)} mm{turned}"
        )
        yield _text(TEXT, words, 0, top + number * letter * PITCH, letter, width=max(side.width_mm, LEAST_WIDTH_MM))


def _dimensions(area: AreaScene, letter: float, stand: float) -> Iterator[Node]:
    """Yield the way from the goods' left and top edges to an area: to its frame, or to its middle when it is turned."""
    frame = area.area
    middle = (frame.x_mm + frame.width_mm / 2, frame.y_mm + frame.height_mm / 2)
    at = middle if frame.turn_deg else (frame.x_mm, frame.y_mm)
    across, down = frame.y_mm + frame.height_mm * stand, frame.x_mm + frame.width_mm * stand
    if frame.turn_deg:
        across, down = middle[1], middle[0]
    if at[0] > 0:
        yield _arrow((0, across), (at[0], across), letter)
        yield _text(TEXT, _mm(at[0]), at[0] / 2, across - 1.6 * letter, letter, MEASURE, align="center")
    if at[1] > 0:
        yield _arrow((down, 0), (down, at[1]), letter)
        yield _text(TEXT, _mm(at[1]), down + 0.5 * letter, at[1] / 2 - letter / 2, letter, MEASURE)


def _arrow(start: tuple[float, float], end: tuple[float, float], letter: float) -> Node:
    (x1, y1), (x2, y2) = start, end
    box = Box(min(x1, x2), min(y1, y2), max(x1, x2), max(y1, y2)).grown(LINE_MM / 2)
    dot = arc_outline(0, 360, Matrix(letter / 5, 0, 0, letter / 5, 0, 0))
    outline = Outline.joined([Outline.rectangle(box), dot.shifted(x1, y1), dot.shifted(x2, y2)])
    return drawn(Layer(outline, MEASURE, "ink"))


def _frame(outline: Outline) -> Outline:
    return stroked(outline.verbs, outline.points, Pen(LINE_MM))


def _text(
    face: str,
    words: str,
    x: float,
    y: float,
    letter: float,
    paint: Paint = INK,
    *,
    width: float = 2000.0,
    align: str = "left",
) -> Node:
    left = {"left": x, "right": x - width, "center": x - width / 2}[align]
    style = TextStyle(letter * 0.3, letter, align, "top")  # type: ignore[arg-type] # one of its three ways
    return drawn(
        Layer(
            fit_line(face_font(face), words, Box(left, y, left + width, y + letter * 1.6), style).outline, paint, "ink"
        )
    )


def _mm(value: float) -> str:
    return plain_number(value, 1)
