import math

import numpy as np
import pytest
from hypothesis import given
from hypothesis import strategies as st
from pydantic import ValidationError

from tests.core.conftest import TYPEFACES
from yenzo.core.documents.areas import Area
from yenzo.core.shapes.areas import bleed_outline, path_outline, safe_outline, text_box, trim_outline
from yenzo.core.shapes.booleans import difference, intersection, union
from yenzo.core.shapes.box import Box
from yenzo.core.shapes.flattening import covered_by, flattened
from yenzo.core.shapes.matrix import Matrix
from yenzo.core.shapes.outline import Outline
from yenzo.core.shapes.polygons import edge_of, grown, leaves_by, polygon_of
from yenzo.core.text.fonts import Font

SQUARE = Outline.rectangle(Box(0, 0, 10, 10))
PATHS = "M0 0L1 0L1 1L0.5 0.6L0 1Z"


def area(shape, **others):
    values = {"width_mm": 80, "height_mm": 40, "x_mm": 0, "y_mm": 0, **others}
    return Area.model_validate({"key": "a", "name": "A", "method": "m", "shape": shape, **values})


def covered(outline):
    return polygon_of(outline).area


@pytest.mark.parametrize(
    ("shape", "size"),
    [
        ({"kind": "rectangle"}, 80 * 40),
        ({"kind": "rectangle", "corner_mm": 8}, 80 * 40 - (4 - math.pi) * 64),
        ({"kind": "ellipse"}, math.pi * 40 * 20),
        ({"kind": "ring", "hole": 0.5, "start_deg": 180, "spread_deg": 180}, math.pi * (400 - 100) / 2),
        ({"kind": "ring", "hole": 0.5, "spread_deg": 360}, math.pi * (400 - 100)),
        ({"kind": "ring", "hole": 0, "start_deg": 0, "spread_deg": 90}, math.pi * 400 / 4),
        ({"kind": "polygon", "points": [[0, 0], [1, 0.5], [0, 1]]}, 80 * 40 / 2),
        ({"kind": "path", "data": PATHS}, 80 * 40 * (1 - 0.4 / 2)),
    ],
)
def test_shape_covers_what_its_formula_says_and_stays_in_its_frame(shape, size):
    outline = trim_outline(area(shape))
    assert covered(outline) == pytest.approx(size, rel=2e-4)
    assert outline.bounds.excess_over(Box(0, 0, 80, 40)) < 1e-4


@pytest.mark.parametrize(
    "shape",
    [
        {"kind": "ellipse"},
        {"kind": "rectangle", "corner_mm": 8},
        {"kind": "polygon", "points": [[0, 0], [1, 0.5], [0, 1]]},
        {"kind": "path", "data": PATHS},
    ],
)
def test_bleed_safe_margin_and_text_box_lie_in_each_other(shape):
    one = area(shape, bleed_mm=2, safe_mm=3)
    trim = trim_outline(one)
    assert leaves_by(trim, bleed_outline(one)) == 0
    assert leaves_by(bleed_outline(one), trim) == pytest.approx(2, abs=0.01)
    assert leaves_by(safe_outline(one), trim) == 0
    box = Outline.rectangle(text_box(one))
    assert leaves_by(box, safe_outline(one)) <= 0.01
    assert covered(box) > 0.3 * covered(safe_outline(one))


@pytest.mark.parametrize("data", ["", "M0 0L1 1", "M0 0L1 0L1 1Z<svg>", "M0 0Q1 0 1 1Z", "m0 0l1 0z", "M0 0L1e999"])
def test_path_without_sense_is_no_shape(data):
    with pytest.raises(ValidationError):
        area({"kind": "path", "data": data})


def test_path_data_of_every_kind_becomes_closed_cubics():
    outline = path_outline("m10 10 h20 v20 q-10 10 -20 0 t0 -10 a5 5 0 0 1 0 -10 z")
    assert set(outline.verbs) <= set("MLCZ")
    assert outline.verbs.endswith("Z")


def test_operations_on_overlapping_squares_have_the_areas_of_set_theory():
    other = Outline.rectangle(Box(5, 5, 15, 15))
    assert covered(union([SQUARE, other])) == pytest.approx(175)
    assert covered(intersection(SQUARE, other)) == pytest.approx(25)
    assert covered(difference(SQUARE, other)) == pytest.approx(75)
    assert covered(difference(SQUARE, Outline.empty())) == pytest.approx(100)
    assert not intersection(SQUARE, Outline.rectangle(Box(20, 20, 30, 30)))


def test_union_of_far_apart_and_overlapping_contours_is_all_of_them():
    row = [Outline.rectangle(Box(x, 0, x + 10, 10)) for x in range(0, 400, 8)]
    assert covered(union([*row, SQUARE.shifted(1000, 0)])) == pytest.approx(402 * 10 + 100)
    ring = Outline.joined([SQUARE, Outline("MLLLZ", np.array([[2, 2], [2, 8], [8, 8], [8, 2]], dtype=float))])
    assert covered(union([ring])) == pytest.approx(64)


@given(st.floats(0.05, 4))
def test_grown_square_has_round_corners_of_the_right_size_and_shrinks_back(by_mm):
    bigger = grown(SQUARE, by_mm)
    assert covered(bigger) == pytest.approx(100 + 40 * by_mm + math.pi * by_mm**2, rel=5e-3)
    assert grown(SQUARE, by_mm, is_round=False).bounds == pytest.approx((-by_mm, -by_mm, 10 + by_mm, 10 + by_mm))
    assert covered(grown(SQUARE, -by_mm)) == pytest.approx((10 - 2 * by_mm) ** 2, rel=1e-3)
    assert covered(edge_of(SQUARE, by_mm)) == pytest.approx(40 * by_mm + math.pi * by_mm**2 / 4 - by_mm**2, rel=1e-2)


def test_flattened_circle_is_nowhere_off_by_more_than_told():
    circle = trim_outline(area({"kind": "ellipse"}, width_mm=100, height_mm=100))
    for flatness in (0.5, 0.05, 0.004):
        ring = flattened(circle, flatness)[0]
        middles = (ring + np.roll(ring, -1, axis=0)) / 2
        assert 50 - np.hypot(*(middles - 50).T).min() <= flatness


def test_polygons_that_take_over_cover_the_same_as_curves_do():
    hole = Outline("MLLLZ", np.array([[2, 2], [2, 8], [8, 8], [8, 2]], dtype=float))
    overlapping = Outline.joined([SQUARE, SQUARE.shifted(6, 3), hole, trim_outline(area({"kind": "ellipse"}))])
    assert covered_by(overlapping).area == pytest.approx(covered(overlapping), rel=1e-4)
    assert covered_by(Outline.joined([SQUARE, hole])).area == pytest.approx(64)


@pytest.mark.parametrize(("wide", "high"), [(7.5, 3), (0.9, 0.7), (80, 41.3)])
def test_ellipse_touches_the_middle_of_each_edge_of_its_frame(wide, high):
    outline = trim_outline(area({"kind": "ellipse"}, width_mm=wide, height_mm=high))
    assert outline.bounds == pytest.approx((0, 0, wide, high), abs=1e-9)
    assert outline.points[0] == pytest.approx((wide, high / 2), abs=1e-9)
    # Small ones are measured on few points.
    assert covered(outline) == pytest.approx(math.pi * wide * high / 4, rel=2e-2)


def test_nothing_takes_nothing_away_and_has_nothing_in_common():
    nothing = Outline.empty()
    assert difference(SQUARE, nothing) is SQUARE
    assert not difference(nothing, SQUARE)
    for one, two in ((SQUARE, nothing), (nothing, SQUARE), (nothing, nothing)):
        assert not intersection(one, two)


def test_box_for_texts_is_looked_for_once_in_an_area_of_any_shape():
    ring = area({"kind": "ellipse"}, width_mm=61)
    assert text_box(ring) is text_box(area({"kind": "ellipse"}, width_mm=61))


@pytest.mark.parametrize(("face", "letter"), [("bowline", "Z"), ("log-book-italic", "a"), ("saloon", "s")])
def test_letters_that_touch_themselves_are_covered_as_they_are_filled(face, letter):
    font = Font((TYPEFACES / f"{face}.ttf").read_bytes(), face)
    outline = font.outline(font.glyph_of(letter)).mapped(Matrix(100, 0, 0, 100, 0, 0))
    assert covered(outline) == pytest.approx(covered_by(outline).area, rel=1e-3)
    # So a line round it goes round all of it.
    assert covered(grown(outline, 1)) > covered(outline)
