"""Laws of the whole spine, on entries that nobody would think of."""

import math
import re

import numpy as np
import pytest
from hypothesis import HealthCheck, given, settings
from hypothesis import strategies as st

from tests.core.conftest import board, entries, upload
from yenzo.core.documents.reading import read_setup
from yenzo.core.errors import YenzoError
from yenzo.core.render.files import FORMATS, render_file
from yenzo.core.render.page import area_page, side_page
from yenzo.core.shapes.matrix import Matrix
from yenzo.core.shapes.outline import Outline
from yenzo.core.spine import walk

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
quick = settings(deadline=None, max_examples=60, suppress_health_check=[HealthCheck.function_scoped_fixture])


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
    without = walk(made, entries({**values, "wood": "cedar"}), assets)
    with_it = walk(made, entries({**values, "wood": "cedar", "hidden": typed}), assets)
    assert with_it.verdict == without.verdict
    assert with_it.quote == without.quote
    assert [side.digest for side in with_it.scene.sides] == [side.digest for side in without.scene.sides]


@given(values=anything, adjustment=moved, size=st.sampled_from([(1, 1), (600, 400), (9, 9000)]))
@quick
def test_any_entries_give_files_or_an_error_of_ours(assets, values, adjustment, size):
    given_entries = entries(
        values, uploads={"photo": upload(*size)}, adjustments={"name": adjustment, "photo": adjustment}
    )
    walked = walk(SETUP, given_entries, assets)
    assert walked.quote.total >= 0
    for area in walked.scene.areas:
        for file_format in FORMATS:
            assert made_or_refused(area, assets, file_format)


def made_or_refused(area, assets, file_format):
    """Return a file's bytes, or the words that refuse it; any other exception fails the test."""
    try:
        return render_file(area_page(area), assets, file_format, dpi=20)
    except YenzoError as error:
        return error.message


@given(values=anything)
@quick
def test_numbers_in_vector_files_are_finite_and_plain(assets, values):
    side = walk(SETUP, entries(values), assets).scene.sides[0]
    markup = render_file(side_page(side, with_goods=False), assets, "svg", dpi=0).decode()
    assert not re.search(r"nan|inf|\de[-+]?\d", re.sub(r'd="[^"]*"', "", markup), re.IGNORECASE)


curves = st.lists(st.tuples(*[st.floats(-400, 400)] * 8), min_size=1, max_size=6)


@given(curves, st.floats(0.01, 50), st.floats(0.01, 50), st.floats(-500, 500), st.floats(-500, 500))
@settings(deadline=None)
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
