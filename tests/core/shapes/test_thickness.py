import numpy as np
import pytest

from tests.core.conftest import TYPEFACES, board, entries
from yenzo.core.documents.reading import read_setup
from yenzo.core.evaluation import evaluate
from yenzo.core.shapes.areas import arc_outline
from yenzo.core.shapes.box import Box
from yenzo.core.shapes.matrix import Matrix
from yenzo.core.shapes.outline import Outline
from yenzo.core.shapes.thickness import thinnest
from yenzo.core.text.fonts import Font
from yenzo.core.text.shaping import outline_of
from yenzo.core.text.styles import TextStyle
from yenzo.core.text.thin import thin_places

QUAYSIDE = Font((TYPEFACES / "quayside.ttf").read_bytes(), "quayside")


def box(left, top, right, bottom):
    return Outline.rectangle(Box(left, top, right, bottom))


def circle(radius):
    return arc_outline(0, 360, Matrix(radius, 0, 0, radius, 0, 0))


def hole(outline):
    return Outline.joined([outline.mapped(Matrix(-1, 0, 0, 1, 0, 0))])


@pytest.mark.parametrize(
    ("outline", "stroke", "gap"),
    [
        (box(0, 0, 100, 3), 3, np.inf),
        (Outline.joined([box(0, 0, 100, 4), box(0, 6, 100, 11)]), 4, 2),
        (Outline.joined([circle(10), hole(circle(8))]), 2, 16),
        (Outline("MLLZ", np.array([[0, 0], [30, 0], [15, 40]], dtype=float)), None, np.inf),
        (circle(5), 10, np.inf),
    ],
)
def test_thickness_of_plain_shapes_is_what_a_ruler_says(outline, stroke, gap):
    found = thinnest(outline)
    if stroke is not None:
        assert found.stroke == pytest.approx(stroke, rel=0.01)
    assert found.gap == pytest.approx(gap, rel=0.03)


def test_capital_i_is_as_thin_as_it_is_wide_and_scales_with_its_letter_height():
    ink = outline_of(QUAYSIDE, "I")[0].bounds
    found = thin_places(QUAYSIDE, "I", TextStyle(1, 1), 20)
    assert found.stroke_mm == pytest.approx(ink.width * 20 / QUAYSIDE.letter_height_em, rel=0.01)
    assert thin_places(QUAYSIDE, "I", TextStyle(1, 1), 40).stroke_mm == pytest.approx(2 * found.stroke_mm)
    assert thin_places(QUAYSIDE, "  ", TextStyle(1, 1), 20) is None


def test_thinnest_character_of_a_text_is_named_with_its_measure_and_limit(assets):
    document = board()
    document["materials"]["methods"]["carving"] |= {"least_stroke_mm": 4, "least_gap_mm": 3}
    evaluation = evaluate(read_setup(document), entries({"name": "Tern & Tiller", "lettering": "log-book"}), assets)
    found = {finding.code: finding for finding in evaluation.verdict.findings}
    assert found["too_thin"].measured < found["too_thin"].limit == 4
    assert "in “TERN & TILLER” would be" in found["too_thin"].message
    bold = evaluate(read_setup(document), entries({"name": "TIL", "lettering": "quayside"}), assets)
    assert "too_thin" not in {finding.code for finding in bold.verdict.findings}
