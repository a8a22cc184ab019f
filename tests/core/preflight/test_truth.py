"""Preflight tells the truth: what shapely finds unmakeable is found, what it finds makeable passes."""

import pytest

from tests.core.conftest import board, entries
from tests.pressing import GOLD, RED, check, plates
from tests.sweeping import shards
from yenzo.core.documents.reading import read_setup
from yenzo.core.evaluation import evaluate


@pytest.mark.parametrize("part", shards(12))
def test_no_scene_is_told_wrong(part, assets):
    assert list(check(5 if part else 1, part * 200, assets)) == []


def two_texts(assets, second_color, **second):
    """Two words in an area, one under the other, each color with a plate of its own."""
    document = board()
    document["materials"]["palettes"]["finishes"]["colors"].append({"key": "red", "name": "Red", "screen": "#b03030"})
    document["materials"]["methods"]["carving"] |= {"separations": True, "least_gap_mm": 1, "least_letter_mm": 5}
    first = document["placements"][0] | {"kind": "line", "least_mm": 20, "most_mm": 20, "color": GOLD}
    first["base_line"] = {"x_mm": 10, "y_mm": 45, "length_mm": 500}
    below = {**first, "key": "wood", "field": "wood", "color": second_color, **second}
    document["placements"] = [first, below]
    document["fields"][4]["options"][1]["label"] = "HHH"
    evaluation = evaluate(read_setup(document), entries({"name": "HHH", "wood": "oak"}), assets)
    area = next(evaluation.scene.areas)
    return evaluation, plates(area, read_setup(document).materials.methods["carving"])


@pytest.mark.parametrize(("y_mm", "found"), [(65.4, True), (67, False)])
def test_shapes_of_two_plates_keep_the_least_gap_from_each_other(assets, y_mm, found):
    evaluation, _ = two_texts(assets, RED, base_line={"x_mm": 10, "y_mm": y_mm, "length_mm": 500})
    told = [finding for finding in evaluation.verdict.blocking if finding.code == "too_narrow"]
    assert bool(told) is found
    if found:
        assert told[0].measured == pytest.approx(0.4, abs=0.02)
        assert "“HHH” would come within 0.40 mm of “HHH” on “Panel”" in told[0].message


def test_text_in_the_color_of_a_plate_below_it_becomes_one_shape_with_it(assets):
    low = {"x_mm": 10, "y_mm": 90, "length_mm": 500}
    plate = {"plate": {"margin_mm": 3, "color": RED}}
    (gold, red) = two_texts(assets, RED, base_line=low, effects=plate)[1]
    assert gold.area > 0
    assert red.geom_type == "Polygon"
    assert not red.interiors
