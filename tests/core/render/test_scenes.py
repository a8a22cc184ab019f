"""Scenes of every layout, effect and area: all back-ends draw the same, measured with outside programs."""

import io
import subprocess

import ezdxf
import pikepdf
import pytest
from ezdxf import bbox
from PIL import Image

from tests.core.conftest import board, entries
from tests.measuring import measure
from yenzo.core.documents.reading import read_setup
from yenzo.core.errors import RenderError
from yenzo.core.evaluation import evaluate
from yenzo.core.render.files import render_file
from yenzo.core.render.page import area_page

GOLD, WHITE = ({"palette": "finishes", "color": name} for name in ("gold", "white"))
WAVE = [[8, 34], [40, 14], [80, 50], [112, 26]]
ARC = {"kind": "arc", "x_mm": 60, "y_mm": 62, "radius_mm": 40, "spread_deg": 130, "most_mm": 12}
LONG = "the tide keeps the harbor clock and the clock keeps the tide " * 33
STRIPED = {"fill": {"kind": "stripes", "color": WHITE, "size_mm": 3, "angle_deg": 30}}
# Name: what is typed, the typeface, what the placement has, what the area has.
SCENES = {
    "line": ("Wind & Whey", "quayside", {}, {}),
    "serif": ("Étude & Søster", "log-book", {}, {}),
    "arabic": ("مرحبا ya", "levant", {}, {}),
    "sloping": ("Wimple", "log-book", {"base_line": {"x_mm": 12, "y_mm": 44, "length_mm": 90, "angle_deg": -14}}, {}),
    "block": ("Berth 14 Kindly leave the pontoon clear", "quayside", {"kind": "block"}, {}),
    "long": (LONG[:600], "quayside", {"kind": "block", "least_mm": 0.5, "align": "justified"}, {}),
    "arabic block": ("مرحبا بالعالم هذا نص", "levant", {"kind": "block", "align": "justified"}, {}),
    "arc": ("Over the Bar", "quayside", ARC, {}),
    "arabic arc": ("مرحبا بالعالم", "levant", ARC, {}),
    "ring under": ("Mind the Bar", "log-book", {**ARC, "y_mm": 2, "middle_deg": 90, "stand": "under"}, {}),
    "inside": ("Inside", "log-book", {**ARC, "radius_mm": 50, "stand": "inside"}, {}),
    "curve": ("Along the swell", "log-book", {"kind": "curve", "points": WAVE}, {}),
    "edge": ("Fair winds to all who pass", "log-book", {"kind": "edge", "most_mm": 7}, {"shape": {"kind": "ellipse"}}),
    "stack": ("PORT", "quayside", {"kind": "stack"}, {}),
    "stroke": ("Tern", "log-book", {"effects": {"stroke": {"width_mm": 1.2, "color": WHITE}}}, {}),
    "centered stroke": (
        "Tern",
        "quayside",
        {"effects": {"stroke": {"width_mm": 0.8, "color": WHITE, "place": "centered"}}},
        {},
    ),
    "shadow": ("Tern", "quayside", {"effects": {"shadow": {"across_mm": 1.5, "down_mm": 1, "color": WHITE}}}, {}),
    "stripes": ("Tern", "quayside", {"effects": STRIPED}, {}),
    "dots on an arc": ("Tern", "log-book", {**ARC, "effects": {"fill": {**STRIPED["fill"], "kind": "dots"}}}, {}),
    "plate": ("Tern", "quayside", {"effects": {"plate": {"margin_mm": 3, "corner_mm": 2, "color": WHITE}}}, {}),
    "knock-out": (
        "Tern",
        "log-book",
        {"effects": {"plate": {"margin_mm": 3, "corner_mm": 2, "color": GOLD, "knock_out": True}}},
        {},
    ),
    "ellipse": ("Tern", "quayside", {}, {"shape": {"kind": "ellipse"}, "turn_deg": 20}),
}


def scene_of(name, assets):
    """The area of a scene: 120 x 60 mm, with the text in it."""
    text, face, placement, area = SCENES[name]
    document = board()
    document["sides"][0]["areas"][0] |= {"width_mm": 120, "height_mm": 60, "bleed_mm": 2, "safe_mm": 3, **area}
    document["placements"][0] |= {"least_mm": 2, "most_mm": 24, **placement}
    document["fields"][0] = {"key": "name", "kind": "paragraph", "label": "Name"}
    evaluation = evaluate(read_setup(document), entries({"name": text, "lettering": face}), assets)
    return evaluation.scene.areas.__next__()


def area_has_layers(page):
    """Whether one color lies on another: contours alone don't tell what is on top."""
    return any(node.effects[1:] for placed in page.areas for node in placed.scene.letterings)


@pytest.mark.parametrize("name", SCENES)
def test_all_files_of_a_scene_have_the_same_geometry(name, assets, tmp_path):
    page = area_page(scene_of(name, assets))
    files = {}
    for ending in ("pdf", "svg", "dxf", "png"):
        if ending == "dxf" and (area_has_layers(page) or name == "long"):
            continue
        files[ending] = tmp_path / f"area.{ending}"
        files[ending].write_bytes(render_file(page, assets, ending, dpi=300))
    for ending, tolerance_mm in (("svg", 0.03), ("dxf", 0.03), ("png", 0.1)):
        if ending in files:
            size = f"{page.width_mm:g}x{page.height_mm:g}"
            found = measure(files["pdf"], files[ending], dpi=300, size_b=size if ending == "dxf" else None)
            assert found["p99.9_mm"] <= tolerance_mm, ending
            assert abs(found["area_diff_pct"]) <= 0.2, ending


def test_dxf_is_clean_and_lies_where_the_ink_is(assets, tmp_path):
    area = scene_of("arabic arc", assets)
    path = tmp_path / "area.dxf"
    path.write_bytes(render_file(area_page(area), assets, "dxf", dpi=0))
    drawing = ezdxf.readfile(path)
    assert (drawing.dxfversion, drawing.units, drawing.audit().errors) == ("AC1024", 4, [])
    assert {entity.dxf.layer for entity in drawing.modelspace()} == {"Gold leaf"}
    found, ink = bbox.extents(drawing.modelspace(), fast=False), next(area.letterings).outline.bounds
    assert (found.extmin.x, found.extmax.x) == pytest.approx((ink.left + 2, ink.right + 2), abs=0.02)
    assert (found.extmin.y, found.extmax.y) == pytest.approx((62 - ink.bottom, 62 - ink.top), abs=0.02)
    read = subprocess.run(["ogrinfo", "-al", "-so", str(path)], capture_output=True, text=True, check=True)
    assert f"Feature Count: {len(drawing.modelspace())}" in read.stdout


def test_gradient_has_its_colors_where_the_ink_begins_and_ends_and_no_place_in_a_dxf(assets):
    document = board()
    fill = {"kind": "gradient", "color": WHITE, "angle_deg": 0}
    document["placements"][0] |= {"effects": {"fill": fill}}
    evaluation = evaluate(read_setup(document), entries({"name": "HHHHHHHHHH"}), assets)
    area = evaluation.scene.areas.__next__()
    ink = next(area.letterings).outline.bounds
    picture = Image.open(io.BytesIO(render_file(area_page(area), assets, "png", dpi=50.8)))
    row = picture.crop((int((ink.left + 2) * 2), 100, int((ink.right + 2) * 2), 101))
    pixels = [pixel for pixel in row.get_flattened_data() if pixel[3] == 255]
    assert pixels[0][:3] == pytest.approx((0xD4, 0xA8, 0x3E), abs=6)
    assert pixels[-1][:3] == pytest.approx((255, 255, 255), abs=6)
    with pytest.raises(RenderError, match="can't have it"):
        render_file(area_page(area), assets, "dxf", dpi=0)
    with pikepdf.open(io.BytesIO(render_file(area_page(area), assets, "pdf", dpi=0))) as pdf:
        assert len(pdf.pages[0].Resources.Pattern) == 1
