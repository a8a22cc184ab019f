"""Typefaces of single lines: tools follow the line, everybody else sees what the tool makes of it."""

import math

import ezdxf
import pytest

from tests.core.conftest import TYPEFACES, board, entries, typeface
from yenzo.core.documents.reading import read_setup
from yenzo.core.evaluation import evaluate
from yenzo.core.render.files import render_file
from yenzo.core.render.page import area_page
from yenzo.core.shapes.centerlines import center_lines, is_single_line
from yenzo.core.shapes.matrix import Matrix
from yenzo.core.shapes.polygons import polygon_of
from yenzo.core.text.fonts import Font
from yenzo.core.text.shaping import outline_of

SCRIBER = Font((TYPEFACES / "scriber.ttf").read_bytes(), "scriber")


@pytest.fixture
def engraved(assets):
    def made(text, **placement):
        document = board()
        document["materials"]["typefaces"]["scriber"] = typeface("scriber")
        document["materials"]["methods"]["carving"] |= {"tool_mm": 2, "least_stroke_mm": 1, "files": ["dxf"]}
        document["placements"][0] |= {"typeface": {"fixed": "scriber"}, "least_mm": 20, **placement}
        evaluation = evaluate(read_setup(document), entries({"name": text}), assets)
        return evaluation, next(evaluation.scene.areas)

    return made


@pytest.mark.parametrize("path", sorted(TYPEFACES.glob("*.ttf")), ids=lambda path: path.stem)
def test_only_the_typeface_of_lines_is_one(path):
    assert Font(path.read_bytes(), path.stem).is_single_line is (path.stem == "scriber")


def test_each_line_is_there_once():
    outline = outline_of(SCRIBER, "HT")[0].mapped(Matrix(10, 0, 0, 10, 0, 0))
    assert is_single_line(outline)
    lines = center_lines(outline)
    assert lines.verbs == "ML" * 5
    both = sum(abs(p[0] - q[0]) + abs(p[1] - q[1]) for p, q in zip(lines.points[::2], lines.points[1::2], strict=True))
    assert both == pytest.approx(7 * 2 + 4.6 + 4.8 + 7, abs=0.01)


def test_outline_is_what_the_tool_makes_and_stays_in_the_safe_area(engraved):
    evaluation, area = engraved("TIHO")
    (node,) = area.letterings
    assert node.outline.bounds.excess_over(area.safe) <= 0.001
    # A line of a length l, two millimetres wide with round ends, covers 2 l + pi; crossings less.
    assert polygon_of(node.outline).area > 2 * 4 * node.letter_height_mm
    assert not evaluation.verdict.findings


def test_tool_gets_open_lines_and_others_what_shows(engraved, assets, tmp_path):
    _, area = engraved("HO")
    path = tmp_path / "area.dxf"
    path.write_bytes(render_file(area_page(area), assets, "dxf", dpi=0))
    drawn = list(ezdxf.readfile(path).modelspace())
    assert [(entity.dxftype(), entity.closed) for entity in drawn] == [("LWPOLYLINE", False)] * 4
    node = next(area.letterings)
    ys = [y for entity in drawn for _, y, *_ in entity.get_points()]
    # Letters are as high as they are said to be with the tool's line of 2 mm, half of it above and half below.
    assert max(ys) - min(ys) == pytest.approx(node.letter_height_mm - 2, abs=0.01)
    assert node.outline.bounds.height == pytest.approx(node.letter_height_mm, abs=0.01)
    *_, oval = drawn
    (first_x, first_y, *_), (last_x, last_y, *_) = oval.get_points()[0], oval.get_points()[-1]
    assert math.hypot(first_x - last_x, first_y - last_y) < 0.01
    shown = render_file(area_page(area), assets, "svg", dpi=0)
    assert shown.count(b"<path") == 1


def test_line_with_an_effect_is_a_shape_like_any_other(engraved):
    _, area = engraved("HO", effects={"stroke": {"width_mm": 1, "color": {"palette": "finishes", "color": "white"}}})
    (node,) = area.letterings
    assert node.line is None
    assert len(node.effects) == 2
