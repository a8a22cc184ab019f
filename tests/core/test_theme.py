"""The theme of a shop: what can't be read is refused in words, all else becomes variables of the stylesheet."""

import pytest
from hypothesis import given
from hypothesis import strategies as st

from tests.sweeping import examples
from yenzo.core.scene.contrast import contrast_of
from yenzo.core.theme import LEAST_CONTRAST, Theme, mixed

COLORS = st.from_regex(r"#[0-9a-f]{6}", fullmatch=True)


def test_theme_as_it_ships_can_be_read():
    assert list(Theme().problems()) == []


@pytest.mark.parametrize(
    ("values", "what"),
    [
        ({"ink": "#999999"}, "The words on the ground"),
        ({"ink": "#dddddd", "paper": "#111111"}, "White words on the main buttons"),
        ({"accent": "#e0c040"}, "Links on the ground"),
        ({"paper": "#9a9a9a"}, "Small print and messages on the ground"),
    ],
)
def test_what_cant_be_read_is_said_with_its_contrast(values, what):
    assert any(one.startswith(what) and "4.5" in one for one in Theme(**values).problems())


@examples(60)
@given(COLORS, COLORS, COLORS)
def test_no_theme_without_problems_has_words_that_cant_be_read(ink, paper, accent):
    theme = Theme(ink=ink, paper=paper, accent=accent)
    if not list(theme.problems()):
        for first, second in ((ink, paper), (ink, "#ffffff"), (accent, paper)):
            assert contrast_of(first, second) >= LEAST_CONTRAST


def test_stylesheet_sets_variables_and_nothing_else():
    sheet = Theme(ink="#222222", corner_px=9, headings="plain").stylesheet
    assert sheet.startswith(":root {")
    assert sheet.count("{") == 1
    assert "--ink: #222222;" in sheet
    assert "--corner: 9px;" in sheet
    assert '--heading: "Text"' in sheet


def test_colors_are_mixed_channel_by_channel():
    assert (mixed("#000000", "#ffffff", 0), mixed("#000000", "#ffffff", 1)) == ("#ffffff", "#000000")
    assert mixed("#ff0000", "#0000ff", 0.5) == "#800080"
