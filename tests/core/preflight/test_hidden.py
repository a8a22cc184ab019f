"""What nobody would see: beside its area, under a picture, on a plate of its own color."""

from dataclasses import replace

import pytest

from tests.core.conftest import board, entries, upload
from yenzo.core.documents.materials import Method
from yenzo.core.documents.reading import read_setup
from yenzo.core.evaluation import evaluate
from yenzo.core.preflight.checks.contrast import find_on_own_plate
from yenzo.core.preflight.checks.hidden import find_nothing_shown, find_under_pictures
from yenzo.core.shapes.matrix import Matrix

METHOD = Method(name="Carving", done="carved")


@pytest.fixture
def areas(assets):
    values = {"name": "Tern", "with_photo": True}
    scene = evaluate(read_setup(board()), entries(values, uploads={"photo": upload()}), assets).scene
    return {area.key: area for area in scene.areas}


def codes(check, area):
    return [finding.code for finding in check(area, METHOD)]


@pytest.mark.parametrize(("right", "found"), [(0, []), (40, []), (500, ["prints_nothing"]), (-500, ["prints_nothing"])])
def test_picture_beside_its_area_is_found(areas, right, found):
    photo = areas["photo"]
    moved = tuple(replace(node, matrix=node.matrix.then(Matrix.shift(right, 0))) for node in photo.pictures)
    assert moved
    assert codes(find_nothing_shown, replace(photo, nodes=moved)) == found


@pytest.mark.parametrize(
    ("above", "size", "see_through", "found"),
    [
        (True, 600, False, ["hidden"]),
        (False, 600, False, []),
        (True, 600, True, []),
        (True, 20, False, []),
    ],
)
def test_text_under_a_picture_is_found(areas, above, size, see_through, found):
    (picture,) = areas["photo"].pictures
    picture = replace(picture, matrix=Matrix(size, 0, 0, size, -5, -5), see_through=see_through)
    panel = areas["panel"]
    nodes = (*panel.nodes, picture) if above else (picture, *panel.nodes)
    assert codes(find_under_pictures, replace(panel, nodes=nodes)) == found
    allowed = tuple(replace(node, may_overlap=True) for node in panel.letterings)
    assert codes(find_under_pictures, replace(panel, nodes=(*allowed, picture))) == []


@pytest.mark.parametrize(("color", "found"), [("gold", ["hardly_seen"]), ("white", [])])
def test_text_on_a_plate_of_its_own_color_is_found(assets, color, found):
    document = board()
    plate = {"margin_mm": 4, "color": {"palette": "finishes", "color": color}}
    document["placements"][0] |= {"effects": {"plate": plate}, "color": {"palette": "finishes", "color": "gold"}}
    panel = next(evaluate(read_setup(document), entries({"name": "Tern"}), assets).scene.areas)
    assert codes(find_on_own_plate, panel) == found
