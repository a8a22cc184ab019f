"""SVG and PDF drawings: they stay outlines, look as they did, and what can't stay outlines is said."""

import io
import subprocess

import numpy as np
import pytest
import shapely
from PIL import Image, ImageChops, ImageFilter

from tests.core.artwork import samples
from yenzo.core.artwork.decode import decode
from yenzo.core.artwork.drawing import read_drawing, write_drawing
from yenzo.core.artwork.facts import ArtworkLimits, Preparation
from yenzo.core.artwork.inspect import inspect_artwork
from yenzo.core.documents.artwork import OneColor
from yenzo.core.errors import ArtworkError, AssetError
from yenzo.core.shapes.flattening import covered_by

FILLED = '<rect width="50" height="50" fill="url(#g)"/>'


@pytest.fixture
def prepared(tmp_path):
    def prepare(data, limits=None, **wanted):
        path = tmp_path / "file"
        path.write_bytes(data)
        return decode(path, "crest.svg", limits or ArtworkLimits(), Preparation(**wanted), tmp_path)

    return prepare


def seen(svg, width=500):
    """A drawing as an outside program shows it, on white."""
    command = ["rsvg-convert", f"--width={width}", f"--height={width}", "--keep-aspect-ratio"]
    shown = subprocess.run(command, input=svg, capture_output=True, check=True).stdout
    picture = Image.open(io.BytesIO(shown)).convert("RGBA")
    return Image.alpha_composite(Image.new("RGBA", picture.size, "white"), picture).convert("RGB")


def test_drawing_looks_as_it_did(prepared):
    made = prepared(samples.svg(samples.LOGO))
    assert made.facts.form == "drawing"
    assert (made.facts.width_px, made.facts.height_px) == (7500, 4500)
    assert made.facts.notes == ()
    difference = ImageChops.difference(seen(samples.svg(samples.LOGO)), seen(made.prepared)).convert("L")
    assert max(difference.filter(ImageFilter.MinFilter(3)).getextrema()) <= 4


def test_kept_drawing_is_plain_svg_and_reads_back_the_same(prepared):
    kept = prepared(samples.svg(samples.LOGO)).prepared
    assert b"style" not in kept
    assert b"clip" not in kept
    drawing = read_drawing(kept, "a")
    assert write_drawing(drawing) == kept
    assert [part.color for part in drawing.parts][:3] == ["#aa3300", "#000080", "#1a8033"]
    assert sum(part.blend is not None for part in drawing.parts) == 1


def test_area_of_a_clipped_part_is_the_outside_library_s(prepared):
    drawing = read_drawing(prepared(samples.svg(samples.LOGO)).prepared, "a")
    clipped = next(part.outline for part in drawing.parts if part.color == "#1a8033")
    circle = np.array([[np.cos(a), np.sin(a)] for a in np.linspace(0, 2 * np.pi, 2000)]) * 20 + (50, 30)
    turn = np.deg2rad(10)
    corners = np.array([[40, 10], [90, 10], [90, 40], [40, 40]]) - (50, 30)
    turned = corners @ np.array([[np.cos(turn), np.sin(turn)], [-np.sin(turn), np.cos(turn)]]) + (50, 30)
    expected = shapely.Polygon(circle).intersection(shapely.Polygon(turned)).area * 75**2
    assert covered_by(clipped).area == pytest.approx(expected, rel=1e-3)


@pytest.mark.parametrize(
    ("inside", "reason"),
    [
        ('<rect width="50" height="50" fill="red" opacity=".5"/>', "see-through parts"),
        ('<rect width="50" height="50" fill="red" fill-opacity=".5"/>', "see-through parts"),
        (
            '<filter id="f"><feGaussianBlur stdDeviation="2"/></filter><rect width="50" height="50" filter="url(#f)"/>',
            "blurred parts",
        ),
        (
            '<radialGradient id="g"><stop stop-color="red"/><stop offset="1"/></radialGradient>' + FILLED,
            "colors that go over in rings",
        ),
        (
            '<linearGradient id="g"><stop stop-color="red"/><stop offset=".5"/><stop offset="1" stop-color="red"/>'
            + ("</linearGradient>" + FILLED),
            "colors that go over into several others",
        ),
    ],
)
def test_what_cannot_stay_outlines_becomes_a_picture_and_says_so(prepared, inside, reason):
    made = prepared(samples.svg(inside))
    assert made.facts.form == "picture"
    assert made.facts.notes == (f"It has {reason}, so it is used as a picture.",)
    assert max(Image.open(io.BytesIO(made.prepared)).size) == (2400 if "filter" in inside else 4000)


def test_drawing_of_too_many_points_becomes_a_picture(prepared):
    made = prepared(samples.svg(samples.LOGO), ArtworkLimits(most_points=30))
    assert made.facts.notes == ("It has very many fine details, so it is used as a picture.",)


def test_drawing_that_moves_says_how_it_is_used(prepared):
    moving = '<rect width="50" height="50"><animate attributeName="x" to="9" dur="1s"/></rect>'
    assert prepared(samples.svg(moving)).facts.notes == ("It moves; it is used as it looks at the beginning.",)


def test_page_of_a_pdf_is_chosen(prepared):
    first, second = (read_drawing(prepared(samples.pdf(pages=3), page=page).prepared, "a") for page in (1, 2))
    assert [part.color for part in first.parts] == ["#ff0000"]
    assert first.bounds == pytest.approx((750, 1500, 4500, 3750), abs=0.1)
    assert second.bounds == pytest.approx((1500, 2250, 6000, 3000), abs=0.1)
    assert prepared(samples.pdf(pages=3), page=2).facts.notes == ("Page 2 of 3 is used.",)
    with pytest.raises(ArtworkError, match="has only 3 pages"):
        prepared(samples.pdf(pages=3), page=4)


def test_pdf_is_cut_at_its_crop_box_and_turned_as_it_says(prepared):
    document = samples.pikepdf.open(io.BytesIO(samples.pdf()))
    document.pages[0].CropBox = samples.pikepdf.Array([10, 10, 60, 40])
    document.pages[0].Rotate = 90
    drawing = read_drawing(prepared(samples.saved_pdf(document)).prepared, "a")
    assert (drawing.width, drawing.height) == (4500, 7500)
    assert drawing.bounds == pytest.approx((0, 0, 4500, 7500), abs=1)


def test_trimmed_drawing_is_as_large_as_its_ink(prepared):
    made = prepared(samples.pdf(), trim=True)
    assert made.facts.wishes == ("trim",)
    assert (made.facts.width_px, made.facts.height_px) == (7500, 4500)
    assert read_drawing(made.prepared, "a").bounds == pytest.approx((0, 0, 7500, 4500), abs=0.1)


def test_drawing_in_one_color_loses_its_light_parts(prepared):
    target = '<circle cx="50" cy="30" r="20"/><circle cx="50" cy="30" r="10" fill="#fff"/>'
    made = prepared(samples.svg(target), one_color=OneColor(threshold=50))
    (part,) = read_drawing(made.prepared, "a").parts
    assert covered_by(part.outline).area == pytest.approx(np.pi * (20**2 - 10**2) * 75**2, rel=1e-3)
    with pytest.raises(ArtworkError, match="nothing dark enough"):
        prepared(samples.svg('<rect width="9" height="9" fill="#eee"/>'), one_color=OneColor())


def test_flattened_on_request(prepared):
    assert prepared(samples.svg(samples.LOGO), as_picture=True).facts.form == "picture"


@pytest.mark.parametrize(
    "data",
    [
        b"no svg",
        b"<html/>",
        b'<svg xmlns="http://www.w3.org/2000/svg" width="a" height="1"/>',
        b'<svg xmlns="http://www.w3.org/2000/svg" width="1" height="1"><path fill="#000000" d="M1 2L3"/></svg>',
        b'<svg xmlns="http://www.w3.org/2000/svg" width="1" height="1"><path fill="red" d="M1 2L3 4Z"/></svg>',
        b'<svg xmlns="http://www.w3.org/2000/svg" width="1" height="1"><path fill="url(#x)" d="M1 2L3 4Z"/></svg>',
    ],
)
def test_any_other_file_is_no_drawing(data):
    with pytest.raises(AssetError, match="can't be read"):
        read_drawing(data, "a")


def test_spot_colors_of_a_pdf_are_told(tmp_path):
    (tmp_path / "logo.pdf").write_bytes(samples.pdf_with_spots("Sea Blue", "All", "Rust 7"))
    made = inspect_artwork(tmp_path / "logo.pdf")
    assert "Its spot colors (Sea Blue, Rust 7)" in " ".join(made.facts.notes)
    (tmp_path / "plain.pdf").write_bytes(samples.pdf())
    assert "spot" not in " ".join(inspect_artwork(tmp_path / "plain.pdf").facts.notes)


def test_forms_that_hold_each_other_are_looked_at_once(tmp_path):
    (tmp_path / "forms.pdf").write_bytes(samples.pdf_of_forms_in_each_other(40))
    assert "(Sea Blue)" in " ".join(inspect_artwork(tmp_path / "forms.pdf").facts.notes)


def test_black_ink_alone_of_a_pdf_stays_black(tmp_path):
    (tmp_path / "black.pdf").write_bytes(samples.pdf(b"0 0 0 1 k 10 10 50 30 re f"))
    drawing = read_drawing(inspect_artwork(tmp_path / "black.pdf").prepared, "black.pdf")
    assert [part.color for part in drawing.parts] == ["#000000"]
