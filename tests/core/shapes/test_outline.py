"""Outlines: joined, and placed."""

import numpy as np
import pytest

from yenzo.core.shapes.box import Box
from yenzo.core.shapes.outline import Outline

SQUARE = Outline.rectangle(Box(0, 0, 3, 1 / 7))


def test_parts_that_are_placed_at_once_are_those_moved_and_joined():
    for square in (SQUARE, Outline(SQUARE.verbs, SQUARE.points.copy())):
        assert square.bounds
        parts = [(square, 0.1, -7.3), (Outline.empty(), 5, 5), (square, 1e6, 1 / 3)]
        once = Outline.placed(parts)
        singly = Outline.joined(outline.shifted(x, y) for outline, x, y in parts)
        assert once.verbs == singly.verbs
        assert (once.points == singly.points).all()
        assert once.bounds == singly.bounds
    assert not Outline.placed([])


def test_bounds_of_curves_are_those_of_their_points_however_they_bend():
    dice = np.random.default_rng(5)
    at = np.linspace(0, 1, 4001)[:, None]
    for corners in dice.uniform(-9, 9, (60, 4, 2)):
        outline = Outline("MCZ", corners.copy())
        a, b, c, d = corners
        on_it = (1 - at) ** 3 * a + 3 * (1 - at) ** 2 * at * b + 3 * (1 - at) * at**2 * c + at**3 * d
        extent = (*on_it.min(axis=0), *on_it.max(axis=0))
        assert outline.bounds == pytest.approx(extent, abs=1e-5)
