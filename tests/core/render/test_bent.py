"""Pictures on bent surfaces: cell by cell, each where the surface has it."""

import numpy as np
import pytest

from yenzo.core.documents.areas import Area
from yenzo.core.render.page import _bent_cells
from yenzo.core.shapes.box import Box
from yenzo.core.shapes.matrix import Matrix
from yenzo.core.shapes.outline import Outline
from yenzo.core.shapes.surfaces import surface_warp

CORNERS = {"kind": "corners", "corners_mm": [[4, 6], [-10, 0], [0, -3], [0, -12]]}


def test_each_cell_of_a_picture_lies_where_the_surface_has_its_middle():
    area = Area(key="a", name="A", x_mm=0, y_mm=0, width_mm=100, height_mm=60, method="m", surface=CORNERS)
    warp = surface_warp(area)
    whole = Outline.rectangle(Box(0, 0, 100, 60))
    # A picture as large as the area: a place on it, in shares, is a place of the area.
    cells = list(_bent_cells(Matrix(100, 0, 0, 60, 0, 0), whole, warp))
    assert len(cells) == np.prod(warp.cells)
    for matrix, cell in cells:
        x, y = cell.bounds.middle
        (there,), _ = warp.carry(np.array([[x, y]]), np.array([[1.0, 0.0]]))
        assert matrix.apply(x / 100, y / 60) == pytest.approx(tuple(there), abs=1e-6)
