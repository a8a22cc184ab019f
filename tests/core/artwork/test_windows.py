import io
import math

import numpy as np
import pytest
import shapely
from PIL import Image, ImageDraw

from yenzo.core.artwork.windows import find_windows
from yenzo.core.shapes.fitting import fit_ring
from yenzo.core.shapes.flattening import flattened
from yenzo.core.shapes.polygons import polygon_of

SCALE = 4


def goods(*holes, ground=(90, 60, 30, 255)):
    """A board on a transparent ground with holes cut into it, drawn large and made smaller for soft edges."""
    picture = Image.new("RGBA", (800 * SCALE, 500 * SCALE))
    draw = ImageDraw.Draw(picture)
    draw.rectangle([40 * SCALE, 30 * SCALE, 760 * SCALE, 470 * SCALE], fill=ground)
    for shape, corners in holes:
        getattr(draw, shape)([value * SCALE for value in corners], fill=(0, 0, 0, 0))
    output = io.BytesIO()
    picture.resize((800, 500), Image.Resampling.BOX).save(output, "PNG")
    return output.getvalue()


def test_round_hole_becomes_a_smooth_outline_of_few_points():
    (window,) = find_windows(goods(("ellipse", (300, 150, 500, 350))), 0.5)
    assert set(window.verbs) == {"M", "C", "Z"}
    assert len(window.points) <= 40
    distances = np.hypot(*(np.concatenate(flattened(window, 0.01)) - (400, 250)).T)
    assert np.abs(distances - 100).max() <= 0.8


def test_square_hole_keeps_its_corners():
    (window,) = find_windows(goods(("rectangle", (200, 100, 400, 300))), 0.5)
    assert polygon_of(window).area == pytest.approx(200 * 200, rel=0.01)
    assert window.bounds == pytest.approx((200, 100, 400.25, 300.25), abs=0.6)
    assert len(window.points) <= 40


def test_holes_come_largest_first_and_neither_specks_nor_the_ground_count():
    found = find_windows(
        goods(
            ("ellipse", (100, 100, 200, 200)), ("rectangle", (300, 100, 600, 300)), ("ellipse", (700, 400, 704, 404))
        ),
        0.5,
    )
    assert [round(polygon_of(window).area, -3) for window in found] == [
        60_000,
        pytest.approx(math.pi * 2500, abs=500),
    ]


def test_goods_inside_a_hole_are_no_window_of_their_own():
    data = goods(("ellipse", (200, 100, 500, 400)))
    picture = Image.open(io.BytesIO(data))
    ImageDraw.Draw(picture).rectangle([340, 120, 360, 250], fill=(0, 0, 0, 255))
    output = io.BytesIO()
    picture.save(output, "PNG")
    assert len(find_windows(output.getvalue(), 0.5)) == 1


def test_picture_without_holes_has_no_windows():
    assert find_windows(goods(), 0.5) == ()
    output = io.BytesIO()
    Image.new("RGB", (80, 60), "red").save(output, "PNG")
    assert find_windows(output.getvalue(), 0.5) == ()


@pytest.mark.parametrize("tolerance", [0.1, 0.5, 2.0])
def test_fitted_ring_stays_within_its_tolerance(tolerance):
    angle = np.linspace(0, 2 * np.pi, 1500, endpoint=False)
    ring = np.column_stack([np.cos(angle), np.sin(angle)]) * (120 + 25 * np.cos(5 * angle))[:, None]
    fitted = fit_ring(ring, tolerance)
    line = shapely.LinearRing(flattened(fitted, tolerance / 20)[0])
    assert shapely.distance(line, shapely.points(ring)).max() <= tolerance * 1.1
    assert len(fitted.points) < 150
