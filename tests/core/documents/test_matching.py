"""Another picture of a side: what was printed at a place of the goods stays at that place."""

import math

import numpy as np
import pytest
from hypothesis import given
from hypothesis import strategies as st

from tests.core.conftest import board
from yenzo.core.documents.edits import OPERATIONS, apply_operations
from yenzo.core.documents.matching import match_operations
from yenzo.core.documents.reading import read_setup
from yenzo.core.errors import DocumentError
from yenzo.core.shapes.areas import place_on_side

PICTURE = {"asset": "a" * 64, "width_px": 4000, "height_px": 3000}
place = st.tuples(st.floats(0, 1500), st.floats(0, 400))


def matched(document, before, after):
    setup = read_setup(document)
    operations = match_operations(setup.sides[0], PICTURE, before, after)
    return read_setup(apply_operations(document, OPERATIONS.validate_python(operations))[0]).sides[0]


def on_picture(side, area):
    """Return the corners of an area in pixels of the side's picture."""
    box = [(0, 0), (area.width_mm, 0), (area.width_mm, area.height_mm)]
    return np.array([place_on_side(area).apply(*corner) for corner in box]) * side.scale.px_per_mm


@given(
    place,
    place,
    st.floats(0.2, 5),
    st.floats(-179, 179),
    st.tuples(st.floats(-90, 900), st.floats(-90, 900)),
    st.floats(-90, 90),
)
def test_every_corner_of_an_area_is_where_the_new_picture_shows_it(first, second, scale, turn, shift, area_turn):
    if math.dist(first, second) < 100:
        second = (first[0] + 300, first[1] + 40)
    document = board()
    document["sides"][0]["areas"][0]["turn_deg"] = area_turn
    old = read_setup(document).sides[0]
    angle = math.radians(turn)
    map_ = scale * np.array([[math.cos(angle), -math.sin(angle)], [math.sin(angle), math.cos(angle)]])

    def moved(points):
        return np.atleast_2d(points) @ map_.T + np.array(shift)

    new = matched(document, (first, second), (tuple(moved(first)[0]), tuple(moved(second)[0])))
    assert new.picture.width_px == 4000
    for before, after in zip(old.areas, new.areas, strict=True):
        assert (after.width_mm, after.height_mm) == (before.width_mm, before.height_mm)
        assert on_picture(new, after) == pytest.approx(moved(on_picture(old, before)), abs=0.2 * max(scale, 1))


@pytest.mark.parametrize("points", [((5, 5), (5, 5)), ((5, 5), (6, 5))])
def test_points_that_lie_together_tell_nothing(points):
    with pytest.raises(DocumentError, match="apart"):
        matched(board(), points, ((0, 0), (100, 0)))
    with pytest.raises(DocumentError, match="apart"):
        matched(board(), ((0, 0), (100, 0)), points)


def test_side_without_a_scale_is_told_to_be_marked_first():
    document = board()
    del document["sides"][0]["scale"]
    with pytest.raises(DocumentError, match="no scale"):
        match_operations(read_setup(document).sides[0], PICTURE, ((0, 0), (9, 0)), ((0, 0), (9, 0)))
