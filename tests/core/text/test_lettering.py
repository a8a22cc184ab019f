import json
import subprocess

import pytest
from hypothesis import given
from hypothesis import strategies as st

from tests.core.conftest import TYPEFACES
from tests.core.text.fonts import variable_font
from tests.sweeping import examples
from yenzo.core.errors import TypefaceError
from yenzo.core.shapes.box import Box
from yenzo.core.text.fonts import Font
from yenzo.core.text.line import fit_line
from yenzo.core.text.shaping import outline_of, shape_line
from yenzo.core.text.styles import TextStyle

SHIPPED = sorted(path.stem for path in TYPEFACES.glob("*.ttf"))
FONTS = {name: Font((TYPEFACES / f"{name}.ttf").read_bytes(), name) for name in SHIPPED}
BOX = Box(0, 0, 500, 90)


@pytest.mark.parametrize("name", SHIPPED)
@pytest.mark.parametrize("text", ["Wind & Whey", "AVATAR Tofu fjord", "Étude n° 7"])
def test_shaping_equals_an_outside_shaper_glyph_for_glyph(name, text):
    command = [
        "hb-shape",
        "--no-glyph-names",
        "--no-clusters",
        "--output-format=json",
        str(TYPEFACES / f"{name}.ttf"),
        text,
    ]
    output = subprocess.run(command, capture_output=True, text=True, check=True).stdout
    outside = json.loads(output)
    ours = shape_line(FONTS[name], text)
    assert [glyph.glyph_id for glyph in ours.glyphs] == [glyph["g"] for glyph in outside]
    advance = sum(glyph["ax"] for glyph in outside) / FONTS[name].units_per_em
    assert ours.advance_em == pytest.approx(advance)


def test_mixed_directions_are_laid_out_in_visual_order():
    font = FONTS["levant"]
    mixed = shape_line(font, "ab مرحبا cd")
    arabic = [glyph.glyph_id for glyph in shape_line(font, "مرحبا").glyphs]
    ids = [glyph.glyph_id for glyph in mixed.glyphs]
    start = ids.index(arabic[0])
    assert ids[start : start + len(arabic)] == arabic
    assert ids[0] == font.glyph_of("a")
    assert [glyph.x_em for glyph in mixed.glyphs] == sorted(glyph.x_em for glyph in mixed.glyphs)


def test_missing_characters_are_named_whole():
    assert shape_line(FONTS["quayside"], "a船b😀船").missing == ("船", "😀")


@pytest.mark.parametrize("name", SHIPPED)
def test_letter_height_is_the_ink_of_capital_h(name):
    font = FONTS[name]
    line = fit_line(font, "H", Box(0, 0, 1000, 1000), TextStyle(20, 20))
    assert line.outline.bounds.height == pytest.approx(20, abs=1e-6)


@examples(60)
@given(
    st.text(st.characters(codec="latin-1", categories=("L", "N", "P", "Zs")), min_size=1, max_size=30),
    st.sampled_from(SHIPPED),
    st.floats(5, 900),
    st.floats(5, 300),
    st.sampled_from(["left", "center", "right"]),
    st.sampled_from(["top", "middle", "bottom", "capitals"]),
)
def test_fitted_ink_never_leaves_its_box_above_the_least_height(text, name, width, height, align, vertical):
    box = Box(7, 11, 7 + width, 11 + height)
    line = fit_line(FONTS[name], text, box, TextStyle(0.001, 80, align, vertical))
    if line.outline:
        assert line.outline.bounds.excess_over(box) <= 0.01
    assert line.letter_height_mm <= 80 + 1e-9


@pytest.mark.parametrize("name", ["quayside", "log-book", "bowline"])
@pytest.mark.parametrize("text", ["Hg", "ÅH", "Hgjpqy", "Ho"])
def test_names_of_a_set_have_their_base_line_at_one_height(name, text):
    def base_of(text, vertical):
        """Where the base line lies: below H by what this stands above it."""
        laid = fit_line(FONTS[name], text, BOX, TextStyle(9, 9, "left", vertical))
        alone = outline_of(FONTS[name], text)[0].bounds
        return laid.outline.bounds.bottom - alone.bottom * 9 / FONTS[name].letter_height_em

    assert base_of(text, "capitals") == pytest.approx(base_of("H", "capitals"), abs=1e-6)
    assert base_of("H", "capitals") == pytest.approx(BOX.middle[1] + 4.5, abs=1e-6)
    if text != "Ho":
        assert base_of(text, "middle") != pytest.approx(base_of("H", "middle"), abs=0.1)


def test_text_too_long_for_the_least_height_keeps_it_and_sticks_out():
    line = fit_line(FONTS["quayside"], "W" * 40, BOX, TextStyle(30, 80))
    assert line.letter_height_mm == pytest.approx(30)
    assert line.outline.bounds.excess_over(BOX) > 100


@pytest.mark.parametrize("data", [b"", b"not a font", b"\x00\x01\x00\x00" + b"\x00" * 200])
def test_file_that_is_no_font_is_refused(data):
    with pytest.raises(TypefaceError):
        Font(data, "broken.ttf")


def test_variable_font_is_drawn_at_its_named_instance():
    data = variable_font()
    regular, bold = Font(data, "Vary"), Font(data, "Vary", "Bold")
    widths = [outline_of(font, "HH")[0].bounds.width for font in (regular, bold)]
    assert widths == pytest.approx([0.3, 0.5])
    with pytest.raises(TypefaceError, match=r"has no instance “Black”. It has: Bold\."):
        Font(data, "Vary", "Black")
    with pytest.raises(TypefaceError, match="isn't a variable font"):
        Font((TYPEFACES / "quayside.ttf").read_bytes(), "quayside", "Bold")


@pytest.mark.parametrize("letter", ["ሀ", "ก", "க", "Ꭰ", "あ", "Н"])
def test_face_of_one_script_is_measured_by_the_letter_that_stands_for_it(letter):
    assert Font(variable_font(letter), "own").letter_height_em == pytest.approx(0.7)


def test_face_without_any_letter_that_could_be_measured_is_refused_in_words():
    with pytest.raises(TypefaceError, match="has no letter to measure its height by"):
        Font(variable_font("★"), "stars")
