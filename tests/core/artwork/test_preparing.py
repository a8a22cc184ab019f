"""Pictures: coding, color, border, ground, and outlines of one color."""

import io
import math

import numpy as np
import pytest
from PIL import Image, ImageCms, ImageDraw

from tests.core.artwork import samples
from yenzo.core.artwork.decode import decode
from yenzo.core.artwork.drawing import read_drawing
from yenzo.core.artwork.facts import ArtworkLimits, Preparation
from yenzo.core.artwork.inspect import inspect_artwork
from yenzo.core.documents.artwork import OneColor
from yenzo.core.errors import ArtworkError
from yenzo.core.shapes.flattening import covered_by, flattened


@pytest.fixture
def prepared(tmp_path):
    def prepare(data, **wanted):
        path = tmp_path / "file"
        path.write_bytes(data)
        return decode(path, "crest.png", ArtworkLimits(), Preparation(**wanted), tmp_path)

    return prepare


def pixels(made):
    return Image.open(io.BytesIO(made.prepared))


def test_heic_photo_is_opened_by_its_converter(tmp_path):
    path = tmp_path / "photo"
    path.write_bytes(samples.heic(tmp_path))
    made = inspect_artwork(path)
    assert (made.facts.kind, made.facts.width_px, made.facts.height_px) == ("heic", 64, 48)
    assert pixels(made).getpixel((30, 20)) == pytest.approx((0xC0, 0x20, 0x30), abs=4)


def test_tiff_of_pages_and_sixteen_bits_says_what_is_used(prepared):
    deep = Image.fromarray(np.full((20, 30), 0x8000, dtype=np.uint16))
    output = io.BytesIO()
    deep.save(output, "TIFF", save_all=True, append_images=[Image.new("L", (40, 20), 200)])
    first = prepared(output.getvalue())
    assert first.facts.notes == ("Page 1 of 2 is used.", "It has 16 bits a color; 8 are used.")
    assert pixels(first).getpixel((3, 3)) == (128, 128, 128)
    second = prepared(output.getvalue(), page=2)
    assert (second.facts.pages, second.facts.width_px) == (2, 40)
    with pytest.raises(ArtworkError, match="has only 2 pages"):
        prepared(output.getvalue(), page=3)


@pytest.mark.parametrize("mode", ["CMYK", "LAB", "RGBA", "L", "1", "P"])
def test_tiff_of_any_mode_becomes_srgb(prepared, mode):
    color = {"CMYK": (0, 255, 255, 0), "LAB": (136, 208, 195), "RGBA": (255, 0, 0, 255), "L": 76, "1": 1, "P": 5}[mode]
    red, green, blue = (
        pixels(prepared(samples.picture(kind="TIFF", mode=mode, color=color))).convert("RGB").getpixel((9, 9))
    )
    if mode in {"CMYK", "LAB", "RGBA"}:
        assert red > 220
        assert max(green, blue) < 60


def test_profile_is_applied_and_a_broken_one_left_out(prepared):
    lab = ImageCms.createProfile("XYZ")
    assert lab is not None
    broken = prepared(samples.picture(color="#336699", icc_profile=b"no profile at all"))
    assert broken.facts.notes == ("Its color profile is broken and was left out.",)
    assert pixels(broken).getpixel((5, 5)) == pytest.approx((0x33, 0x66, 0x99), abs=2)
    srgb = ImageCms.ImageCmsProfile(ImageCms.createProfile("sRGB")).tobytes()
    assert prepared(samples.picture(color="#336699", icc_profile=srgb)).facts.notes == ()


def test_empty_border_is_offered_and_cut_off_on_request(prepared):
    picture = Image.new("RGBA", (200, 100))
    ImageDraw.Draw(picture).rectangle([40, 20, 159, 69], fill="navy")
    output = io.BytesIO()
    picture.save(output, "PNG")
    assert prepared(output.getvalue()).facts.wishes == ("trim",)
    assert pixels(prepared(output.getvalue(), trim=True)).size == (120, 50)
    assert pixels(prepared(output.getvalue())).size == (200, 100)


def test_plain_ground_is_taken_away_up_to_the_edge_and_not_inside(prepared):
    made = prepared(samples.logo_picture(), no_ground=True, trim=True)
    assert set(made.facts.wishes) == {"trim", "no_ground"}
    picture = pixels(made)
    assert picture.mode == "RGBA"
    assert picture.size == pytest.approx((140, 140), abs=4)
    middle = picture.width // 2
    # The patch inside the ring has the ground's color but doesn't hang together with it.
    assert picture.getpixel((middle, middle)) == (255, 255, 255, 255)
    assert picture.getpixel((2, 2))[3] == 0
    ring = picture.getpixel((middle, 14))
    assert ring == (0x20, 0x30, 0x40, 255)
    soft = [pixel for pixel in picture.crop((0, 0, picture.width, 6)).get_flattened_data() if 0 < pixel[3] < 255]
    assert soft
    # The ground's white is taken out of the pixels along the edge: they are as dark as the ring.
    assert max(pixel[0] for pixel in soft if pixel[3] > 60) < 0x20 + 70


def test_photo_without_a_plain_ground_has_no_such_offer(prepared):
    noise = Image.effect_noise((80, 60), 90).convert("RGB")
    output = io.BytesIO()
    noise.save(output, "PNG")
    assert prepared(output.getvalue()).facts.wishes == ()
    assert pixels(prepared(output.getvalue(), no_ground=True)).mode == "RGB"


def test_traced_outline_is_smooth_and_near_the_edge(prepared):
    made = prepared(samples.logo_picture((600, 400)), one_color=OneColor(threshold=50, smoothness=1))
    assert made.facts.form == "drawing"
    drawing = read_drawing(made.prepared, "a")
    (part,) = drawing.parts
    assert len(part.outline.points) <= 80
    scale = 7500 / 600
    assert covered_by(part.outline).area == pytest.approx(math.pi * (140**2 - 70**2) * scale**2, rel=0.01)
    outer = max(flattened(part.outline), key=len)
    away = np.hypot(*(outer / scale - (300, 200)).T)
    assert np.abs(away - away.mean()).max() < 0.8


def test_tracing_takes_more_in_when_told_and_refuses_noise(prepared):
    steps = Image.new("RGB", (300, 100), "white")
    draw = ImageDraw.Draw(steps)
    for left, gray in ((20, 40), (120, 120), (220, 200)):
        draw.rectangle([left, 20, left + 60, 80], fill=(gray,) * 3)
    output = io.BytesIO()
    steps.save(output, "PNG")

    def count(threshold):
        made = prepared(output.getvalue(), one_color=OneColor(threshold=threshold, smoothness=0))
        return read_drawing(made.prepared, "a").parts[0].outline.verbs.count("M")

    assert [count(threshold) for threshold in (30, 60, 90)] == [1, 2, 3]
    with pytest.raises(ArtworkError, match="nothing dark enough"):
        prepared(output.getvalue(), one_color=OneColor(threshold=5))
    noise = io.BytesIO()
    Image.effect_noise((900, 900), 120).save(noise, "PNG")
    with pytest.raises(ArtworkError, match="too many fine details"):
        prepared(noise.getvalue(), one_color=OneColor(smoothness=0))


def quarters():
    """A picture of 60 by 40 whose top left quarter is red, on a blue that shows elsewhere."""
    picture = Image.new("RGB", (60, 40), "#2040c0")
    picture.paste("#c02020", (0, 0, 30, 20))
    output = io.BytesIO()
    picture.save(output, "PNG")
    return output.getvalue()


@pytest.mark.parametrize(
    ("turns", "size", "red"), [(1, (40, 60), (39, 0)), (2, (60, 40), (59, 39)), (3, (40, 60), (0, 59))]
)
def test_picture_is_turned_clockwise_by_quarters(prepared, turns, size, red):
    made = prepared(quarters(), quarter_turns=turns)
    assert (made.facts.width_px, made.facts.height_px) == size
    assert pixels(made).getpixel(red)[0] > 180


def test_picture_is_cut_after_it_was_turned(prepared):
    made = prepared(quarters(), quarter_turns=1, crop=(0.5, 0, 1, 0.5))
    assert (made.facts.width_px, made.facts.height_px) == (20, 30)
    assert pixels(made).convert("RGB").getcolors()[0][1][0] > 180


def test_drawing_is_turned_and_cut_as_outlines(prepared):
    svg = b'<svg xmlns="http://www.w3.org/2000/svg" width="60" height="40"><rect width="30" height="20" fill="#c02020"/><rect x="30" width="30" height="40"/></svg>'
    whole = read_drawing(prepared(svg, quarter_turns=1).prepared, "crest")
    assert whole.width / whole.height == pytest.approx(40 / 60, abs=1e-3)
    part = read_drawing(prepared(svg, crop=(0, 0, 0.5, 0.5)).prepared, "crest")
    assert [one.color for one in part.parts] == ["#c02020"]
    assert part.bounds == pytest.approx((0, 0, part.width, part.height), abs=2)


def test_what_leaves_nothing_is_refused(prepared):
    with pytest.raises(ValueError, match="leaves nothing"):
        Preparation(crop=(0.5, 0, 0.5, 1))
    svg = b'<svg xmlns="http://www.w3.org/2000/svg" width="60" height="40"><rect width="30" height="20"/></svg>'
    with pytest.raises(ArtworkError, match="cut less off"):
        prepared(svg, crop=(0.6, 0.6, 1, 1))
