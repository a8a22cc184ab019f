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
    assert {(round(cell.bounds.left, 6), round(cell.bounds.top, 6)) for _, cell in cells} == {
        (round(100 * column / warp.cells[0], 6), round(60 * row / warp.cells[1], 6))
        for column in range(warp.cells[0])
        for row in range(warp.cells[1])
    }
    for matrix, cell in cells:
        x, y = cell.bounds.middle
        # In its middle exactly, and beside that as nearly as a plane touches what is bent.
        for across, down, tolerance in ((0, 0, 1e-6), (0.2, 0, 0.01), (0, 0.2, 0.01)):
            (there,), _ = warp.carry(np.array([[x + across, y + down]]), np.array([[1.0, 0.0]]))
            assert matrix.apply((x + across) / 100, (y + down) / 60) == pytest.approx(tuple(there), abs=tolerance)
