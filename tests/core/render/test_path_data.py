"""Path data is short, and read by others it is the outline, to the micrometre."""

import numpy as np
import pytest
from fontTools.pens.recordingPen import RecordingPen
from fontTools.svgLib.path import parse_path
from hypothesis import given
from hypothesis import strategies as st

from yenzo.core.render.micrometres import micrometres
from yenzo.core.render.svg import path_data
from yenzo.core.shapes.outline import POINTS_OF_VERB, Outline

contours = st.text("LC", max_size=12).map(lambda edges: f"M{edges}Z")


@st.composite
def outlines(draw):
    verbs = "".join(draw(st.lists(contours, max_size=4)))
    count = sum(POINTS_OF_VERB[verb] for verb in verbs)
    places = st.floats(-2000, 2000, allow_subnormal=False)
    flat = draw(st.lists(places, min_size=2 * count, max_size=2 * count))
    return Outline(verbs, np.array(flat, dtype=float).reshape(count, 2))


CALLS = {"M": "moveTo", "L": "lineTo", "C": "curveTo"}


def calls_of(outline):
    """Return what a reader draws of an outline in whole micrometres: it closes a contour by a line where one is missing."""
    numbers, at, start, end = [int(number) for number in micrometres(outline)], 0, None, None
    for verb in outline.verbs:
        if verb == "Z":
            if end != start:
                yield "lineTo", (start,)
            yield "closePath", ()
            continue
        points = tuple((numbers[at + 2 * n], numbers[at + 2 * n + 1]) for n in range(POINTS_OF_VERB[verb]))
        at += 2 * len(points)
        end = points[-1]
        if verb == "M":
            start = end
        yield CALLS[verb], points


@given(outlines())
def test_a_reader_finds_every_point_where_the_outline_has_it(outline):
    pen = RecordingPen()
    parse_path(path_data(outline), pen)
    found = [(call, tuple((round(1000 * x), round(1000 * y)) for x, y in points)) for call, points in pen.value]
    assert found == list(calls_of(outline))


@pytest.mark.parametrize(
    ("verbs", "points", "written"),
    [
        ("MLLZ", [(1, 2), (3, 2), (1, 1)], "M1 2 l2 0-2-1z"),
        ("MCLZ", [(1, 0), (1, 1), (2, 1), (2, 0), (0, -0.0004)], "M1 0 c0 1 1 1 1 0 l-2 0z"),
        ("MLZMLZ", [(0, 0), (1, 0), (5, 5), (4, 5)], "M0 0 l1 0z M5 5 l-1 0z"),
        ("MLLZ", [(10, -0.05), (10.25, 0.15), (-0.001, 100.1)], "M10-.05 l.25 .2-10.251 99.95z"),
        ("", np.empty((0, 2)), ""),
    ],
)
def test_edges_are_told_from_where_they_begin(verbs, points, written):
    assert path_data(Outline(verbs, np.array(points, dtype=float))) == written
