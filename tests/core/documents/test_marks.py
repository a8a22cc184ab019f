"""Marks: taken to where they are they change nothing, taken elsewhere they change what they say."""

import json
import math

import pytest
from hypothesis import given
from hypothesis import strategies as st

from tests.core.conftest import board
from yenzo.core.documents.areas import Area
from yenzo.core.documents.clips import copied, pasted, read_clip
from yenzo.core.documents.edits import OPERATIONS, apply_operations
from yenzo.core.documents.free_paths import read_path, write_path
from yenzo.core.documents.marks import (
    WHOLE,
    area_marks,
    lies_on_surface,
    moved_area_mark,
    moved_text_mark,
    point_added,
    point_removed,
    text_marks,
    with_point,
    without_point,
)
from yenzo.core.documents.placements import ArcPlacement, CurvePlacement, LinePlacement
from yenzo.core.documents.reading import read_setup
from yenzo.core.errors import DocumentError
from yenzo.core.shapes.areas import trim_outline
from yenzo.core.shapes.polygons import polygon_of

TEXT = {
    "key": "name",
    "field": "name",
    "side": "front",
    "area": "panel",
    "least_mm": 5,
    "most_mm": 50,
    "typeface": {"fixed": "quayside"},
    "color": {"palette": "finishes", "color": "gold"},
}
BASE = LinePlacement(**TEXT, base_line={"x_mm": 10, "y_mm": 40, "length_mm": 100, "angle_deg": 30})
ARC = ArcPlacement(**TEXT, x_mm=100, y_mm=90, radius_mm=60, middle_deg=270, spread_deg=120)
CURVE = CurvePlacement(**TEXT, points=[(0, 50), (30, 20), (60, 20), (90, 50), (120, 80), (150, 80), (180, 50)])
SHAPES = [
    {"shape": {"kind": "rectangle", "corner_mm": 8}},
    {"shape": {"kind": "ring", "hole": 0.5, "start_deg": 200, "spread_deg": 140}},
    {"shape": {"kind": "polygon", "points": [[0, 0], [1, 0.5], [0.2, 1]]}},
    {"surface": {"kind": "corners", "corners_mm": [[1, 2], [-3, 4], [0, 0], [2, -2]]}},
    {"surface": {"kind": "cylinder", "span_deg": 90, "tilt_deg": 12}},
    {"turn_deg": 33},
]


def area(**values):
    frame = {"x_mm": 10, "y_mm": 20, "width_mm": 200, "height_mm": 100, "method": "carving"}
    return Area(key="panel", name="Panel", **{**frame, **values})


def changed(part, values):
    return type(part).model_validate(part.model_dump() | values)


@pytest.mark.parametrize("values", SHAPES)
def test_marks_of_an_area_that_stay_where_they_are_change_nothing(values):
    one = area(**values)
    for mark in area_marks(one):
        again = changed(one, moved_area_mark(one, mark.name, mark.x_mm, mark.y_mm))
        assert [(m.x_mm, m.y_mm) for m in area_marks(again)] == [
            pytest.approx((m.x_mm, m.y_mm), abs=0.2) for m in area_marks(one)
        ]


@pytest.mark.parametrize("text", [BASE, ARC, CURVE])
def test_marks_of_a_text_that_stay_where_they_are_change_nothing(text):
    for mark in text_marks(text):
        again = changed(text, moved_text_mark(text, mark.name, mark.x_mm, mark.y_mm))
        assert [(m.x_mm, m.y_mm) for m in text_marks(again)] == [
            pytest.approx((m.x_mm, m.y_mm), abs=0.2) for m in text_marks(text)
        ]


@pytest.mark.parametrize("values", SHAPES)
@given(st.floats(-2000, 2000), st.floats(-2000, 2000))
def test_marks_of_an_area_can_go_anywhere_and_it_stays_one(values, x, y):
    one = area(**values)
    for mark in area_marks(one):
        # Corners that span no surface are refused with words, whoever gives them.
        if not mark.name.startswith("c") or mark.name == "corner":
            assert changed(one, moved_area_mark(one, mark.name, x, y))


@given(st.floats(-2000, 2000), st.floats(-2000, 2000))
def test_marks_of_a_text_can_go_anywhere_and_it_stays_one(x, y):
    for text in (BASE, ARC, CURVE):
        for mark in text_marks(text):
            assert changed(text, moved_text_mark(text, mark.name, x, y))


@pytest.mark.parametrize(
    ("values", "name", "to", "expected"),
    [
        ({}, "turn", (200, 50), {"turn_deg": 90}),
        ({"turn_deg": 100}, "turn", (200, 50), {"turn_deg": -170}),
        ({}, "corner", (30, 9), {"shape": {"kind": "rectangle", "corner_mm": 30}}),
        ({}, "corner", (90, 9), {"shape": {"kind": "rectangle", "corner_mm": 50}}),
        (
            {"surface": SHAPES[4]["surface"]},
            "span",
            (150, 0),
            {"surface": {**SHAPES[4]["surface"], "axis": "upright", "span_deg": 89}},
        ),
    ],
)
def test_a_mark_that_is_moved_says_what_the_area_has_then(values, name, to, expected):
    assert moved_area_mark(area(**values), name, *to) == expected


def test_ring_marks_set_hole_and_ends():
    one = area(shape={"kind": "ring", "hole": 0.5, "start_deg": 180, "spread_deg": 180})
    assert moved_area_mark(one, "hole", 100, 40)["shape"]["hole"] == 0.2
    assert moved_area_mark(one, "end", 100, 150)["shape"]["spread_deg"] == 270
    start = moved_area_mark(one, "start", 100, 0)["shape"]
    assert (start["start_deg"], start["spread_deg"]) == (270, 90)


def test_arc_marks_set_radius_middle_and_spread():
    assert moved_text_mark(ARC, "radius", 100, 50) == {"radius_mm": 40, "middle_deg": 270}
    assert moved_text_mark(ARC, "to", 160, 90) == {"spread_deg": 180}
    assert moved_text_mark(ARC, "center", 105, 87) == {"x_mm": 105, "y_mm": 87}


def test_a_line_and_a_curve_are_moved_as_a_whole():
    [whole, *_] = text_marks(CURVE)
    moved = moved_text_mark(CURVE, WHOLE, whole.x_mm + 5, whole.y_mm - 3)["points"]
    assert moved == [[x + 5, y - 3] for x, y in CURVE.points]
    [whole, *_] = text_marks(BASE)
    base = moved_text_mark(BASE, WHOLE, whole.x_mm + 5, whole.y_mm - 3)["base_line"]
    assert (base["x_mm"], base["y_mm"], base["length_mm"]) == (15, 37, 100)


def test_points_come_and_go_and_a_curve_draws_the_same_with_one_more():
    more = with_point(CURVE.points, 0, is_curve=True)
    assert len(more) == len(CURVE.points) + 3
    assert without_point(tuple(map(tuple, more)), 3, is_curve=True)[0] == [0, 50]
    assert without_point(CURVE.points[:4], 0, is_curve=True) is None
    square = ((0.0, 0.0), (1.0, 0.0), (1.0, 1.0))
    assert with_point(square, 2, is_curve=False)[-1] == [0.5, 0.5]
    assert without_point(square, 0, is_curve=False) is None
    assert math.isclose(more[3][1], 27.5)


def test_an_area_is_copied_with_what_lands_in_it_and_pasted_beside_itself():
    document = board()
    setup = read_setup(document)
    clip = read_clip(copied(setup, "front", setup.side("front").area("panel")))
    operations, left_out = pasted(setup, clip, "front")
    assert left_out == []
    both = read_setup(apply_operations(document, OPERATIONS.validate_python(operations))[0])
    copy = both.side("front").area("panel-2")
    assert (copy.x_mm, copy.y_mm) == (85, 43)
    assert [placement.area for placement in both.placements_of("name")] == ["panel", "panel-2"]


def test_what_lands_in_a_pasted_area_and_is_not_asked_there_is_left_out_and_said():
    setup = read_setup(board())
    clip = copied(setup, "front", setup.side("front").area("panel"))
    other = board()
    other["fields"] = [field for field in other["fields"] if field["key"] != "name"]
    other["placements"] = other["placements"][1:]
    other["charges"] = other["charges"][1:]
    operations, left_out = pasted(read_setup(other), read_clip(clip), "front")
    assert left_out == ["name"]
    assert [one["path"][0] for one in operations] == ["sides"]


@pytest.mark.parametrize("text", ["", "Ahoy", "{}", json.dumps({"schema": "yenzo-areas/1", "areas": [{"key": "x"}]})])
def test_what_is_no_copied_area_is_refused_in_words(text):
    with pytest.raises(DocumentError, match="is no copied area"):
        read_clip(text)


FREE = {
    "kind": "path",
    "data": "M0 0 L1 0 C1 0.4 0.8 1 0.5 1 C0.2 1 0 0.6 0 0 Z M0.4 0.4 L0.6 0.4 L0.5 0.6 Z",
}
TRACED = {"kind": "path", "data": "M0 0 " + " ".join(f"L{n / 200} 1" for n in range(1, 150)) + " Z"}


def outline_of(shape):
    return trim_outline(area(shape=shape))


def data_of(values):
    return {"kind": "path", **values}


def test_a_free_outline_is_read_and_written_as_it_draws():
    written = {"kind": "path", "data": write_path(read_path(FREE["data"]))}
    assert polygon_of(outline_of(written)).area == pytest.approx(polygon_of(outline_of(FREE)).area, rel=1e-9)
    assert [len(contour) for contour in read_path(FREE["data"])] == [3, 3]


@pytest.mark.parametrize(
    "mark", [one for one in area_marks(area(shape=FREE)) if one.name != "turn"], ids=lambda one: one.name
)
def test_points_of_a_free_outline_that_stay_change_nothing_and_go_where_they_are_put(mark):
    stays = moved_area_mark(area(shape=FREE), mark.name, mark.x_mm, mark.y_mm)
    assert read_path(stays["shape"]["data"]) == read_path(FREE["data"])
    moved = changed(area(shape=FREE), moved_area_mark(area(shape=FREE), mark.name, 90, 30))
    [now] = [one for one in area_marks(moved) if one.name == mark.name]
    assert (now.x_mm, now.y_mm) == pytest.approx((90, 30), abs=1e-3)


def test_a_point_takes_its_controls_along():
    moved = changed(area(shape=FREE), moved_area_mark(area(shape=FREE), "n0-2", 110, 90))
    places = {one.name: (one.x_mm, one.y_mm) for one in area_marks(moved)}
    assert places["n0-2-in"] == pytest.approx((170, 90))
    assert places["n0-2-out"] == pytest.approx((50, 90))


@pytest.mark.parametrize("name", ["n0-0", "n0-1", "n0-2", "n1-1"])
def test_a_point_more_draws_the_same_and_can_be_taken_away_again(name):
    more = data_of(point_added(area(shape=FREE).shape, name))
    assert polygon_of(outline_of(more)).area == pytest.approx(polygon_of(outline_of(FREE)).area, rel=1e-4)
    contour, node = (int(part) for part in name[1:].split("-"))
    less = point_removed(area(shape=more).shape, f"n{contour}-{node + 1}")
    assert len(read_path(less["data"])[contour]) == 3


def test_a_contour_goes_with_its_last_points_and_the_last_contour_stays():
    left = data_of(point_removed(area(shape=FREE).shape, "n1-0"))
    assert len(read_path(left["data"])) == 1
    assert point_removed(area(shape=left).shape, "n0-1") == {}
    assert point_removed(area(shape=left).shape, "n1-0") is None
    assert point_added(area(shape=left).shape, "n0-1-in") is None


def test_an_outline_of_very_many_points_has_no_marks_of_its_own():
    assert [one.name for one in area_marks(area(shape=TRACED))] == ["turn"]


@pytest.mark.parametrize(
    ("mark", "lies"),
    [("turn", False), ("c2", False), ("span", False), ("start", True), ("n0-1", True), ("corner", True)],
)
def test_only_what_lies_on_the_surface_is_bent_with_it(mark, lies):
    assert lies_on_surface(mark) is lies
