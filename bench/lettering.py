"""Measures lettering, shapes and files, each with texts that nobody has set before."""

import io
import itertools
import statistics
from collections.abc import Callable, Iterator
from pathlib import Path
from time import perf_counter

import ezdxf
import uharfbuzz as hb
from fontTools.pens.recordingPen import RecordingPen

from yenzo.core.documents.areas import Area
from yenzo.core.render.dxf import render_dxf
from yenzo.core.render.page import area_page
from yenzo.core.render.png import render_png
from yenzo.core.scene.nodes import AreaScene, Lettering
from yenzo.core.scene.paints import Paint
from yenzo.core.shapes.bending import bend
from yenzo.core.shapes.box import Box
from yenzo.core.shapes.outline import Outline
from yenzo.core.shapes.paths import CurvePath
from yenzo.core.shapes.surfaces import surface_warp
from yenzo.core.text.along import Arc, set_along, set_on_arc
from yenzo.core.text.block import fit_block
from yenzo.core.text.fonts import Font
from yenzo.core.text.line import fit_line
from yenzo.core.text.styles import BlockStyle, TextStyle
from yenzo.core.text.thin import thin_places

FACE = Path(__file__).resolve().parent.parent / "yenzo" / "materials" / "typefaces" / "quayside.ttf"
STYLE = TextStyle(2, 30)
WAVE = CurvePath.through([(0, 60), (60, 10), (120, 110), (220, 50)])
ARC = Arc(100, 120, 80, 270, 160)
WORDS = "the tide keeps the harbor clock and the clock keeps the harbor while terns wait on the north pile for supper "
Measured = tuple[str, float, float, str]
Contour = tuple[str, list[tuple[float, ...]], list[float]]


def rows() -> Iterator[Measured]:
    """Yield name, budget, median and unit of each."""
    font = Font(FACE.read_bytes(), "quayside")
    names = (f"Halcyon Days {number:05d}"[:19] for number in itertools.count())
    blocks = (f"{number:05d} {WORDS}{WORDS}"[:200] for number in itertools.count())
    block_box, block_style = Box(0, 0, 160, 90), BlockStyle(1, 20)
    one_line = _median(lambda: fit_line(font, next(names), Box(0, 0, 300, 60), STYLE))
    yield "lettering: one line, median", 1, one_line, "ms"
    bare = _median(lambda: _bare(font, next(names)))
    yield "lettering: one line as times of shaping and drawing by the library alone", 3, one_line / bare, "x"
    yield "lettering: arc, median", 5, _median(lambda: set_on_arc(font, next(names), ARC, STYLE)), "ms"
    yield "lettering: curve, median", 5, _median(lambda: set_along(font, next(names), WAVE, STYLE)), "ms"
    block = _median(lambda: fit_block(font, next(blocks), block_box, block_style))
    yield "lettering: block of 200 characters with fitting, median", 6, block, "ms"
    area = Area.model_validate(
        {
            "key": "a",
            "name": "A",
            "method": "m",
            "x_mm": 0,
            "y_mm": 0,
            "width_mm": 300,
            "height_mm": 60,
            "surface": {"kind": "cylinder", "span_deg": 140, "tilt_deg": 10},
        }
    )
    warp = surface_warp(area)
    assert warp is not None
    lines = (fit_line(font, next(names), Box(0, 0, 300, 60), STYLE).outline for _ in itertools.count())
    yield (
        "shapes: a line bent on a cylinder, median",
        8,
        _median(lambda: bend(next(lines), warp, 0.01)) + one_line,
        "ms",
    )
    thin_places(font, "Halcyon Days 0123456789", STYLE, 20)
    thin = _median(lambda: thin_places(font, f"{next(names)}H", STYLE, 20))
    yield "checks: thinnest stroke of a 20-character name, median", 15, thin, "ms"
    yield from _files(font)


def _files(font: Font) -> Iterator[Measured]:
    name = fit_line(font, "Halcyon Days", Box(0, 0, 240, 60), STYLE).outline
    page = area_page(_scene(name, 250, 60))
    dxf = _median(lambda: render_dxf(page), times=15)
    contours = _contours(render_dxf(page))
    same = _median(lambda: _same_drawing(contours), times=15)
    yield "files: DXF as times of the library alone writing the same contours", 1.5, dxf / same, "x"
    large = area_page(_scene(name, 254, 304.8))
    picture = _median(lambda: render_png(large, _NoAssets(), 300), times=3)
    yield "files: PNG of 3000 x 3600 pixels, median", 1500, picture, "ms"


def _median(call: Callable[[], object], times: int = 60) -> float:
    call()
    taken = []
    for _ in range(times):
        begun = perf_counter()
        call()
        taken.append((perf_counter() - begun) * 1000)
    return statistics.median(taken)


def _bare(font: Font, text: str) -> None:
    # The least that gives a line as curves: by the library alone it is shaped, and each of its glyphs drawn to a list.
    buffer = hb.Buffer()
    buffer.add_str(text)
    buffer.guess_segment_properties()
    hb.shape(font.hb_font, buffer)
    for info in buffer.glyph_infos:
        font.hb_font.draw_glyph_with_pen(info.codepoint, RecordingPen())


def _contours(dxf: bytes) -> list[Contour]:
    """Return what a drawing has: of each contour the layer, its points, and the knots if it is a spline."""
    found: list[Contour] = []
    for entity in ezdxf.read(io.StringIO(dxf.decode())).modelspace():
        if entity.dxftype() == "SPLINE":
            found.append((entity.dxf.layer, [tuple(point) for point in entity.control_points], list(entity.knots)))
        else:
            found.append((entity.dxf.layer, [tuple(point[:2]) for point in entity.get_points()], []))
    return found


def _same_drawing(contours: list[Contour]) -> None:
    # The floor: the least that makes such a file. Most of a file's time is the library's own.
    drawing = ezdxf.new("R2010")
    space = drawing.modelspace()
    for layer, points, knots in contours:
        attributes = {"layer": layer}
        if knots:
            spline = space.add_spline(degree=3, dxfattribs=attributes)
            spline.control_points, spline.knots = points, knots
        else:
            space.add_lwpolyline(points, close=True, dxfattribs=attributes)
    drawing.write(io.StringIO())


def _scene(outline: Outline, width_mm: float, height_mm: float) -> AreaScene:
    size = {"width_mm": width_mm, "height_mm": height_mm}
    area = Area.model_validate({"key": "a", "name": "A", "method": "m", "x_mm": 0, "y_mm": 0, **size})
    return AreaScene("front", area, (Lettering("", "", "", "", "", 0, 0, outline, Paint("#16303a", "Ink")),))


class _NoAssets:
    def read(self, sha256: str) -> bytes:
        raise AssertionError(sha256)
