import io
from dataclasses import replace

import pikepdf
import pytest
from PIL import Image, ImageCms

from tests.core.conftest import board, entries, upload
from yenzo.core.documents.materials import Method
from yenzo.core.documents.reading import read_setup
from yenzo.core.errors import RenderError
from yenzo.core.evaluation import evaluate
from yenzo.core.planning.plates import MARKS_MM, plate_names, plates_of
from yenzo.core.render.files import render_file
from yenzo.core.render.page import area_page
from yenzo.core.render.pdf import PdfColors
from yenzo.core.scene.inking import drawn
from yenzo.core.scene.paints import Layer, Paint
from yenzo.core.shapes.box import Box
from yenzo.core.shapes.outline import Outline
from yenzo.core.shapes.polygons import polygon_of

WHITE = {"palette": "finishes", "color": "white"}
BOXES = ("/MediaBox", "/BleedBox", "/TrimBox")


def method(**options):
    return Method(name="Carving", done="carved", **options)


@pytest.fixture
def panel(assets):
    """A text in gold with a white edge."""
    document = board()
    document["placements"][0]["effects"] = {"stroke": {"width_mm": 3, "color": WHITE}}
    return evaluate(read_setup(document), entries({"name": "Tern"}), assets).scene.areas.__next__()


def covered(plate):
    """What a plate covers, in mm2, by the names of its paints."""
    layers = [layer for placed in plate.page.areas for node in placed.scene.letterings for layer in node.layers]
    return {layer.paint.name: polygon_of(layer.outline).area for layer in layers}


def test_plain_method_has_one_page_as_it_is(panel):
    (plate,) = plates_of(panel, method())
    assert plate.name == ""
    assert set(covered(plate)) == {"Gold leaf", "White"}


def test_separations_share_the_whole_out_without_overlap(panel):
    composite, *separations = plates_of(panel, method(separations=True))
    by_name = {plate.name: covered(plate)[plate.name] for plate in separations}
    assert list(by_name) == ["White", "Gold leaf"]
    assert sum(by_name.values()) == pytest.approx(covered(composite)["White"], rel=1e-4)


def test_one_color_is_a_single_black_shape(panel):
    (plate,) = plates_of(panel, method(one_color=True))
    assert covered(plate) == {"Black": pytest.approx(covered(plates_of(panel, method())[0])["White"], rel=1e-4)}


@pytest.mark.parametrize(("by_mm", "grows"), [(0.5, True), (-0.5, False)])
def test_underbase_is_grown_or_choked_under_everything(panel, by_mm, grows):
    composite, underbase = plates_of(panel, method(underbase_mm=by_mm))
    assert underbase.name == "underbase"
    whole, white = covered(composite)["White"], covered(underbase)["Underbase white"]
    assert (white > whole) == grows


@pytest.mark.parametrize("by_mm", [-0.3, -1.0, -3.0])
def test_choked_underbase_never_breaks_letters_and_leaves_none_without_white(assets, by_mm):
    document = board()
    document["placements"][0] |= {"typeface": {"fixed": "log-book"}, "least_mm": 12, "most_mm": 12}
    panel = next(evaluate(read_setup(document), entries({"name": "Whimbrel"}), assets).scene.areas)
    composite, underbase = plates_of(panel, method(underbase_mm=by_mm))
    (ink,), (white,) = (
        [layer.outline for area in plate.page.areas for node in area.scene.letterings for layer in node.layers]
        for plate in (composite, underbase)
    )
    inked, under = polygon_of(ink), polygon_of(white)
    assert len(under.geoms) == len(inked.geoms)
    assert 0.4 * inked.area < under.area < 1.0001 * inked.area
    assert under.difference(inked.buffer(0.01)).area < 0.01


def test_mirrored_page_reads_from_the_other_side(panel, assets):
    straight, mirrored = (
        Image.open(io.BytesIO(render_file(plates_of(panel, option)[0].page, assets, "png", dpi=20)))
        for option in (method(), method(mirrored=True))
    )
    here, there, turned = (
        picture.getchannel("A").tobytes()
        for picture in (straight, mirrored, mirrored.transpose(Image.Transpose.FLIP_LEFT_RIGHT))
    )
    off, off_unturned = (sum(abs(a - b) > 90 for a, b in zip(here, other, strict=True)) for other in (turned, there))
    assert off < 0.01 * len(here) < off_unturned


def test_registration_marks_stand_around_the_bleed_and_the_trim_moves_along(panel, assets):
    (plate,) = plates_of(panel, method(registration=True))
    page = plate.page
    assert (page.width_mm, page.trim.left) == (544 + 2 * MARKS_MM, 2 + MARKS_MM)
    with pikepdf.open(io.BytesIO(render_file(page, assets, "pdf", dpi=0))) as pdf:
        boxes = {name: [float(edge) * 25.4 / 72 for edge in pdf.pages[0].obj[name]] for name in BOXES}
    # What lies beyond the bleed, marks, isn't bleed.
    assert boxes["/MediaBox"] == pytest.approx([0, 0, page.width_mm, page.height_mm], abs=1e-4)
    marks = [MARKS_MM, MARKS_MM, page.width_mm - MARKS_MM, page.height_mm - MARKS_MM]
    assert boxes["/BleedBox"] == pytest.approx(marks, abs=1e-4)
    assert boxes["/TrimBox"][0] == pytest.approx(MARKS_MM + 2, abs=1e-4)
    picture = Image.open(io.BytesIO(render_file(page, assets, "png", dpi=100)))
    corner = picture.crop((0, 0, int(MARKS_MM / 25.4 * 100), int(MARKS_MM / 25.4 * 100)))
    assert corner.getchannel("A").getbbox() is not None


def test_spot_colors_are_plates_of_their_name_and_look_the_same(panel, assets):
    page = plates_of(panel, method())[0].page
    plain, spots = (render_file(page, assets, "pdf", dpi=0, colors=PdfColors(spots=on)) for on in (False, True))
    with pikepdf.open(io.BytesIO(spots)) as pdf:
        names = {str(space[1]) for space in pdf.pages[0].Resources.ColorSpace.values()}
    assert names == {"/Gold leaf GL 23", "/White"}
    import pypdfium2

    shown = [pypdfium2.PdfDocument(data)[0].render(scale=0.3).to_pil().tobytes() for data in (plain, spots)]
    assert max(abs(a - b) for a, b in zip(*shown, strict=True)) <= 2


def test_marks_are_registration_color_where_there_are_plates(panel, assets):
    page = plates_of(panel, method(registration=True))[0].page
    for colors in (PdfColors(spots=True), PdfColors(process=True)):
        with pikepdf.open(io.BytesIO(render_file(page, assets, "pdf", dpi=0, colors=colors))) as pdf:
            spaces = {str(space[1]): str(space[2]) for space in pdf.pages[0].Resources.ColorSpace.values()}
        assert spaces["/All"] == "/DeviceCMYK"


@pytest.mark.parametrize(
    ("paints", "names"),
    [
        ([("Red", "R1"), ("Red", "R9")], ["Red R1", "Red R9"]),
        ([("Red", ""), ("Blue", "B2")], ["Red", "Blue"]),
        ([("All", ""), ("None", "")], ["All (ink)", "None (ink)"]),
        ([("Red", "R1"), ("Red", "R1")], ["Red R1", "Red R1 #000001"]),
        ([("", "")], ["#000000"]),
    ],
)
def test_no_two_colors_land_on_one_plate(paints, names):
    made = [Paint(f"#00000{number}", name, reference) for number, (name, reference) in enumerate(paints)]
    assert list(plate_names(made).values()) == names


def test_spots_of_one_name_and_others_of_names_with_a_meaning_are_plates_of_their_own(panel, assets):
    reds = [Paint("#ff0000", "Red", "R1"), Paint("#aa0000", "Red", "R9")]
    paints = [*reds, Paint("#00ff00", "All"), Paint("#0000ff", "None")]
    squares = [Outline.rectangle(Box(10.0 * at, 0, 10.0 * at + 8, 8)) for at in range(4)]
    nodes = tuple(drawn(Layer(square, paint, "ink")) for square, paint in zip(squares, paints, strict=True))
    page = area_page(replace(panel, nodes=nodes))
    data = render_file(page, assets, "pdf", dpi=0, colors=PdfColors(spots=True))
    with pikepdf.open(io.BytesIO(data)) as pdf:
        names = {str(space[1]) for space in pdf.pages[0].Resources.ColorSpace.values()}
    assert names == {"/Red R1", "/Red R9", "/All (ink)", "/None (ink)"}
    assert data.startswith(b"%PDF-1.6")


def test_color_without_process_values_is_found_where_the_method_prints_in_process(assets):
    document = board()
    document["materials"]["methods"]["carving"] |= {"cmyk": True}

    def codes(document):
        return {one.code for one in evaluate(read_setup(document), entries({"name": "Tern"}), assets).verdict.findings}

    assert "no_process" in codes(document)
    for color in document["materials"]["palettes"]["finishes"]["colors"]:
        color["cmyk"] = [0, 20, 80, 10]
    assert "no_process" not in codes(document)


def test_picture_has_no_plate_and_is_found_before(assets):
    document = board()
    document["materials"]["methods"]["carving"] |= {"separations": True}
    values = {"name": "Tern", "with_photo": True}
    evaluation = evaluate(read_setup(document), entries(values, uploads={"photo": upload()}), assets)
    assert "no_contours" in {finding.code for finding in evaluation.verdict.findings}
    photo = next(area for area in evaluation.scene.areas if area.key == "photo")
    with pytest.raises(RenderError, match="plates of one color"):
        plates_of(photo, evaluation.setup.materials.methods["carving"])


def test_process_colors_are_written_as_the_palette_gives_them_and_others_by_the_profile(assets):
    document = board()
    document["materials"]["palettes"]["finishes"]["colors"][0]["cmyk"] = [0, 25.5, 80, 10]
    document["placements"][0]["effects"] = {"stroke": {"width_mm": 2, "color": WHITE}}
    evaluation = evaluate(read_setup(document), entries({"name": "Tern"}), assets)
    page = area_page(next(evaluation.scene.areas))
    process, spots = (
        render_file(page, assets, "pdf", dpi=0, colors=PdfColors(spots=on, process=True)) for on in (False, True)
    )
    with pikepdf.open(io.BytesIO(process)) as pdf:
        content = pdf.pages[0].Contents.read_bytes()
        assert b"0 0.255 0.8 0.1 k" in content
        assert b"0 0 0 0 k" in content
        assert b" rg" not in content
    with pikepdf.open(io.BytesIO(spots)) as pdf:
        by_plate = {str(space[1]): str(space[2]) for space in pdf.pages[0].Resources.ColorSpace.values()}
        assert by_plate == {"/Gold leaf GL 23": "/DeviceCMYK", "/White": "/DeviceCMYK"}


def test_pdf_says_which_rgb_it_has(panel, assets):
    data = render_file(plates_of(panel, method())[0].page, assets, "pdf", dpi=0)
    with pikepdf.open(io.BytesIO(data)) as pdf:
        profile = pdf.Root.OutputIntents[0].DestOutputProfile.read_bytes()
    assert ImageCms.getProfileDescription(ImageCms.ImageCmsProfile(io.BytesIO(profile))).startswith("sRGB")
    assert profile[24:36] == bytes(12)
