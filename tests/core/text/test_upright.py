"""Letters along a bend: each stands upright and whole, what joins is bent as one, and none runs into its neighbour."""

from itertools import pairwise

import numpy as np
import pytest
import shapely
from hypothesis import given
from hypothesis import strategies as st

from tests.core.text.test_layouts import font
from tests.sweeping import examples
from yenzo.core.shapes.cubics import Cubics
from yenzo.core.shapes.flattening import covered_by
from yenzo.core.shapes.outline import contours_of
from yenzo.core.shapes.paths import Circle, CurvePath
from yenzo.core.text.along import Arc, set_along, set_on_arc
from yenzo.core.text.shaping import outline_of
from yenzo.core.text.styles import TextStyle
from yenzo.core.text.upright import pieces_of

QUAYSIDE, LEVANT, BOWLINE, MONSOON = (font(name) for name in ("quayside", "levant", "bowline", "monsoon"))
STANDS = ("over", "under", "inside", "inside_under")
FIXED = TextStyle(10, 10)


def shape_of(contour, scale=1.0):
    """What doesn't change when a contour is turned and moved: the lengths of all lines between its points."""
    curves = Cubics.of(contour).points * scale
    return np.hypot(*(curves[:, 1:] - curves[:, :-1]).reshape(-1, 2).T), np.hypot(*(curves[:, 3] - curves[0, 0]).T)


@pytest.mark.parametrize("stand", STANDS)
@pytest.mark.parametrize("radius", [15, 40, 200])
def test_letters_on_an_arc_are_as_they_are_on_a_straight_line(stand, radius):
    text = "HALCYON & Ågot" if radius > 20 else "TERN"
    laid = set_on_arc(QUAYSIDE, text, Arc(0, 0, radius, 270, 350, stand), TextStyle(4, 4))
    flat, _ = outline_of(QUAYSIDE, text)
    em_mm = 4 / QUAYSIDE.letter_height_em
    pairs = list(zip(contours_of(laid.outline), contours_of(flat), strict=True))
    assert len(pairs) >= 5
    for set_, straight in pairs:
        for ours, theirs in zip(shape_of(set_), shape_of(straight, em_mm), strict=True):
            assert ours == pytest.approx(theirs, abs=1e-9)


def test_marks_stay_with_their_letters_and_each_letter_is_a_piece():
    pieces = pieces_of(QUAYSIDE, "Åse Öl", FIXED)
    assert [piece.is_bent for piece in pieces.pieces] == [False] * 5
    # A ring and two dots are contours of the pieces of their letters.
    assert [piece.outline.verbs.count("M") for piece in pieces.pieces] == [4, 1, 2, 4, 1]


def test_decomposed_marks_stay_with_their_letters():
    pieces = pieces_of(QUAYSIDE, "A\u030an", FIXED).pieces
    assert len(pieces) == 2
    assert pieces[0].outline.bounds.height > QUAYSIDE.letter_height_em


@pytest.mark.parametrize(("face", "text"), [(LEVANT, "ريح البحر"), (MONSOON, "समुद्र")])
@pytest.mark.parametrize("stand", STANDS)
def test_what_joins_is_bent_as_one_and_not_torn(face, text, stand):
    pieces = pieces_of(face, text, FIXED)
    assert [piece.is_bent for piece in pieces.pieces] == [True]
    laid = set_on_arc(face, text, Arc(0, 0, 40, 90, 200, stand), FIXED)
    straight = covered_by(outline_of(face, text)[0])
    assert len(shapely.get_parts(covered_by(laid.outline))) == len(shapely.get_parts(straight))


def test_of_a_mixed_line_only_what_joins_is_bent():
    pieces = pieces_of(LEVANT, "TERN ريح 7", FIXED)
    assert [piece.is_bent for piece in pieces.pieces].count(True) == 1
    assert len(pieces.pieces) == 6


@examples(40)
@given(st.text("HTNIVAWLE", min_size=2, max_size=12), st.floats(25, 120), st.sampled_from(STANDS))
def test_letters_keep_their_distance_on_any_arc(text, radius, stand):
    laid = set_on_arc(QUAYSIDE, text, Arc(0, 0, radius, 90, 355, stand), TextStyle(5, 5))
    pieces, em_mm = pieces_of(QUAYSIDE, text, FIXED), 5 / QUAYSIDE.letter_height_em
    letters = [covered_by(contour) for contour in _letters(laid.outline, pieces)]
    for one, other, gap in zip(letters, letters[1:], pieces.gaps_em, strict=False):
        if gap * em_mm > 0.2:
            assert one.distance(other) > 0.55 * gap * em_mm
    assert not laid.is_tangled


def _letters(outline, pieces):
    """The letters of a set line, whose contours follow each other as those of its pieces do."""
    contours = iter(list(contours_of(outline)))
    for piece in pieces.pieces:
        parts = [next(contours) for _ in range(piece.outline.verbs.count("M"))]
        yield type(outline).joined(parts)


@pytest.mark.parametrize("stand", STANDS)
def test_a_full_circle_has_a_space_between_its_end_and_its_beginning(stand):
    laid = set_on_arc(QUAYSIDE, "HMS HALCYON PORT HALLOWH", Arc(0, 0, 40, 90, 360, stand), TextStyle(0.5, 30))
    pieces = pieces_of(QUAYSIDE, "HMS HALCYON PORT HALLOWH", FIXED)
    letters = [covered_by(letter) for letter in _letters(laid.outline, pieces)]
    em_mm = laid.letter_height_mm / QUAYSIDE.letter_height_em
    assert 0.35 * em_mm < letters[0].distance(letters[-1]) < 0.9 * em_mm


def test_letters_that_run_into_each_other_are_told():
    corner = CurvePath.through([(0, 0), (10, 0), (20, 0), (30, 0), (30, -10), (30, -20), (30, -30)])
    assert set_along(QUAYSIDE, "WWWWWW", corner, TextStyle(7, 7)).is_tangled
    assert not set_along(QUAYSIDE, "WWWWWW", Circle(0, 0, 60, 0), TextStyle(7, 7)).is_tangled


def test_what_hangs_below_the_base_line_keeps_its_distance_too():
    laid = set_on_arc(QUAYSIDE, "gjgyj", Arc(0, 0, 9, 270, 355, "over"), TextStyle(4, 4))
    assert not laid.is_tangled
    pieces = pieces_of(QUAYSIDE, "gjgyj", FIXED)
    letters = [covered_by(letter) for letter in _letters(laid.outline, pieces)]
    assert min(one.distance(other) for one, other in pairwise(letters)) > 0.1


def test_handwriting_whose_letters_touch_is_bent_as_one():
    class Touching:
        """A font whose letters all touch their neighbours, in all else another one."""

        def __init__(self, inner):
            self.inner = inner

        def __getattr__(self, name):
            return getattr(self.inner, name)

        def gap_between(self, *_places):
            return 0.0

    pieces = pieces_of(Touching(BOWLINE), "Tern", TextStyle(3, 3))
    assert [piece.is_bent for piece in pieces.pieces] == [True]


@pytest.mark.parametrize(("face", "text"), [(QUAYSIDE, "Into the wind"), (LEVANT, "ريح البحر")])
@pytest.mark.parametrize("turn", [-100, -40, 40, 100])
def test_corner_of_a_curve_is_rounded_so_that_no_letter_is_torn(face, text, turn):
    end = 40 + 40 * np.cos(np.radians(turn)), 40 * np.sin(np.radians(turn))
    half = 40 + 20 * np.cos(np.radians(turn)), 20 * np.sin(np.radians(turn))
    corner = CurvePath.through([(0, 0), (15, 0), (30, 0), (40, 0), half, half, end])
    smooth = corner.rounded(6)
    laid = set_along(face, text, smooth, TextStyle(4, 4))
    straight = covered_by(outline_of(face, text)[0])
    assert len(shapely.get_parts(covered_by(laid.outline))) == len(shapely.get_parts(straight))
    # It begins and ends where it did, and goes round the corner without one.
    on = np.linspace(0, smooth.length_mm, 2000)
    points, directions, curvatures = smooth.at(on)
    assert points[[0, -1]] == pytest.approx(np.array([(0, 0), end]), abs=1e-6)
    steps = np.abs(np.diff(np.unwrap(np.arctan2(*directions.T[::-1]))))
    assert steps.max() < 0.02
    assert np.abs(curvatures).max() == pytest.approx(1 / 6, rel=0.35)
    assert np.hypot(*(points - (40, 0)).T).min() < 6 * (1 / np.cos(np.radians(turn / 2)) - 1) + 0.2


def test_path_without_corners_stays_as_it_is():
    wave = CurvePath.through([(0, 30), (30, -10), (50, 60), (90, 20)])
    assert wave.rounded(10) is wave
    smooth = CurvePath.through([(0, 0), (10, 0), (20, 0), (30, 0), (40, 0), (50, 10), (60, 10)])
    assert smooth.rounded(10) is smooth


@pytest.mark.parametrize("stand", STANDS)
def test_what_was_ordered_before_letters_stood_upright_is_bent_as_a_whole(stand):
    old = TextStyle(4, 4, old_setting=True)
    assert [piece.is_bent for piece in pieces_of(QUAYSIDE, "TERN & WHEY", old).pieces] == [True]
    laid = set_on_arc(QUAYSIDE, "HHHH", Arc(0, 0, 15, 270, 350, stand), old)
    upright = set_on_arc(QUAYSIDE, "HHHH", Arc(0, 0, 15, 270, 350, stand), TextStyle(4, 4))
    distances = [np.hypot(*Cubics.of(outline).points[:, 0].T) for outline in (laid.outline, upright.outline)]
    # Feet and tops lie on circles; those of straight letters stand off them.
    assert np.ptp(distances[0]) == pytest.approx(4, abs=1e-6)
    assert np.ptp(distances[1]) > 4.015
