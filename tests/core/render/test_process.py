"""Files in process colors against an outside separation (ghostscript): no RGB is left, and each plate has its ink."""

import io
from dataclasses import replace

import pikepdf
import pytest
from PIL import Image, ImageCms

from tests.core.conftest import board, entries, upload
from tests.separating import covered_mm2, separated
from yenzo.core.documents.materials import Method
from yenzo.core.documents.reading import read_setup
from yenzo.core.evaluation import evaluate
from yenzo.core.planning.plates import plates_of
from yenzo.core.render.files import render_file
from yenzo.core.render.page import area_page
from yenzo.core.render.pdf import PdfColors
from yenzo.core.render.process import PROFILE, as_process, process_shares
from yenzo.core.scene.inking import drawn
from yenzo.core.scene.paints import GradientPaint, Layer, Paint
from yenzo.core.shapes.booleans import difference
from yenzo.core.shapes.box import Box
from yenzo.core.shapes.outline import Outline

PROCESS, BOTH = PdfColors(process=True), PdfColors(process=True, spots=True)
PLATES = ("Cyan", "Magenta", "Yellow", "Black")


@pytest.fixture
def area(assets):
    found = next(evaluate(read_setup(board()), entries({"name": "Tern"}), assets).scene.areas)
    # No wider than what is drawn here.
    return replace(found, area=found.area.model_copy(update={"width_mm": 120}))


def page_of(area, *layers):
    return area_page(replace(area, nodes=tuple(drawn(layer) for layer in layers)))


def square(at, paint, size=40.0):
    return Layer(Outline.rectangle(Box(at, 20, at + size, 20 + size)), paint, "ink")


def spaces_of(pdf):
    """Return all that a PDF says outside its streams, and the operators of its page."""
    with pikepdf.open(io.BytesIO(pdf)) as document:
        operators = {str(operator) for _, operator in pikepdf.parse_content_stream(document.pages[0])}
        return " ".join(map(repr, document.objects)), operators


def test_plates_have_the_shares_that_the_palette_gives(area, assets, tmp_path):
    paint = Paint("#a05020", "Rust", "R 7", cmyk=(10, 60, 80, 20))
    pdf = render_file(page_of(area, square(10, paint)), assets, "pdf", dpi=0, colors=PROCESS)
    inked = separated(pdf, tmp_path)
    for plate, share in zip(PLATES, paint.cmyk, strict=True):
        # Plates have 255 levels.
        assert inked[plate] == pytest.approx(40 * 40 * share / 100, rel=0.002, abs=40 * 40 / 255), plate


def test_spot_colors_are_plates_of_their_own_and_knock_out_what_lies_below(area, assets, tmp_path):
    below = Paint("#203040", "Sea", "S 1", cmyk=(90, 60, 30, 20))
    above = Paint("#ffcc00", "Sun", "S 2", cmyk=(0, 20, 100, 0))
    page = page_of(area, square(10, below, 60.0), square(20, above, 40.0))
    inked = separated(render_file(page, assets, "pdf", dpi=0, colors=BOTH), tmp_path)
    assert inked["Sea S 1"] == pytest.approx(60 * 60 - 40 * 40, rel=0.002)
    assert inked["Sun S 2"] == pytest.approx(40 * 40, rel=0.002)
    assert all(inked[plate] < 1 for plate in PLATES)


def test_three_layers_on_two_tools_are_shared_out_as_an_outside_separation_does(area, assets, tmp_path):
    sea, sun = Paint("#203040", "Sea", "S 1"), Paint("#ffcc00", "Sun", "S 2")
    ring = difference(Outline.rectangle(Box(20, 25, 60, 55)), Outline.rectangle(Box(30, 30, 50, 50)))
    layers = [square(10, sea, 60.0), Layer(ring, sun, "ink"), square(45, sea, 30.0)]
    nodes = tuple(drawn(layer) for layer in layers)
    method = Method(name="Screen", done="printed", separations=True, spot_colors=True)
    composite, *plates = plates_of(replace(area, nodes=nodes), method)
    inked = separated(
        render_file(composite.page, assets, "pdf", dpi=0, colors=PdfColors(spots=True)), tmp_path, dpi=600
    )
    for plate in plates:
        assert inked[plate.paint.plate] == pytest.approx(covered_mm2(plate), rel=0.002), plate.name


def test_marks_are_on_every_plate(area, assets, tmp_path):
    paint = Paint("#ffcc00", "Sun", "S 2", cmyk=(0, 20, 100, 0))
    mark = Paint("#000000", "All", is_registration=True)
    page = page_of(area, square(10, paint), square(80, mark, 10.0))
    inked = separated(render_file(page, assets, "pdf", dpi=0, colors=BOTH), tmp_path)
    for plate in PLATES:
        assert inked[plate] == pytest.approx(100, rel=0.01), plate
    assert inked["Sun S 2"] == pytest.approx(1600 + 100, rel=0.002)


@pytest.mark.parametrize("colors", [PROCESS, BOTH])
def test_no_rgb_is_left_of_pictures_gradients_and_colors_of_a_screen(assets, colors):
    values = {"name": "Tern", "with_photo": True}
    evaluation = evaluate(read_setup(board()), entries(values, uploads={"photo": upload()}), assets)
    text, photo = (area_page(area) for area in evaluation.scene.areas)
    fade = GradientPaint(Paint("#ff0000"), Paint("#00ff00", cmyk=(80, 0, 100, 0)), (10.0, 20.0), (50.0, 20.0))
    faded = page_of(next(evaluation.scene.areas), square(10, fade))
    pages = (text, photo, faded) if not colors.spots else (text, photo)
    for page in pages:
        said, operators = spaces_of(render_file(page, assets, "pdf", dpi=0, colors=colors))
        assert "DeviceCMYK" in said or operators & {"k", "K"}
        assert "DeviceRGB" not in said
        assert not {"rg", "RG", "g", "G"} & operators


def test_output_intent_is_the_print_that_process_colors_are_of(area, assets):
    pdf = render_file(page_of(area, square(10, Paint("#336699"))), assets, "pdf", dpi=0, colors=PROCESS)
    with pikepdf.open(io.BytesIO(pdf)) as document:
        (intent,) = document.Root.OutputIntents
        assert (str(intent.S), int(intent.DestOutputProfile.N)) == ("/GTS_PDFX", 4)
        profile = ImageCms.ImageCmsProfile(io.BytesIO(intent.DestOutputProfile.read_bytes()))
    assert profile.profile.xcolor_space.strip() == "CMYK"


@pytest.mark.parametrize("screen", ["#ffffff", "#808080", "#a5632f", "#d4a83e", "#1b6f6a"])
def test_colors_come_back_as_they_were_seen(screen):
    srgb, flags = ImageCms.createProfile("sRGB"), ImageCms.Flags.BLACKPOINTCOMPENSATION
    back = ImageCms.buildTransform(str(PROFILE), srgb, "CMYK", "RGB", flags=flags)
    picture = Image.new("RGB", (1, 1), screen)
    seen = ImageCms.applyTransform(as_process(picture), back).getpixel((0, 0))
    assert max(abs(one - other) for one, other in zip(seen, picture.getpixel((0, 0)), strict=True)) <= 6


@pytest.mark.parametrize("screen", ["#000000", "#010203", "#0000ff", "#ff00ff"])
def test_no_color_takes_more_ink_than_the_paper_bears(screen):
    assert sum(process_shares(screen)) <= 3.21


def test_black_is_black_ink_alone():
    assert process_shares("#000000") == (0, 0, 0, 1)
