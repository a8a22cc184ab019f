"""What stands on the goods, in words."""

import pytest

from tests.core.conftest import board, entries, upload
from yenzo.core.documents.reading import read_setup
from yenzo.core.evaluation import evaluate
from yenzo.core.scene.description import describe_side
from yenzo.core.translation import override_language


def said(setup, assets, values, **others):
    return describe_side(evaluate(setup, entries(values, **others), assets).scene.side("front"))


def test_text_and_picture_are_said_with_their_sizes_and_places(setup, assets):
    assert said(setup, assets, {}) == "Front: nothing stands on it yet"
    values, files = {"name": "tern", "with_photo": True}, {"photo": upload()}
    assert said(setup, assets, values, uploads=files) == (
        "Front: “TERN”, 80 mm high, middle; otter.jpg, 96 × 64 mm, middle"
    )


@pytest.mark.parametrize(
    ("align", "vertical", "place"),
    [("left", "top", "top left"), ("right", "bottom", "bottom right"), ("center", "top", "top")],
)
def test_place_is_said_by_thirds_of_the_area(assets, align, vertical, place):
    document = board()
    document["placements"][0] |= {"align": align, "vertical": vertical, "least_mm": 10, "most_mm": 10}
    assert said(read_setup(document), assets, {"name": "A"}) == f"Front: “A”, 10 mm high, {place}"


def test_it_is_said_in_the_language_of_who_listens(setup, assets):
    with override_language("de"):
        assert said(setup, assets, {"name": "tern"}) == "Front: „TERN“, 80 mm hoch, Mitte"
