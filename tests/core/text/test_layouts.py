from itertools import pairwise

import numpy as np
import pytest
import shapely
from hypothesis import given
from hypothesis import strategies as st

from tests.core.conftest import TYPEFACES
from tests.sweeping import examples
from yenzo.core.documents.areas import Area
from yenzo.core.scene.joined import joined_text
from yenzo.core.shapes.areas import trim_outline
from yenzo.core.shapes.bending import bend
from yenzo.core.shapes.box import Box
from yenzo.core.shapes.cubics import Cubics, points_at
from yenzo.core.shapes.edges import edge_path
from yenzo.core.shapes.outline import Outline
from yenzo.core.shapes.paths import AlongPath, Circle, CurvePath
from yenzo.core.shapes.polygons import polygon_of
from yenzo.core.text.along import Arc, set_along, set_on_arc, set_on_line
from yenzo.core.text.block import fit_block
from yenzo.core.text.fonts import Font
from yenzo.core.text.line import fit_line
from yenzo.core.text.shaping import outline_of, shape_line
from yenzo.core.text.styles import BlockStyle, TextStyle
from yenzo.core.text.upright import Measured
from yenzo.core.text.vertical import fit_stack


def font(name):
    return Font((TYPEFACES / f"{name}.ttf").read_bytes(), name)


QUAYSIDE, LEVANT, BOWLINE, LOG_BOOK = (font(name) for name in ("quayside", "levant", "bowline", "log-book"))
STYLE = TextStyle(2, 10)
WAVE = CurvePath.through([(0, 30), (30, -10), (50, 60), (90, 20)])
SENTENCE = "Please leave the fairway clear and mind the nest on the north pile; thank you, the harbour master."


def points_on(outline):
    """Points all along an outline, dense enough to measure by."""
    return points_at(Cubics.of(outline).points, tuple(np.linspace(0, 1, 9)))


@pytest.mark.parametrize(
    ("stand", "least_mm", "most_mm"),
    [("over", 30, 40), ("under", 30, 40), ("inside", 20, 30), ("inside_under", 20, 30)],
)
def test_capitals_on_an_arc_stand_between_its_circle_and_their_letter_height(stand, least_mm, most_mm):
    laid = set_on_arc(QUAYSIDE, "HILTHE", Arc(100, 50, 30, 270, 150, stand), STYLE)
    assert laid.letter_height_mm == pytest.approx(10)
    distances = np.hypot(*(points_on(laid.outline) - (100, 50)).T)
    # Their middles do; straight as they are, their corners stand out a little.
    assert distances.min() == pytest.approx(least_mm, abs=0.005)
    assert most_mm < distances.max() < np.hypot(most_mm, 5)


@pytest.mark.parametrize("stand", ["over", "under", "inside", "inside_under"])
def test_text_on_an_arc_fills_its_spread_when_letters_may_grow(stand):
    laid = set_on_arc(QUAYSIDE, "HHHHHHHHHHHH", Arc(0, 0, 40, 90, 100, stand), TextStyle(0.1, 30))
    angles = np.degrees(np.arctan2(*points_on(laid.outline).T[::-1]))
    assert angles.min() == pytest.approx(90 - 50, abs=0.05)
    assert angles.max() == pytest.approx(90 + 50, abs=0.05)


def test_read_at_the_bottom_means_that_the_first_letter_is_on_the_left():
    left = TextStyle(2, 10, align="left")
    under = set_on_arc(QUAYSIDE, "H.......", Arc(0, 0, 30, 90, 160, "under"), left).outline
    over = set_on_arc(QUAYSIDE, "H.......", Arc(0, 0, 30, 270, 160, "over"), left).outline
    assert [outline.points[0][0] < -10 for outline in (under, over)] == [True, True]
    assert (under.points[0][1] > 0, over.points[0][1] > 0) == (True, False)


@examples(40)
@given(st.sampled_from(["Halcyon", "مرحبا", "gjpqy Ångström"]), st.floats(12, 300), st.booleans())
def test_bent_outline_lies_on_the_true_map_of_the_flat_one(text, radius, clockwise):
    flat = fit_line(LEVANT, text, Box(0, -6, 60, 3), TextStyle(0.1, 8)).outline
    warp = AlongPath(Circle(0, 0, radius, 200, 300, clockwise))
    true = warp.map(points_on(flat))
    bent = points_on(bend(flat, warp))
    # Every true point has a bent one next to it: both are dense samples of the same curves.
    for point in true[:: max(1, len(true) // 60)]:
        assert np.hypot(*(bent - point).T).min() < 0.35
    flat_again = Cubics.of(bend(flat, AlongPath(CurvePath.through([(0, 0), (20, 0), (40, 0), (60, 0)]))))
    assert np.abs(flat_again.points - Cubics.of(flat).points).max() < 1e-6


def test_curves_are_bent_within_their_tolerance():
    flat = fit_line(BOWLINE, "Wimple", Box(0, -8, 80, 4), TextStyle(0.1, 20)).outline
    warp, cubics = AlongPath(WAVE), Cubics.of(flat)
    bent = Cubics.of(bend(flat, warp, 0.002))
    # Each flat curve became a whole number of halves: compare at the ends of all pieces and in their middles.
    ends = warp.map(np.concatenate([cubics.points[:, 0], cubics.points[:, 3]]))
    pieces = np.concatenate([bent.points[:, 0], bent.points[:, 3]])
    for end in ends:
        assert np.hypot(*(pieces - end).T).min() < 1e-9
    # A bar along the whole wave can't be one curve any more, and needs fewer where more may be off.
    bar = Outline.rectangle(Box(0, -3, WAVE.length_mm, 0))
    pieces_of = {tolerance: len(Cubics.of(bend(bar, warp, tolerance)).points) for tolerance in (0.002, 0.2)}
    assert 4 < pieces_of[0.2] < pieces_of[0.002]


def test_path_along_a_curve_is_measured_by_its_length():
    lengths = np.linspace(0, WAVE.length_mm, 400)
    points, directions, curvatures = WAVE.at(lengths)
    steps = np.hypot(*np.diff(points, axis=0).T)
    assert steps.sum() == pytest.approx(WAVE.length_mm, rel=1e-4)
    assert steps == pytest.approx(np.full(399, WAVE.length_mm / 399), rel=1e-3)
    turned = np.diff(np.unwrap(np.arctan2(*directions.T[::-1]))) / np.diff(lengths)
    assert turned == pytest.approx((curvatures[1:] + curvatures[:-1]) / 2, abs=2e-3)
    beyond, _, _ = WAVE.at(np.array([-5.0, WAVE.length_mm + 5]))
    assert np.hypot(*(beyond - points[[0, -1]]).T) == pytest.approx([5, 5])


def test_closed_path_goes_round_and_round():
    ring = CurvePath.around(Outline.rectangle(Box(0, 0, 30, 20)))
    assert ring.length_mm == pytest.approx(100)
    points, _, _ = ring.at(np.array([5.0, 105.0, -95.0]))
    assert points == pytest.approx(np.array([[5, 0]] * 3))


def test_text_along_a_curve_tells_how_much_too_long_it_is():
    laid = set_along(QUAYSIDE, "W" * 60, WAVE, TextStyle(8, 10))
    flat, _ = outline_of(QUAYSIDE, "W" * 60)
    wide = flat.bounds.width * 8 / QUAYSIDE.letter_height_em
    assert laid.letter_height_mm == pytest.approx(8)
    # Where it turns towards the tops the letters come together there: it is as long as their tops have it.
    room = Measured(WAVE, 8).length_mm
    assert WAVE.length_mm - 15 < room < WAVE.length_mm - 5
    assert laid.overflow_mm == pytest.approx(wide - room)
    assert set_along(QUAYSIDE, "W", WAVE, STYLE).overflow_mm == 0


def test_sloping_base_line_turns_the_text_about_its_start():
    laid = set_on_line(QUAYSIDE, "HI", (20, 30), 50, 90, STYLE)
    ink = laid.outline.bounds
    # Turned by a quarter, the text runs down from (20, 30) and its tops point to the right.
    assert (ink.left, ink.right) == (pytest.approx(20), pytest.approx(30))
    assert ink.top >= 30
    assert ink.bottom <= 80


def test_block_wraps_between_words_and_keeps_every_one():
    box = Box(0, 0, 80, 40)
    laid = fit_block(QUAYSIDE, SENTENCE, box, BlockStyle(1, 9))
    assert " ".join(laid.lines) == SENTENCE
    assert len(laid.lines) > 2
    assert laid.outline.bounds.excess_over(box) <= 1e-6


@examples(40)
@given(
    st.lists(st.sampled_from(["tern", "harbour", "a", "Ölige", "WWWW", "مرحبا", "fin."]), min_size=1, max_size=25),
    st.floats(10, 300),
    st.floats(10, 200),
    st.sampled_from(["left", "center", "right", "justified"]),
    st.floats(1.2, 3),
)
def test_block_never_leaves_its_box_above_the_least_height(words, width, height, align, spacing):
    box = Box(3, 5, 3 + width, 5 + height)
    laid = fit_block(LEVANT, " ".join(words), box, BlockStyle(0.001, 30, align=align, line_spacing=spacing))
    assert laid.outline.bounds.excess_over(box) <= 0.01
    assert " ".join(laid.lines) == " ".join(words)


def test_block_keeps_line_breaks_that_were_typed_and_empty_lines():
    laid = fit_block(QUAYSIDE, "One\n\nTwo words", Box(0, 0, 100, 60), BlockStyle(2, 8))
    assert laid.lines == ("One", "", "Two words")


def test_base_lines_of_a_block_are_line_spacing_apart():
    laid = fit_block(QUAYSIDE, "H\nH\nH", Box(0, 0, 100, 100), BlockStyle(10, 10, line_spacing=2))
    assert laid.outline.bounds.height == pytest.approx(2 * 2 * 10 + 10)


def test_justified_lines_end_at_both_edges_but_for_the_last():
    box = Box(0, 0, 90, 200)
    laid = fit_block(QUAYSIDE, "HHHH HHH HHHH HH HHHHH HH", box, BlockStyle(8, 8, align="justified", vertical="top"))
    tops = np.round(laid.outline.points[:, 1], 3)
    assert len(laid.lines) >= 2
    rights = [laid.outline.points[tops >= top][:, 0].max() for top in (tops.min(),)]
    assert rights[0] == pytest.approx(laid.outline.bounds.right)
    first_line = laid.outline.points[laid.outline.points[:, 1] <= 8.001]
    side_bearing = first_line[:, 0].min()
    assert first_line[:, 0].max() == pytest.approx(90 - side_bearing, abs=1)


def test_block_too_long_for_its_least_height_is_tightened_as_far_as_allowed():
    box = Box(0, 0, 60, 28)
    loose = BlockStyle(5, 8, line_spacing=2)
    tight = BlockStyle(5, 8, line_spacing=2, least_line_spacing=1.3, least_spacing_em=-0.03)
    assert fit_block(QUAYSIDE, SENTENCE, box, loose).outline.bounds.excess_over(box) > 1
    assert fit_block(QUAYSIDE, SENTENCE, box, tight).outline.bounds.excess_over(box) <= 0.01
    fits_anyway = fit_block(QUAYSIDE, "Short", box, tight)
    assert fits_anyway.outline.bounds == fit_block(QUAYSIDE, "Short", box, loose).outline.bounds


def test_stacked_letters_stand_below_each_other_and_centered():
    box = Box(0, 0, 20, 100)
    laid = fit_stack(QUAYSIDE, "HIT", box, TextStyle(1, 50))
    assert laid.outline.bounds.excess_over(box) <= 1e-6
    letters = [outline_of(QUAYSIDE, char)[0].bounds for char in "HIT"]
    assert laid.outline.bounds.width == pytest.approx(
        max(ink.width for ink in letters) * laid.letter_height_mm / QUAYSIDE.letter_height_em
    )
    assert fit_stack(LEVANT, "مرحبا", box, STYLE).breaks_joins
    assert not laid.breaks_joins


def test_letter_spacing_goes_between_letters_but_never_tears_joined_ones():
    spaced = TextStyle(1, 1, spacing_em=0.2)
    plain, apart = shape_line(QUAYSIDE, "HIT"), shape_line(QUAYSIDE, "HIT", spaced)
    assert apart.advance_em == pytest.approx(plain.advance_em + 3 * 0.2)
    assert shape_line(LEVANT, "مرحبا", spaced) == shape_line(LEVANT, "مرحبا")


def test_features_are_used_where_the_font_has_them():
    small = TextStyle(1, 1, features=("smcp",))
    assert shape_line(LOG_BOOK, "tern", small) != shape_line(LOG_BOOK, "tern")
    assert shape_line(BOWLINE, "tern", small) == shape_line(BOWLINE, "tern")


@pytest.mark.parametrize(
    ("pattern", "parts", "text"),
    [
        ("{a} & {b}", {"a": "Ann", "b": "Ben"}, "Ann & Ben"),
        ("{a} & {b}", {"a": "Ann", "b": ""}, "Ann"),
        ("{a} & {b}", {"a": "", "b": "Ben"}, "Ben"),
        ("since {year}", {"year": "1911"}, "since 1911"),
        ("since {year}", {"year": ""}, ""),
        ("{a}, {b}, {c}.", {"a": "A", "b": "", "c": "C"}, "A, C."),
        ("Est. {a} of {b}", {"a": "", "b": "Ebb"}, "Est. Ebb"),
        ("{a}{b}", {"a": "4", "b": "7"}, "47"),
        ("{a} {a}", {"a": "tut"}, "tut tut"),
    ],
)
def test_empty_part_of_a_joined_text_takes_its_joiner_along(pattern, parts, text):
    assert joined_text(pattern, parts) == text


EDGED = {"width_mm": 120, "height_mm": 80, "x_mm": 0, "y_mm": 0, "key": "a", "name": "A", "method": "m"}
SHAPES = (
    {"kind": "rectangle"},
    {"kind": "rectangle", "corner_mm": 14},
    {"kind": "ellipse"},
    {"kind": "polygon", "points": [[0, 0], [1, 0], [0.8, 1], [0.2, 1]]},
)


@pytest.mark.parametrize("tops_out", [True, False])
@pytest.mark.parametrize("shape", SHAPES)
def test_edge_path_keeps_its_distance_and_turns_gently(shape, tops_out):
    area = Area.model_validate({**EDGED, "shape": shape})
    path = edge_path(area, 10, 8, 270, tops_out=tops_out)
    points, directions, _ = path.at(np.linspace(0, path.length_mm, 1500))
    edge = shapely.boundary(polygon_of(trim_outline(area)))
    away = shapely.distance(edge, shapely.points(points))
    # Rounded corners lie further in, nothing lies further out.
    assert away.min() == pytest.approx(10, abs=0.05)
    assert np.median(away) == pytest.approx(10, abs=0.05)
    turns = np.abs(np.diff(np.unwrap(np.arctan2(directions[:, 1], directions[:, 0]))))
    assert turns.max() < path.length_mm / 1500 / 8 * 1.6
    middle, direction, _ = path.at(np.array([path.length_mm / 2]))
    assert middle[0] == pytest.approx((60, 10), abs=0.6)
    assert direction[0, 0] == pytest.approx(1 if tops_out else -1, abs=0.02)


def test_text_round_an_edge_stays_between_it_and_its_letter_height_and_leaves_a_space():
    area = Area.model_validate({**EDGED, "shape": {"kind": "ellipse"}})
    path = edge_path(area, 10, 8, 270, tops_out=True)
    laid = set_along(QUAYSIDE, "HTL" * 20, path, TextStyle(2, 7), spare_em=0.5)
    away = shapely.distance(shapely.boundary(polygon_of(trim_outline(area))), shapely.points(points_on(laid.outline)))
    assert laid.overflow_mm == 0
    assert away.min() == pytest.approx(10 - laid.letter_height_mm, abs=0.1)
    assert away.max() == pytest.approx(10, abs=0.1)


def test_area_without_room_for_its_edge_has_no_path():
    area = Area.model_validate({**EDGED, "height_mm": 15})
    assert edge_path(area, 10, 4, 0, tops_out=True) is None


def test_text_many_times_too_long_for_its_arc_is_told_at_once_and_not_wound_up():
    laid = set_on_arc(QUAYSIDE, SENTENCE, Arc(0, 0, 3, 270, 20), TextStyle(20, 30))
    assert laid.overflow_mm > 900
    assert laid.outline.bounds.height < 40


def test_line_that_ends_at_a_soft_hyphen_gets_a_hyphen_and_no_other_does():
    style = BlockStyle(5, 5)
    text = "harbor\u00admaster"
    em_mm = 5 / QUAYSIDE.letter_height_em
    narrow = fit_block(
        QUAYSIDE, text, Box(0, 0, outline_of(QUAYSIDE, "harbor-")[0].bounds.width * em_mm + 0.5, 90), style
    )
    whole = fit_block(QUAYSIDE, text, Box(0, 0, 300, 90), style)
    counts = {word: outline_of(QUAYSIDE, word)[0].verbs.count("M") for word in ("harbormaster", "-")}
    assert whole.outline.verbs.count("M") == counts["harbormaster"]
    assert narrow.outline.verbs.count("M") == counts["harbormaster"] + counts["-"]
    assert len(narrow.lines) == 2


def test_space_that_must_not_break_keeps_words_together():
    wide = outline_of(QUAYSIDE, "Berth 14")[0].bounds.width * 5 / QUAYSIDE.letter_height_em
    box = Box(0, 0, wide + 1, 90)
    assert fit_block(QUAYSIDE, "A Berth\u00a014", box, BlockStyle(5, 5)).lines == ("A", "Berth\u00a014")
    assert fit_block(QUAYSIDE, "A Berth 14", box, BlockStyle(5, 5)).lines == ("A Berth", "14")


def test_letters_set_apart_are_not_drawn_together():
    plain, apart = (shape_line(LOG_BOOK, "office", TextStyle(1, 1, spacing_em=gap)).glyphs for gap in (0.0, 0.1))
    assert len(plain) < len(apart) == 6
    gaps = [second.x_em - first.x_em for first, second in pairwise(apart)]
    assert min(gaps) > 0.1
