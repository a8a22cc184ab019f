"""Placed drawings: outlines in every file, the same in all of them, cut off where the area ends, in one color if told."""

import io
import math

import ezdxf
import pikepdf
import pytest

from tests.core.artwork import samples
from tests.core.conftest import board, entries, sha256_of
from tests.measuring import measure
from yenzo.core.artwork.decode import decode
from yenzo.core.artwork.facts import ArtworkLimits, Preparation
from yenzo.core.documents.artwork import OneColor
from yenzo.core.documents.reading import read_setup
from yenzo.core.errors import AssetError
from yenzo.core.evaluation import evaluate
from yenzo.core.planning.plates import plates_of
from yenzo.core.render.files import render_file
from yenzo.core.render.page import area_page, side_page
from yenzo.core.render.pdf import PdfColors
from yenzo.core.render.svg import ink_markup
from yenzo.core.shapes.polygons import polygon_of

# A little turned: edges that run with the pixels are measured less exactly.
PLAIN = '<rect x="8" y="6" width="60" height="40" fill="#aa3300" transform="rotate(4)"/><circle cx="70" cy="30" r="22" fill="#203a5c"/>'


class MadeAssets:
    """The tests' assets and whatever was prepared on the spot."""

    def __init__(self, assets, **made):
        self._assets, self._made = assets, made

    def read(self, sha256):
        return self._made[sha256] if sha256 in self._made else self._assets.read(sha256)


@pytest.fixture
def crest(assets, tmp_path):
    """Returns what follows for a drawing in the photo's area: the evaluation and its assets."""

    def evaluated(inside, *, wanted=None, field=None, placement=None, area=None, method=None, colors=None):
        path = tmp_path / "crest.svg"
        path.write_bytes(samples.svg(inside))
        made = decode(path, "crest.svg", ArtworkLimits(), wanted or Preparation(), tmp_path)
        digest = sha256_of(made.prepared)
        document = board()
        document["fields"][3] |= {"kinds": ["svg", "pdf", "png"], **(field or {})}
        document["placements"][1] |= placement or {}
        document["sides"][0]["areas"][1] |= area or {}
        document["materials"]["methods"]["carving"] |= method or {}
        upload = {
            "name": "crest.svg",
            "original": digest,
            "prepared": digest,
            "kind": "svg",
            "form": made.facts.form,
            "one_color": wanted is not None and wanted.one_color is not None,
            "width_px": made.facts.width_px,
            "height_px": made.facts.height_px,
            "see_through": made.facts.see_through,
        }
        values = {"name": "Tern", "with_photo": True, **(colors or {})}
        own = MadeAssets(assets, **{digest: made.prepared})
        return evaluate(read_setup(document), entries(values, uploads={"photo": upload}), own), own

    return evaluated


def photo_area(evaluation):
    return next(area for area in evaluation.scene.areas if area.key == "photo")


@pytest.mark.parametrize(
    ("inside", "options", "endings"),
    [
        (PLAIN, {}, ("svg", "png")),
        (samples.LOGO, {"area": {"shape": {"kind": "ellipse"}}}, ("svg", "png")),
        (PLAIN.replace("#203a5c", "#aa3300"), {"placement": {"fit": "contain"}}, ("svg", "dxf", "png")),
    ],
)
def test_all_files_have_the_same_outlines(crest, tmp_path, inside, options, endings):
    evaluation, own = crest(inside, **options)
    page, files = area_page(photo_area(evaluation)), {}
    for ending in ("pdf", *endings):
        files[ending] = tmp_path / f"area.{ending}"
        files[ending].write_bytes(render_file(page, own, ending, dpi=300))
    for ending in endings:
        size = f"{page.width_mm:g}x{page.height_mm:g}" if ending == "dxf" else None
        found = measure(files["pdf"], files[ending], dpi=300, size_b=size)
        assert found["p99.9_mm"] <= (0.1 if ending == "png" else 0.03), ending
        assert abs(found["area_diff_pct"]) <= 0.2, ending


def test_dxf_ends_where_the_bleed_does(crest, tmp_path):
    evaluation, own = crest('<rect width="100" height="60"/>')
    path = tmp_path / "area.dxf"
    path.write_bytes(render_file(area_page(photo_area(evaluation)), own, "dxf", dpi=0))
    (contour,) = ezdxf.readfile(path).modelspace()
    assert sorted(contour.vertices()) == [(0, 0), (0, 64), (84, 0), (84, 64)]


def test_files_hold_no_picture_of_it(crest):
    evaluation, own = crest(PLAIN)
    page = area_page(photo_area(evaluation))
    with pikepdf.open(io.BytesIO(render_file(page, own, "pdf", dpi=0))) as pdf:
        assert not pdf.pages[0].get_images()
    assert b"<image" not in render_file(page, own, "svg", dpi=0)


def test_preview_refers_to_a_heavy_drawing_and_draws_a_light_one(crest):
    evaluation, _ = crest(PLAIN)
    page = side_page(evaluation.scene.sides[0], with_goods=False)
    node = next(photo_area(evaluation).drawings)
    assert "<image" not in ink_markup(page, str, node.drawing.point_count)
    assert f'href="{node.asset}"' in ink_markup(page, str, node.drawing.point_count - 1)


def test_it_covers_or_fits_its_area_as_pictures_do(crest):
    covering = next(photo_area(crest(PLAIN)[0]).drawings)
    assert covering.size_mm == (pytest.approx(64 * 100 / 60), pytest.approx(64))
    fitting = next(photo_area(crest(PLAIN, placement={"fit": "contain"})[0]).drawings)
    assert fitting.size_mm == (pytest.approx(72), pytest.approx(43.2))


def test_one_color_is_the_customers_and_undecided_until_chosen(crest):
    one = {"placement": {"color": {"field": "finish"}}}
    evaluation, _ = crest(PLAIN, **one)
    assert {layer.paint.name for layer in next(photo_area(evaluation).drawings).layers} == {"Gold leaf"}
    evaluation, _ = crest(PLAIN, colors={"finish": ""}, **one)
    assert "undecided" in {finding.code for finding in evaluation.verdict.findings if finding.field == "photo"}


def test_plates_of_a_drawing_end_where_the_bleed_does_and_leave_out_what_is_covered(crest):
    evaluation, _ = crest(PLAIN, method={"separations": True, "underbase_mm": 0})
    area = photo_area(evaluation)
    plates = {
        plate.name: plate.page.areas[0].scene
        for plate in plates_of(area, evaluation.setup.materials.methods["carving"])
    }
    red, blue, under = (
        polygon_of(next(plates[name].letterings).outline).area for name in ("#aa3300", "#203a5c", "underbase")
    )
    assert red + blue == pytest.approx(under, rel=1e-3)
    unit = next(area.drawings).scale * 75
    assert blue < math.pi * 22**2 * unit**2
    assert next(plates["underbase"].letterings).outline.bounds.within(area.bleed) == pytest.approx(
        next(plates["underbase"].letterings).outline.bounds, abs=0.01
    )


def test_thin_line_and_narrow_gap_are_found_at_their_size(crest):
    striped = '<rect x="10" y="10" width="80" height="2"/><rect x="10" y="13" width="80" height="20"/>'
    evaluation, _ = crest(striped, method={"least_stroke_mm": 3, "least_gap_mm": 2}, placement={"fit": "contain"})
    found = {finding.code: finding for finding in evaluation.verdict.findings if finding.field == "photo"}
    assert found["too_thin"].measured == pytest.approx(2 * 0.72, rel=0.02)
    assert "thinnest line of “crest.svg” would be 1.44 mm" in found["too_thin"].message
    evaluation, _ = crest(striped, method={"least_stroke_mm": 1.4}, placement={"fit": "contain"})
    assert not [finding for finding in evaluation.verdict.findings if finding.field == "photo"]


def test_details_without_number_are_refused_where_a_tool_must_follow_them(crest):
    lines = "".join(f'<path d="M{n / 4} 0L{90 - n / 4} 60L{n / 4 + 1} 60L{91 - n / 4} 0Z"/>' for n in range(160))
    evaluation, _ = crest(lines, method={"files": ["dxf"]})
    assert "too_detailed" in {finding.code for finding in evaluation.verdict.findings}


def test_more_colors_than_the_method_has_are_found(crest):
    evaluation, _ = crest(PLAIN, method={"most_colors": 1})
    (finding,) = (finding for finding in evaluation.verdict.findings if finding.field == "photo")
    assert finding.message.startswith("With “crest.svg” there are 2 colors on “Photo”")


def test_field_that_wants_one_color_takes_nothing_else(crest):
    one = {"threshold": 50}
    evaluation, _ = crest(PLAIN, field={"one_color": one})
    assert [problem.code for problem in evaluation.verdict.problems] == ["not_one_color"]
    evaluation, _ = crest(PLAIN, field={"one_color": one}, wanted=Preparation(one_color=OneColor()))
    assert not evaluation.verdict.problems


def test_see_through_picture_is_told_and_lies_on_white_where_the_method_has_none(crest, assets):
    evaluation, own = crest(
        '<rect width="60" height="60" fill="#203a5c" opacity=".5"/>', method={"transparency": False, "least_dpi": 1}
    )
    (finding,) = (found for found in evaluation.verdict.findings if found.field == "photo")
    assert (finding.code, evaluation.verdict.blocked) == ("see_through", False)
    page = area_page(photo_area(evaluation))
    soft, flat = (render_file(page, own, "pdf", dpi=0, colors=PdfColors(transparency=on)) for on in (True, False))
    masks = []
    for data in (soft, flat):
        with pikepdf.open(io.BytesIO(data)) as pdf:
            masks.append(["/SMask" in picture for picture in pdf.pages[0].get_images().values()])
    assert masks == [[True], [False]]


def test_asset_that_is_no_drawing_is_told_in_words(assets):
    digest = board()["sides"][0]["picture"]["asset"]
    upload = {"name": "a.svg", "original": digest, "prepared": digest, "kind": "svg", "form": "drawing"}
    given = entries({"name": "A", "with_photo": True}, uploads={"photo": {**upload, "width_px": 9, "height_px": 9}})
    with pytest.raises(AssetError, match="can't be read"):
        evaluate(read_setup(board()), given, assets)
