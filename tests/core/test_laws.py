"""Laws of the whole pipeline, on entries that nobody would think of."""

import io
import math
import re
import subprocess

import numpy as np
import pytest
from hypothesis import assume, example, given
from hypothesis import strategies as st
from PIL import Image

from tests.core.conftest import board, entries, upload
from tests.sweeping import examples
from yenzo.core.documents.reading import read_setup
from yenzo.core.errors import YenzoError
from yenzo.core.evaluation import evaluate
from yenzo.core.render.files import FORMATS, render_file
from yenzo.core.render.page import area_page, side_page
from yenzo.core.shapes.matrix import Matrix
from yenzo.core.shapes.outline import Outline

SETUP = read_setup(board())
CHOICES = {
    "lettering": st.sampled_from(["quayside", "log-book", "levant", "nothing", ""]),
    "wood": st.sampled_from(["cedar", "oak", "ash", ""]),
    "finish": st.sampled_from(["gold", "white", "pink", ""]),
}
moved = st.fixed_dictionaries(
    {},
    optional={
        "shift_mm": st.tuples(st.floats(-300, 300), st.floats(-300, 300)),
        "turn_deg": st.floats(-360, 360),
        "scale": st.floats(0.01, 20),
    },
)
anything = st.fixed_dictionaries({"name": st.text(max_size=60), "with_photo": st.booleans(), **CHOICES})
quick = examples(60)


@given(values=anything, typed=st.text(min_size=1, max_size=30))
@quick
def test_what_is_not_asked_changes_no_problem_no_price_and_no_scene(assets, values, typed):
    document = board()
    document["fields"].append(
        {
            "key": "hidden",
            "kind": "line",
            "label": "Hidden",
            "ask_when": {"conditions": [{"field": "wood", "value": "oak"}]},
        }
    )
    document["charges"].append({"key": "hidden", "kind": "per_character", "field": "hidden", "amount": "9.00"})
    document["placements"].append({**document["placements"][0], "key": "hidden", "field": "hidden"})
    made = read_setup(document)
    without = evaluate(made, entries({**values, "wood": "cedar"}), assets)
    with_it = evaluate(made, entries({**values, "wood": "cedar", "hidden": typed}), assets)
    assert with_it.verdict == without.verdict
    assert with_it.quote == without.quote
    assert [side.digest for side in with_it.scene.sides] == [side.digest for side in without.scene.sides]


@given(values=anything, adjustment=moved, size=st.sampled_from([(1, 1), (600, 400), (9, 9000)]))
@quick
def test_any_entries_give_files_or_an_error_of_ours(assets, values, adjustment, size):
    given_entries = entries(
        values, uploads={"photo": upload(*size)}, adjustments={"name": adjustment, "photo": adjustment}
    )
    evaluation = evaluate(SETUP, given_entries, assets)
    assert evaluation.quote.total >= 0
    for area in evaluation.scene.areas:
        for file_format in FORMATS:
            assert made_or_refused(area, assets, file_format)


def made_or_refused(area, assets, file_format):
    """Return a file's bytes, or the words that refuse it; any other exception fails the test."""
    try:
        return render_file(area_page(area), assets, file_format, dpi=20)
    except YenzoError as error:
        return error.message


few = examples(8)
LENGTHS = ("x_mm", "y_mm", "width_mm", "height_mm", "bleed_mm", "safe_mm", "least_mm", "most_mm", "length_mm")


def scaled(value, by):
    """A document whose lengths are all multiplied."""
    if isinstance(value, dict):
        return {key: item * by if key in LENGTHS else scaled(item, by) for key, item in value.items()}
    return [scaled(item, by) for item in value] if isinstance(value, list) else value


@given(values=anything, by=st.floats(0.2, 5))
@quick
def test_set_up_that_is_scaled_makes_everything_scaled(assets, values, by):
    first, second = (evaluate(read_setup(scaled(board(), k)), entries(values), assets) for k in (1.0, by))
    for one, two in zip(first.scene.areas, second.scene.areas, strict=True):
        assert area_page(two).width_mm == pytest.approx(by * area_page(one).width_mm)
        for a, b in zip(one.letterings, two.letterings, strict=True):
            assert np.allclose(b.outline.points, by * a.outline.points, rtol=1e-6, atol=1e-6)
            assert b.letter_height_mm == pytest.approx(by * a.letter_height_mm)


@given(order=st.permutations(["gold", "white"]), text=st.sampled_from(["HHH", "III", "EEE"]))
@few
def test_later_placement_is_painted_over_the_earlier_one_in_every_file(assets, order, text):
    document = board()
    base = document["placements"][0]
    document["placements"] = [
        {**base, "key": color, "color": {"palette": "finishes", "color": color}} for color in order
    ]
    area = next(evaluate(read_setup(document), entries({"name": text}), assets).scene.areas)
    top = {"gold": (0xD4, 0xA8, 0x3E), "white": (255, 255, 255)}[order[-1]]
    for shown in (seen(area, assets, "png"), seen(area, assets, "svg")):
        inked = np.asarray(shown)[np.asarray(shown)[..., 3] == 255][:, :3]
        assert (np.abs(inked.astype(int) - top).max(axis=1) <= 2).mean() > 0.97


@given(text=st.text("AHIMgj&éßمر", min_size=1, max_size=8), turn=st.floats(-40, 40))
@few
def test_bounds_are_the_extent_that_is_seen_in_every_file(assets, text, turn):
    moved_by_hand = {"name": {"turn_deg": turn, "scale": 0.25}}
    given_entries = entries({"name": text, "lettering": "levant"}, adjustments=moved_by_hand)
    area = next(evaluate(SETUP, given_entries, assets).scene.areas)
    bounds = next(area.letterings).bounds
    if bounds is None:
        return
    # Of what sticks out of the page the rest is seen, whose extent is another.
    assume(bounds == bounds.within(area.bleed))
    for file_format in ("png", "svg"):
        left, top, right, bottom = seen(area, assets, file_format).getchannel("A").getbbox()
        mm = 25.4 / 100
        extent = [left * mm - 2, top * mm - 2, right * mm - 2, bottom * mm - 2]
        assert extent == pytest.approx(list(bounds), abs=0.3), file_format


def seen(area, assets, file_format):
    """An area's file as an outside program shows it, at 100 dpi."""
    data = render_file(area_page(area), assets, file_format, dpi=100)
    if file_format == "svg":
        command = ["rsvg-convert", "--dpi-x=100", "--dpi-y=100"]
        data = subprocess.run(command, input=data, capture_output=True, check=True).stdout
    return Image.open(io.BytesIO(data)).convert("RGBA")


@given(values=anything)
@quick
def test_numbers_in_vector_files_are_finite_and_plain(assets, values):
    side = evaluate(SETUP, entries(values), assets).scene.sides[0]
    markup = render_file(side_page(side, with_goods=False), assets, "svg", dpi=0).decode()
    assert not re.search(r"nan|inf|\de[-+]?\d", re.sub(r'd="[^"]*"', "", markup), re.IGNORECASE)


curves = st.lists(st.tuples(*[st.floats(-400, 400)] * 8), min_size=1, max_size=6)


@given(curves, st.floats(0.01, 50), st.floats(0.01, 50), st.floats(-500, 500), st.floats(-500, 500))
@example([(0.0, 2.225073858507203e-309, 0.0, 1.0, 0.0, 1.0, 0.0, 0.0)], 1.0, 1.0, 0.0, 0.0)
@examples()
def test_box_that_is_taken_along_equals_the_box_found_anew(points, a, d, e, f):
    flat = [(points_of[at], points_of[at + 1]) for points_of in points for at in (0, 2, 4, 6)]
    outline = Outline("MCZ" * len(points), np.array(flat))
    before = outline.bounds
    assert before is not None
    taken = outline.mapped(Matrix(a, 0, 0, d, e, f))
    anew = Outline(taken.verbs, taken.points).bounds
    assert all(math.isclose(x, y, abs_tol=1e-6) for x, y in zip(taken.bounds, anew, strict=True))


@pytest.mark.parametrize("matrix", [Matrix(-1, 0, 0, 1, 0, 0), Matrix(0, 1, -1, 0, 0, 0), Matrix(1, 0.2, 0, 1, 3, 4)])
def test_box_of_a_mirrored_or_turned_outline_is_found_anew(matrix):
    outline = Outline("MCZ", np.array([(0, 0), (10, 40), (30, -20), (40, 10)]))
    assert outline.bounds
    turned = outline.mapped(matrix)
    assert turned.bounds == Outline(turned.verbs, turned.points).bounds
