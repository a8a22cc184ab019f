"""Path data is short, and read by others it is the outline, to the micrometre."""

from itertools import pairwise

import numpy as np
import pytest
from fontTools.pens.recordingPen import RecordingPen
from fontTools.svgLib.path import parse_path
from hypothesis import given
from hypothesis import strategies as st

from yenzo.core.render.micrometres import micrometres
from yenzo.core.render.svg import file_path_data, path_data
from yenzo.core.shapes.outline import POINTS_OF_VERB, Outline

contours = st.text("LC", max_size=12).map(lambda edges: f"M{edges}Z")


@st.composite
def outlines(draw):
    verbs = "".join(draw(st.lists(contours, max_size=4)))
    count = sum(POINTS_OF_VERB[verb] for verb in verbs)
    places = st.floats(-2000, 2000, allow_subnormal=False)
    flat = draw(st.lists(places, min_size=2 * count, max_size=2 * count))
    return Outline(verbs, np.array(flat, dtype=float).reshape(count, 2))


CALLS = {"M": "moveTo", "L": "lineTo", "C": "curveTo", "Z": "closePath"}


def drawn(data):
    """Return the calls that a reader of SVG paths makes, in whole micrometres, without lines of no length."""
    pen = RecordingPen()
    parse_path(data, pen)
    calls, at = [], None
    for call, points in pen.value:
        whole = tuple((round(1000 * x), round(1000 * y)) for x, y in points)
        # What closes a contour is drawn by readers as a line.
        if call != "lineTo" or whole[-1] != at:
            calls.append((call, whole))
        at = whole[-1] if whole else at
    return calls


def wanted(outline):
    numbers, at, calls, here = [int(number) for number in micrometres(outline)], 0, [], None
    for verb in outline.verbs:
        points = tuple(zip(numbers[at::2], numbers[at + 1 :: 2], strict=False))[: POINTS_OF_VERB[verb]]
        at += 2 * len(points)
        if verb == "M":
            start = points[0]
        if verb == "Z" and here != start:
            calls.append(("lineTo", (start,)))
        if verb != "L" or points[-1] != here:
            calls.append((CALLS[verb], points))
        here = points[-1] if points else here
    return calls


@given(outlines(), st.sampled_from([path_data, file_path_data]))
def test_a_reader_finds_every_point_where_the_outline_has_it(outline, write):
    assert drawn(write(outline)) == wanted(outline)


@given(outlines())
def test_readers_of_files_close_contours_exactly_where_they_begin(outline):
    pen = RecordingPen()
    parse_path(file_path_data(outline), pen)
    for before, (call, points) in pairwise(pen.value):
        if call == "lineTo" and before[1]:
            assert points[0] == before[1][-1] or np.hypot(*np.subtract(points[0], before[1][-1])) > 0.0009


@pytest.mark.parametrize(
    ("verbs", "points", "written"),
    [
        ("MLLZ", [(1, 2), (3, 2), (1, 1)], "M1 2 l2 0 l-2-1z"),
        ("MCLZ", [(1, 0), (1, 1), (2, 1), (2, 0), (0, -0.0004)], "M1 0 c0 1 1 1 1 0 l-2 0z"),
        ("MLZMLZ", [(0, 0), (1, 0), (5, 5), (4, 5)], "M0 0 l1 0z M5 5 l-1 0z"),
        ("MLLZ", [(10, -0.05), (10.25, 0.15), (-0.001, 100.1)], "M10-.05 l.25 .2 l-10.251 99.95z"),
        ("", np.empty((0, 2)), ""),
    ],
)
def test_for_screens_edges_are_told_from_where_they_begin(verbs, points, written):
    assert path_data(Outline(verbs, np.array(points, dtype=float))) == written


def test_in_files_all_is_told_from_the_corner():
    outline = Outline("MCLZ", np.array([(1, 0), (1, 1), (2, 1), (2, 0), (0, -0.05)], dtype=float))
    assert file_path_data(outline) == "M1 0 C1 1 2 1 2 0 L0 -.05Z"
