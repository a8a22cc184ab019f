"""What is cut out by the color of the ground: one plate, the contours of a tool, a drawing in one color."""

import io
import math

import ezdxf
import pytest
import shapely

from tests.core.conftest import board, entries
from tests.core.render.test_drawings import crest, photo_area
from yenzo.core.documents.reading import read_setup
from yenzo.core.evaluation import evaluate
from yenzo.core.planning.plates import plates_of
from yenzo.core.render.dxf import render_dxf
from yenzo.core.render.page import area_page
from yenzo.core.shapes.polygons import polygon_of

__all__ = ["crest"]
DISC = '<circle cx="50" cy="30" r="25"/><rect x="40" y="20" width="20" height="20" fill="#fff"/>'
WITH_PAPER = f'<rect width="100" height="60" fill="#ffffff"/>{DISC}'
PLATE = {"palette": "finishes", "color": "gold"}
GROUND = {"key": "cedar", "name": "Cedar", "screen": "#a5632f"}


def words_on_a_plate(assets, color, plate=PLATE, **method):
    document = board()
    document["materials"]["methods"]["carving"] |= method
    document["materials"]["palettes"]["finishes"]["colors"].append(GROUND)
    document["placements"][0] |= {
        "color": {"palette": "finishes", "color": color},
        "effects": {"plate": {"margin_mm": 5, "color": plate}},
    }
    evaluation = evaluate(read_setup(document), entries({"name": "Tern"}), assets)
    return evaluation, next(evaluation.scene.areas)


def one_plate(evaluation, area):
    (plate,) = plates_of(area, evaluation.setup.materials.methods["carving"])
    (node,) = plate.page.areas[0].scene.letterings
    return polygon_of(node.outline).area


def contours_mm2(page):
    """The area between the contours of a DXF file: every second one is a hole."""
    drawing = ezdxf.read(io.StringIO(render_dxf(page).decode()))
    rings = [
        shapely.Polygon(list(entity.flattening(0.01))) for entity in map(ezdxf.path.make_path, drawing.modelspace())
    ]
    shape = shapely.Polygon()
    for ring in rings:
        shape = shape.symmetric_difference(shapely.Polygon([(x, y) for x, y, *_ in ring.exterior.coords]))
    return shape.area


@pytest.mark.parametrize("color", ["white", "cedar"])
def test_words_in_white_or_in_the_color_of_the_goods_are_cut_out_of_their_plate(assets, color):
    evaluation, area = words_on_a_plate(assets, color, one_color=True, files=["pdf", "dxf"])
    plate, words = (polygon_of(layer.outline).area for layer in next(area.letterings).layers)
    assert one_plate(evaluation, area) == pytest.approx(plate - words, rel=1e-4)
    assert contours_mm2(area_page(area)) == pytest.approx(plate - words, rel=1e-3)
    assert "merges" not in {finding.code for finding in evaluation.verdict.findings}


@pytest.mark.parametrize(
    ("method", "blocks"),
    [({"one_color": True}, True), ({"files": ["dxf"]}, False), ({"files": ["pdf"]}, False)],
)
def test_colors_that_become_one_block_in_words(assets, method, blocks):
    evaluation, _ = words_on_a_plate(assets, "gold", {"palette": "finishes", "color": "white"}, **method)
    found = [finding for finding in evaluation.verdict.blocking if finding.code == "merges"]
    assert bool(found) is blocks
    if blocks:
        assert found[0].message.startswith("“TERN” lies on “Panel” in Gold leaf on White; Carving makes both alike")


def test_plate_and_text_of_one_tool_block_in_words(assets):
    document = board()
    colors = document["materials"]["palettes"]["finishes"]["colors"]
    colors[0]["tool"], colors[1] = "blade", {"key": "white", "name": "Red", "screen": "#aa2200", "tool": "blade"}
    document["materials"]["methods"]["carving"]["files"] = ["dxf"]
    document["placements"][0]["effects"] = {
        "plate": {"margin_mm": 5, "color": {"palette": "finishes", "color": "white"}}
    }
    evaluation = evaluate(read_setup(document), entries({"name": "Tern"}), assets)
    assert "merges" in {finding.code for finding in evaluation.verdict.blocking}


@pytest.mark.parametrize("inside", [DISC, WITH_PAPER])
@pytest.mark.parametrize("color", [None, {"palette": "finishes", "color": "gold"}])
def test_white_in_a_drawing_is_a_hole_in_one_color_and_in_contours(crest, inside, color):
    method = {"one_color": True, "files": ["dxf", "pdf"]}
    evaluation, _ = crest(inside, method=method, placement={"color": color, "fit": "contain"})
    area = photo_area(evaluation)
    unit = next(area.drawings).scale * 75
    true = (math.pi * 25**2 - 20**2) * unit**2
    assert one_plate(evaluation, area) == pytest.approx(true, rel=2e-3)
    assert contours_mm2(area_page(area)) == pytest.approx(true, rel=2e-3)
    if color:
        (layer,) = next(area.drawings).layers
        assert polygon_of(layer.outline).area == pytest.approx(true, rel=2e-3)


def test_white_alone_is_made(crest):
    evaluation, _ = crest('<circle cx="50" cy="30" r="25" fill="#fff"/>', method={"one_color": True})
    area = photo_area(evaluation)
    assert one_plate(evaluation, area) > 1000
