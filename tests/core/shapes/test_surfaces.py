import numpy as np
import pytest
from hypothesis import given
from hypothesis import strategies as st

from yenzo.core.documents.areas import Area
from yenzo.core.shapes.bending import bend
from yenzo.core.shapes.box import Box
from yenzo.core.shapes.cubics import Cubics, points_at
from yenzo.core.shapes.outline import Outline
from yenzo.core.shapes.surfaces import cell_error_mm, surface_warp

SURFACES = {
    "upright": {"kind": "cylinder", "span_deg": 140, "tilt_deg": 20},
    "across": {"kind": "cylinder", "axis": "across", "span_deg": 90, "tilt_deg": -10},
    "corners": {"kind": "corners", "corners_mm": [[4, 3], [-6, 9], [-2, -7], [3, -1]]},
}


def area(surface, **others):
    values = {"key": "a", "name": "A", "method": "m", "x_mm": 0, "y_mm": 0, "width_mm": 80, "height_mm": 40, **others}
    return Area.model_validate({**values, "surface": surface})


@pytest.mark.parametrize("name", SURFACES)
@given(x=st.floats(0, 80), y=st.floats(0, 40))
def test_point_comes_back_from_a_surface_to_a_millionth_of_a_millimetre(name, x, y):
    warp = surface_warp(area(SURFACES[name]))
    there_and_back = warp.unmap(warp.map(np.array([[x, y]])))
    assert there_and_back == pytest.approx(np.array([[x, y]]), abs=1e-6)


@pytest.mark.parametrize("name", SURFACES)
@given(x=st.floats(1, 79), y=st.floats(1, 39))
def test_directions_on_a_surface_are_its_derivative(name, x, y):
    warp = surface_warp(area(SURFACES[name]))
    step = 1e-5
    points, vectors = np.array([[x, y]] * 2), np.eye(2)
    shown, pushed = warp.carry(points, vectors)
    measured = (warp.map(points + vectors * step) - warp.map(points - vectors * step)) / (2 * step)
    assert shown == pytest.approx(warp.map(points))
    assert pushed == pytest.approx(measured, abs=1e-6)


def test_four_corners_show_where_they_were_told():
    one = area(SURFACES["corners"])
    shown = surface_warp(one).map(np.array([[0, 0], [80, 0], [80, 40], [0, 40]], dtype=float))
    assert shown == pytest.approx(np.array([[4, 3], [74, 9], [78, 33], [3, 39]], dtype=float))


def test_cylinder_keeps_its_middle_and_narrows_its_edges_as_a_circle_does():
    warp = surface_warp(area({"kind": "cylinder", "span_deg": 180 - 2}))
    radius = 80 / np.radians(178)
    shown = warp.map(np.array([[40, 20], [0, 20], [80, 20]], dtype=float))
    assert shown[0] == pytest.approx([40, 20])
    assert shown[2, 0] - shown[1, 0] == pytest.approx(2 * radius * np.sin(np.radians(89)))


@pytest.mark.parametrize("name", SURFACES)
def test_bent_outline_is_within_a_twentieth_of_a_pixel_of_the_true_one(name):
    warp, flat = surface_warp(area(SURFACES[name])), Outline.rectangle(Box(5, 5, 75, 35))
    bent = points_at(Cubics.of(bend(flat, warp, 0.01)).points, tuple(np.linspace(0, 1, 33)))
    # Every point of the bent outline, taken back, lies on the edge of the flat box.
    back = warp.unmap(bent)
    off = np.minimum.reduce(
        [np.abs(back[:, 0] - 5), np.abs(back[:, 0] - 75), np.abs(back[:, 1] - 5), np.abs(back[:, 1] - 35)]
    )
    assert off.max() <= 0.02


def test_flat_area_has_no_warp_and_twisted_corners_no_surface():
    assert surface_warp(area({"kind": "flat"})) is None
    with pytest.raises(ValueError, match="could be seen"):
        area({"kind": "corners", "corners_mm": [[90, 0], [0, 0], [0, 0], [0, 0]]})


@pytest.mark.parametrize(
    ("surface", "most_cells"),
    [
        ({"kind": "cylinder", "span_deg": 120}, 30),
        ({"kind": "cylinder", "span_deg": 170, "axis": "across", "tilt_deg": 20}, 40),
        ({"kind": "corners", "corners_mm": [[6, 3], [-4, -2], [2, 1], [-3, 5]]}, 48 * 48),
        ({"kind": "corners", "corners_mm": [[0, 0], [0, 0], [0, 0], [1, 1]]}, 100),
    ],
)
def test_pictures_follow_a_surface_within_half_a_pixel(surface, most_cells):
    area = Area.model_validate(
        {
            "key": "a",
            "name": "A",
            "x_mm": 0,
            "y_mm": 0,
            "width_mm": 90,
            "height_mm": 60,
            "method": "m",
            "surface": surface,
        }
    )
    warp = surface_warp(area)
    assert cell_error_mm(warp, 90, 60) <= 0.105
    assert warp.cells[0] * warp.cells[1] <= most_cells
