"""Necks against an outside erosion: what a plotter's knife or a cutter would find when it takes off from all around."""

import math

import numpy as np
import pytest
import shapely

from tests.core.conftest import TYPEFACES
from tests.pressing import falls_apart_at
from yenzo.core.shapes.flattening import covered_by
from yenzo.core.shapes.matrix import Matrix
from yenzo.core.shapes.necks import neck
from yenzo.core.shapes.outline import Outline
from yenzo.core.shapes.thickness import thinnest
from yenzo.core.text.fonts import Font

FACES = ("bollard", "signal", "log-book", "ledger", "quayside", "monsoon", "regatta")
LETTERS = "abdeghmnpqrstuBEGKMPRSW2356789&"


def dumbbell(width):
    """Two squares of 10 with a bridge between them that has no parallel edges: narrowest in its middle."""
    left, right = shapely.box(0, 0, 10, 10), shapely.box(20, 0, 30, 10)
    bridge = shapely.Polygon([(9, 1), (15, 5 - width / 2), (21, 1), (21, 9), (15, 5 + width / 2), (9, 9)])
    return shapely.union_all([left, right, bridge])


@pytest.mark.parametrize("width", [0.5, 2, 5])
def test_neck_is_as_wide_as_it_is_in_its_middle(width):
    assert neck(dumbbell(width), 9) == pytest.approx(width, rel=0.35)
    assert neck(dumbbell(width), 9) >= 0.8 * width
    assert neck(dumbbell(width), 0.2 * width) == math.inf


def test_ring_opens_where_it_is_thinnest():
    ring = shapely.Point(0, 0).buffer(10, 64).difference(shapely.Point(1, 0).buffer(8, 64))
    assert neck(ring, 3.5) == pytest.approx(1, rel=0.03)


@pytest.mark.sweep
def test_no_glyph_is_told_to_be_thicker_than_where_it_falls_apart():
    over = []
    count = 0
    for face in FACES:
        font = Font((TYPEFACES / f"{face}.ttf").read_bytes(), face)
        for letter in LETTERS:
            outline = font.outline(font.glyph_of(letter)).mapped(Matrix(100, 0, 0, 100, 0, 0))
            truth, told = falls_apart_at(covered_by(outline)), thinnest(outline).stroke
            count += 1
            if told > 1.03 * truth:
                over.append((face, letter, round(told / truth, 3)))
    assert count > 200
    assert over == []


def test_limb_that_ends_free_is_measured_though_nothing_comes_apart():
    limb = Outline(
        "MLLLLLLLZ", np.array([(0, 0), (10, 0), (10, 4), (20, 4), (20, 5), (10, 5), (10, 10), (0, 10)], float)
    )
    assert thinnest(limb).stroke == pytest.approx(1, rel=0.02)
