"""Colors of customers' own, within the reach of a palette."""

import pytest

from tests.core.conftest import board, entries
from yenzo.core.documents.mixing import distance, own_color
from yenzo.core.documents.reading import read_setup
from yenzo.core.evaluation import evaluate
from yenzo.core.translation import override_language


def mixed(assets, color, reach=10):
    document = board()
    finish = next(field for field in document["fields"] if field["key"] == "finish")
    finish["reach"] = reach
    return evaluate(read_setup(document), entries({"name": "Otter", "finish": color}), assets)


def gold():
    return board()["materials"]["palettes"]["finishes"]["colors"][0]["screen"]


@pytest.mark.parametrize(
    ("first", "second", "expected"),
    # Far ends of the scale, and what no eye tells apart.
    [("#000000", "#ffffff", 100.0), ("#123456", "#123456", 0.0), ("#c8402a", "#c8412a", 0.2)],
)
def test_distance_is_that_of_the_standard(first, second, expected):
    assert distance(first, second) == pytest.approx(expected, abs=0.15)


def test_color_within_reach_is_painted_as_mixed_and_refers_to_the_nearest(assets):
    evaluation = mixed(assets, gold().upper())
    assert not evaluation.verdict.blocked
    (text,) = next(evaluation.scene.areas).letterings
    assert text.paint.screen == gold().lower()
    assert text.paint.name == gold().lower()
    assert "near GL 23" in text.paint.reference
    assert evaluation.asked.text("finish") == gold().lower()


def test_color_beyond_reach_is_refused_with_the_nearest_one(assets):
    found = {problem.code: problem.message for problem in mixed(assets, "#00ff00").verdict.problems}
    assert found["out_of_reach"].startswith(
        "“#00ff00” is too far from the colors that can be made here. The nearest is “"
    )
    with override_language("de"):
        assert "Am nächsten liegt" in mixed(assets, "#00ff00").verdict.problems[0].message


def test_without_a_reach_only_the_palette_is_offered(assets):
    codes = [problem.code for problem in mixed(assets, gold(), reach=None).verdict.problems]
    assert codes == ["not_offered"]


@pytest.mark.parametrize("written", ["#12345", "#1234567", "red", "#12345g", "", None, "#１２３４５６"])
def test_what_is_no_color_is_none(assets, written):
    assert own_color(written) is None
    if written:
        assert [problem.code for problem in mixed(assets, written).verdict.problems] == ["not_offered"]
