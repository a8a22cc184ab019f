"""Shaping equals an outside shaper's, glyph for glyph and place for place, over all shipped typefaces and many scripts."""

import json
import subprocess

import pytest

from tests.core.conftest import TYPEFACES
from tests.core.text.test_lettering import FONTS, SHIPPED
from yenzo.core.text.shaping import shape_line

NAMES = (
    "Halcyon",
    "AVATAR",
    "Tofu fjord",
    "Wind & Whey",
    "Étude n° 7",
    "Søster Åse",
    "Łódź",
    "Brêche",
    "ﬁnally",
    "L’Été",
)
LATIN = (
    *NAMES,
    *(name.upper() for name in NAMES),
    *(f"{name} {year}" for name, year in zip(NAMES, range(1903, 2000, 10), strict=False)),
    "office affluent waffle",
    "Port Hallow",
    "To. Ta, Ty; LT PA AV",
    "1234567890",
    "0O1lI| «quoted» “quoted”",
)
OTHERS = (
    *("Чайка", "Морская звезда", "Ёлка 1917"),
    *("Γαλήνη", "Θάλασσα μου", "Ἀθῆναι"),
    *("مرحبا", "بالعالم", "لا إله", "سفينة البحر"),
    *("שלום", "ים התיכון", "סירה"),
    *("नमस्ते", "समुद्र", "हिन्दी क्षत्रिय", "श्री"),
)


def outside(name, texts, folder):
    """What hb-shape makes of texts, a list of glyphs for each."""
    lines = folder / "texts.txt"
    lines.write_text("\n".join(texts) + "\n")
    options = ["--no-glyph-names", "--no-clusters", "--output-format=json", f"--text-file={lines}"]
    command = ["hb-shape", *options, str(TYPEFACES / f"{name}.ttf")]
    output = subprocess.run(command, capture_output=True, text=True, check=True).stdout
    return [json.loads(line) for line in output.splitlines()]


@pytest.mark.parametrize("name", SHIPPED)
def test_shaping_is_the_same_glyph_for_glyph_and_place_for_place(name, tmp_path):
    font = FONTS[name]
    texts = [text for text in (*LATIN, *OTHERS) if not shape_line(font, text).missing]
    assert len(texts) > 20
    for text, glyphs in zip(texts, outside(name, texts, tmp_path), strict=True):
        ours, pen, theirs = shape_line(font, text), 0, []
        for glyph in glyphs:
            theirs.append((glyph["g"], pen + glyph["dx"], -glyph["dy"]))
            pen += glyph["ax"]
        em = font.units_per_em
        assert [(g.glyph_id, round(g.x_em * em), round(g.y_em * em)) for g in ours.glyphs] == theirs, text


def test_sample_is_large_enough():
    pairs = sum(not shape_line(FONTS[name], text).missing for name in SHIPPED for text in (*LATIN, *OTHERS))
    assert pairs >= 500
