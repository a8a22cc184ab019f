"""Work in pieces against Skia's path operations, and on what those refuse."""

import numpy as np
import pytest

from tests.core.text.test_layouts import font
from yenzo.core.shapes.areas import arc_outline
from yenzo.core.shapes.booleans import difference, intersection, union
from yenzo.core.shapes.box import Box
from yenzo.core.shapes.matrix import Matrix
from yenzo.core.shapes.outline import Outline
from yenzo.core.shapes.overlay import combined, covered_parts, united
from yenzo.core.shapes.polygons import polygon_of
from yenzo.core.text.line import fit_line
from yenzo.core.text.shaping import outline_of
from yenzo.core.text.styles import TextStyle

FACES = ("quayside", "bowline", "levant", "regatta", "monsoon")
TEXTS = {"levant": "ريح البحر", "monsoon": "समुद्र"}


def set_in(face, text=""):
    return fit_line(font(face), text or TEXTS.get(face, "Boat & 8 gjB"), Box(0, 0, 200, 60), TextStyle(1, 80)).outline


def area(outline):
    return polygon_of(outline, is_simple=True).area


@pytest.mark.parametrize("face", FACES)
def test_pieces_cover_what_skia_says(face):
    outline = set_in(face)
    assert sum(part.area for part in covered_parts(outline)) == pytest.approx(area(union([outline])), rel=2e-4)
    assert area(united(outline)) == pytest.approx(area(union([outline])), rel=2e-4)


@pytest.mark.parametrize("how", ["both", "first_only"])
@pytest.mark.parametrize("face", FACES)
def test_what_two_have_in_common_and_what_one_has_alone_is_what_skia_says(face, how):
    outline = set_in(face)
    middle = outline.bounds.middle
    disc = arc_outline(0, 360, Matrix(25, 0, 0, 25, *middle))
    skia = intersection(outline, disc) if how == "both" else difference(outline, disc)
    assert area(combined(outline, disc, how)) == pytest.approx(area(skia), rel=1e-3)


def test_holes_that_others_cover_are_covered():
    ring = Outline.joined([Outline.rectangle(Box(0, 0, 10, 10)), hole(Box(3, 3, 7, 7))])
    bar = Outline.rectangle(Box(-2, 4, 12, 6))
    assert area(united(Outline.joined([ring, bar]))) == pytest.approx(100 - 16 + 4 * 2 + 2 * 2 * 2)


def hole(box):
    return Outline(
        "MLLLZ", np.array([(box.left, box.top), (box.left, box.bottom), (box.right, box.bottom), (box.right, box.top)])
    )


@pytest.mark.parametrize("face", ["bowline", "wavelet"])
def test_word_of_45_letters_in_a_fine_script_is_united(face):
    word = "Donaudampfschiffahrtskapitaensmuetzenabzeichen"
    outline = fit_line(font(face), word, Box(0, 0, 600, 60), TextStyle(1, 80)).outline
    made = union([outline])
    assert made.bounds == pytest.approx(outline.bounds, abs=0.01)
    assert 0.7 * area(union([outline_of(font(face), "o")[0]])) < area(made)


@pytest.mark.sweep
def test_thousands_of_tiles_are_cut_to_letters_in_no_time():
    letters = set_in("quayside", "HALCYON DAYS")
    dot = arc_outline(0, 360, Matrix(0.3, 0, 0, 0.3, 0, 0))
    tiles = Outline.joined(dot.shifted(x, y) for x in np.arange(0, 200, 2.0) for y in np.arange(0, 60, 2.0))
    cut = intersection(tiles, letters)
    # As much of each tile as of the plain on the whole.
    assert area(cut) / area(union([letters])) == pytest.approx(np.pi * 0.09 / 4, rel=0.1)
    assert area(intersection(cut, letters)) == pytest.approx(area(cut), rel=1e-3)
