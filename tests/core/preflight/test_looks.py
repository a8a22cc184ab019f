"""What reads badly: texts over each other, colors like the goods', letters too near each other, emoji."""

import io

import pytest
from PIL import Image

from tests.core.conftest import GOODS, board, entries, sha256_of
from yenzo.core.artwork.goods import goods_color
from yenzo.core.documents.reading import read_setup
from yenzo.core.errors import AssetError
from yenzo.core.evaluation import evaluate
from yenzo.core.preflight.checks.contrast import contrast_of
from yenzo.core.shapes.box import Box

LINE = {"side": "front", "area": "panel", "least_mm": 30, "most_mm": 80, "typeface": {"fixed": "quayside"}}
WHITE = {"palette": "finishes", "color": "white"}


def evaluated(document, assets, **values):
    return evaluate(read_setup(document), entries({"name": "Tern", **values}), assets)


def two_texts(**second):
    """The board with a second text in the panel, that of the wood."""
    document = board()
    document["placements"].append({"key": "wood", "kind": "line", "field": "wood", "color": WHITE, **LINE, **second})
    return document


def test_texts_over_each_other_block_with_how_far_unless_the_seller_lets_them(assets):
    found = evaluated(two_texts(), assets).verdict
    (finding,) = found.blocking
    assert (finding.code, finding.field) == ("overlapping", "wood")
    assert finding.message.startswith("“Cedar” runs into “TERN” on “Panel”, over ")
    assert finding.measured > 50
    assert not evaluated(two_texts(may_overlap=True), assets).verdict.blocked


def test_texts_whose_boxes_meet_but_whose_letters_do_not_are_left_alone(assets):
    high, low = ({"base_line": {"x_mm": 4, "y_mm": y, "length_mm": 300}, "most_mm": 30} for y in (40, 90))
    document = two_texts(**low)
    document["placements"][0] |= high
    assert not evaluated(document, assets, name="TTTT").verdict.findings


def test_color_like_the_goods_is_told_unless_depth_shows_it(assets):
    document = board()
    document["materials"]["palettes"]["finishes"]["colors"][1]["screen"] = "#a06030"
    (finding,) = evaluated(document, assets, finish="white").verdict.advice
    assert finding.code == "hardly_seen"
    assert "“TERN” in White will hardly show on “Panel”" in finding.message
    assert finding.measured == pytest.approx(contrast_of("#a06030", "#a5632f"), abs=0.01)
    assert not evaluated(document, assets, finish="gold").verdict.advice
    document["materials"]["methods"]["carving"]["relief"] = True
    assert not evaluated(document, assets, finish="white").verdict.advice


def test_contrast_is_that_of_the_standard():
    assert contrast_of("#000000", "#ffffff") == pytest.approx(21)
    assert contrast_of("#777777", "#ffffff") == pytest.approx(4.48, abs=0.01)
    assert contrast_of("#a5632f", "#a5632f") == 1


class OneAsset:
    def __init__(self, data):
        self.data = data

    def read(self, sha256):
        if self.data is None:
            raise AssetError("asset_missing", sha256, "It isn't there.")
        return self.data


def halves():
    """Left half red, right half transparent."""
    picture = Image.new("RGBA", (80, 40))
    picture.paste((200, 30, 40, 255), (0, 0, 40, 40))
    output = io.BytesIO()
    picture.save(output, "PNG")
    return output.getvalue()


@pytest.mark.parametrize(
    ("data", "shares", "color"),
    [
        (GOODS, Box(0, 0, 1, 1), "#a5632f"),
        (halves(), Box(0.1, 0.1, 0.4, 0.9), "#c81e28"),
        (halves(), Box(0.6, 0.1, 0.9, 0.9), None),
        (halves(), Box(2, 2, 3, 3), None),
        (b"no picture", Box(0, 0, 1, 1), None),
        (None, Box(0, 0, 1, 1), None),
    ],
)
def test_color_of_the_goods_is_the_usual_one_there(data, shares, color):
    assert goods_color(OneAsset(data), sha256_of(data or b"") + "a", shares) == color


def test_picture_of_the_goods_is_opened_once_for_all_of_its_areas():
    class Counted(OneAsset):
        reads = 0

        def read(self, sha256):
            self.reads += 1
            return super().read(sha256)

    assets, name = Counted(halves()), sha256_of(halves()) + "counted"
    places = [Box(0.01 * step, 0.1, 0.01 * step + 0.2, 0.9) for step in range(20)]
    assert {goods_color(assets, name, place) for place in places} == {"#c81e28"}
    assert assets.reads == 1


def test_gap_between_neighbours_counts_as_a_gap(assets):
    document = board()
    document["placements"][0] |= {"letter_spacing": -2, "least_mm": 20, "most_mm": 20}
    document["fields"][0].pop("case")
    document["materials"]["methods"]["carving"] |= {"least_gap_mm": 3}
    (finding,) = evaluated(document, assets, name="HH").verdict.findings
    assert (finding.code, "narrowest gap of “HH” in “HH”" in finding.message) == ("too_narrow", True)
    wide = evaluated(document, assets, name="H").verdict.findings
    assert not wide
    node = next(evaluated(document, assets, name="HH").scene.areas.__next__().letterings)
    one, two = sorted(
        (contour[:, 0].min(), contour[:, 0].max())
        for contour in (
            node.outline.points[: len(node.outline.points) // 2],
            node.outline.points[len(node.outline.points) // 2 :],
        )
    )
    assert finding.measured == pytest.approx(two[0] - one[1], abs=0.02)


def test_joined_letters_have_no_gap_between_them(assets):
    document = board()
    document["materials"]["methods"]["carving"] |= {"least_gap_mm": 0.5}
    findings = evaluated(document, assets, name="سلام", lettering="levant").verdict.findings
    assert "too_narrow" not in {finding.code for finding in findings}


def test_emoji_are_refused_in_words_once_and_other_letters_by_themselves(assets):
    document = board()
    del document["fields"][0]["allowed"]
    verdict = evaluated(document, assets, name="A🐬ж❤️").verdict
    assert [problem.code for problem in verdict.problems] == ["emoji", "missing_letter"]
    assert verdict.problems[0].message == "“🐬” and “❤️” are emoji and can't be carved. Please write it without them."
    assert "The character “Ж” is not in" in verdict.problems[1].message
    alone = evaluated(document, assets, name="A🐬").verdict
    assert [item.code for item in (*alone.problems, *alone.findings)] == ["emoji"]
