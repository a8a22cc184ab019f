"""Outlines: joined, and placed."""

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
