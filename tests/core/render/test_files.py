"""Every back-end draws the same geometry: measured by rasterising with outside programs."""

import io
import json
import subprocess
import sys
from concurrent.futures import ThreadPoolExecutor
from dataclasses import replace

import ezdxf
import numpy as np
import pikepdf
import pytest
from PIL import Image

from tests.core.conftest import entries, upload
from tests.measuring import measure
from yenzo.core.documents.materials import Method
from yenzo.core.documents.reading import dump_document, read_setup
from yenzo.core.errors import RenderError
from yenzo.core.evaluation import evaluate
from yenzo.core.planning.plates import plates_of
from yenzo.core.render.files import FORMATS, render_file
from yenzo.core.render.page import area_page, side_page
from yenzo.core.scene.inking import drawn
from yenzo.core.scene.paints import Layer, Paint
from yenzo.core.shapes.box import Box
from yenzo.core.shapes.outline import Outline

TEXTS = {
    "latin": ("Wind & Whey", "quayside"),
    "serif": ("Étude & Søster", "log-book"),
    "arabic": ("مرحبا ya", "levant"),
}


@pytest.fixture(params=TEXTS)
def panel(request, setup, assets):
    name, face = TEXTS[request.param]
    evaluation = evaluate(setup, entries({"name": name, "lettering": face}), assets)
    return next(area for area in evaluation.scene.areas if area.key == "panel")


def written(tmp_path, area, assets, file_format):
    path = tmp_path / f"area.{file_format}"
    path.write_bytes(render_file(area_page(area), assets, file_format, dpi=300 if file_format == "png" else 0))
    return path


@pytest.mark.parametrize(("other", "tolerance_mm"), [("svg", 0.03), ("png", 0.1)])
def test_files_of_an_area_differ_by_hundredths_of_a_millimetre(panel, assets, tmp_path, other, tolerance_mm):
    found = measure(written(tmp_path, panel, assets, "pdf"), written(tmp_path, panel, assets, other), dpi=200)
    assert found["p99.9_mm"] <= tolerance_mm
    assert abs(found["area_diff_pct"]) <= 0.2


def test_bounds_of_the_scene_equal_the_ink_in_the_png(panel, assets):
    picture = Image.open(io.BytesIO(render_file(area_page(panel), assets, "png", dpi=200)))
    left, top, right, bottom = (edge / 200 * 25.4 - panel.area.bleed_mm for edge in picture.getchannel("A").getbbox())
    ink = next(panel.letterings).outline.bounds
    assert np.allclose((left, top, right, bottom), ink, atol=0.15)


def test_pdf_has_boxes_of_true_size_and_no_fonts(panel, assets, tmp_path):
    path = written(tmp_path, panel, assets, "pdf")
    with pikepdf.open(path) as pdf:
        page = pdf.pages[0]
        media, trim = ([float(v) for v in page[name]] for name in ("/MediaBox", "/TrimBox"))
        assert "/Font" not in page.Resources
    assert media == pytest.approx([0, 0, 544 * 72 / 25.4, 102 * 72 / 25.4], abs=1e-3)
    assert trim == pytest.approx([2 * 72 / 25.4, 2 * 72 / 25.4, 542 * 72 / 25.4, 100 * 72 / 25.4], abs=1e-3)


def test_png_has_its_density_and_transparency(panel, assets):
    picture = Image.open(io.BytesIO(render_file(area_page(panel), assets, "png", dpi=300)))
    assert picture.info["dpi"] == pytest.approx((300, 300), abs=0.01)
    assert picture.size == (6425, 1205)
    assert picture.getchannel("A").getextrema() == (0, 255)
    inside = np.asarray(picture)[np.asarray(picture)[..., 3] == 255][:, :3]
    assert (inside == (0xD4, 0xA8, 0x3E)).all()


def test_artwork_is_cut_off_at_the_bleed_in_files_and_at_the_edge_on_the_side(setup, assets):
    evaluation = evaluate(setup, entries({"name": "A", "with_photo": True}, uploads={"photo": upload()}), assets)
    photo = next(area for area in evaluation.scene.areas if area.key == "photo")
    picture = Image.open(io.BytesIO(render_file(area_page(photo), assets, "png", dpi=100)))
    assert picture.getchannel("A").getextrema() == (255, 255)
    side = Image.open(
        io.BytesIO(render_file(side_page(evaluation.scene.sides[0], with_goods=True), assets, "png", dpi=50.8))
    )
    teal = (np.abs(np.asarray(side.convert("RGB")).astype(int) - (0x1B, 0x6F, 0x6A)).max(axis=2) < 12).nonzero()
    assert (teal[1].min(), teal[1].max() + 1) == (20, 180)
    assert (teal[0].min(), teal[0].max() + 1) == (280, 400)


def test_same_scene_gives_the_same_bytes_in_another_process_zone_and_hash_seed(setup, assets, tmp_path):
    program = (
        "import hashlib, json, sys; from tests.core.conftest import *; from yenzo.core.evaluation import evaluate;"
        "from yenzo.core.render.files import render_file; from yenzo.core.render.page import area_page;"
        "folder=Path(sys.argv[1]); (folder/'p.jpg').write_bytes(PHOTO); a=FolderAssets([folder, TYPEFACES]);"
        "s=evaluate(read_setup(board()), entries({'name':'Tern','with_photo':True}, uploads={'photo':upload()}),"
        " a);"
        "files={k: [render_file(area_page(x), a, k, dpi=72) for x in s.scene.areas"
        " if k != 'dxf' or not list(x.pictures)] for k in sys.argv[2:]};"
        "print(json.dumps({k: [(len(f), hashlib.sha256(f).hexdigest()) for f in v] for k, v in files.items()}))"
    )
    python = sys.executable
    made = [
        subprocess.run(
            [python, "-c", program, str(tmp_path), *FORMATS],
            env={"PYTHONHASHSEED": seed, "TZ": zone, "LC_ALL": locale, "PATH": ""},
            capture_output=True,
            check=True,
        ).stdout
        for seed, zone, locale in (("1", "UTC", "C"), ("77", "Pacific/Auckland", "C.UTF-8"))
    ]
    assert made[0] == made[1]
    files = json.loads(made[0])
    assert {file_format: len(sizes) for file_format, sizes in files.items()} == {"svg": 2, "pdf": 2, "png": 2, "dxf": 1}
    assert all(size > 250 for sizes in files.values() for size, _ in sizes)


def test_format_that_cannot_be_made_is_refused_in_words(panel, assets):
    with pytest.raises(RenderError, match="“tiff” can't be made"):
        render_file(area_page(panel), assets, "tiff", dpi=72)


def test_png_above_four_gigapixels_is_refused_in_words(panel, assets):
    with pytest.raises(RenderError, match="too large"):
        render_file(area_page(panel), assets, "png", dpi=24_000)


@pytest.mark.parametrize("left_mm", [10, 10.013, 10.03])
def test_plain_rectangle_is_as_large_in_a_png_as_it_is(panel, assets, left_mm):
    square = Outline.rectangle(Box(left_mm, 20, left_mm + 10.03, 30.03))
    page = area_page(replace(panel, nodes=(drawn(Layer(square, Paint("#000000"), "ink")),)))
    with Image.open(io.BytesIO(render_file(page, assets, "png", dpi=300))) as picture:
        ink = np.asarray(picture)[..., 3] / 255
    across, down = (ink.max(axis=axis).sum() * 25.4 / 300 for axis in (0, 1))
    assert (across, down) == pytest.approx((10.03, 10.03), abs=0.004)


def test_large_png_is_written_band_by_band_and_shows_the_same(panel, assets, monkeypatch):
    whole = render_file(area_page(panel), assets, "png", dpi=60)
    monkeypatch.setattr("yenzo.core.render.png.WHOLE_PIXELS", 1000)
    monkeypatch.setattr("yenzo.core.render.png.BAND_PIXELS", 50_000)
    banded = Image.open(io.BytesIO(render_file(area_page(panel), assets, "png", dpi=60)))
    banded.load()
    assert banded.size == (1285, 241)
    assert banded.info["dpi"] == pytest.approx((60, 60), abs=0.01)
    # Both say that their colors are sRGB.
    assert [Image.open(io.BytesIO(whole)).info["srgb"], banded.info["srgb"]] == [0, 0]
    away = np.abs(np.asarray(banded).astype(int) - np.asarray(Image.open(io.BytesIO(whole)))).max(axis=2)
    # Where a line falls on the border between two pixels, one of them may be rounded the other way.
    assert (away > 8).mean() < 1e-4


def test_pngs_made_in_several_threads_at_once_are_the_same(panel, assets):
    def made(_number):
        return render_file(area_page(panel), assets, "png", dpi=60)

    with ThreadPoolExecutor(6) as pool:
        assert len(set(pool.map(made, range(18)))) == 1


def test_dxf_has_no_step_shorter_than_a_machine_makes_and_marks_on_a_layer_of_their_own(setup, assets):
    document = dump_document(setup)
    stroke = {"stroke": {"width_mm": 1.5, "color": {"palette": "finishes", "color": "white"}}}
    document["placements"][0]["effects"] = stroke
    evaluation = evaluate(read_setup(document), entries({"name": "Søster & Whey", "lettering": "log-book"}), assets)
    area = next(evaluation.scene.areas)
    page = plates_of(area, Method(name="Cut", done="cut", registration=True))[0].page
    drawing = ezdxf.read(io.StringIO(render_file(page, assets, "dxf", dpi=0).decode()))
    layers = {entity.dxf.layer for entity in drawing.modelspace()}
    assert "Marks" in layers
    assert len(layers) == 3
    steps = []
    for polyline in drawing.modelspace().query("LWPOLYLINE"):
        points = np.array([(x, y) for x, y, *_ in polyline.get_points()])
        steps.append(np.hypot(*(np.roll(points, -1, axis=0) - points)[: None if polyline.closed else -1].T))
    assert np.concatenate(steps).min() >= 0.02
