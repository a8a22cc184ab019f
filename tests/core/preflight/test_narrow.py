"""Gaps and strokes of what is made of a text: closed where the method does that, else found."""

import json

import pytest

from demo.installation import ROOT
from tests.core.conftest import board, entries
from yenzo.core.cli import SHIPPED_TYPEFACES
from yenzo.core.documents.assets import FolderAssets
from yenzo.core.documents.reading import read_setup
from yenzo.core.evaluation import evaluate, sample_entries
from yenzo.core.scene.inking import made_of, one_tool, painted, tool_of
from yenzo.core.scene.nodes import Lettering
from yenzo.core.shapes.booleans import union
from yenzo.core.shapes.box import Box
from yenzo.core.shapes.outline import Outline, contours_of
from yenzo.core.shapes.polygons import grown, polygon_of
from yenzo.core.shapes.thickness import thinnest

WHITE, GOLD = ({"palette": "finishes", "color": key} for key in ("white", "gold"))
APART = Outline.joined([Outline.rectangle(Box(0, 0, 10, 10)), Outline.rectangle(Box(10.07, 0, 20, 10))])


def with_effects(assets, effects, *, spacing=0.0, **method):
    document = board()
    document["materials"]["methods"]["carving"] |= method
    document["placements"][0] |= {"effects": effects, "letter_spacing": spacing, "color": GOLD}
    return evaluate(read_setup(document), entries({"name": "TERN"}), assets)


def codes(evaluation):
    return {finding.code for finding in evaluation.verdict.blocking}


def stroke_gap(evaluation):
    layers = next(next(evaluation.scene.areas).letterings).layers
    return thinnest(next(layer.outline for layer in layers if layer.role == "stroke")).gap


def test_gaps_narrower_than_that_are_filled_and_nothing_else_moves():
    plain, filled = grown(APART, 0.01), grown(APART, 0.01, closing_mm=0.1)
    assert len(list(contours_of(plain))) == 2
    assert len(list(contours_of(filled))) == 1
    assert filled.bounds == pytest.approx(plain.bounds, abs=0.001)
    # The gap that is left is 0.05 mm wide and as long as the squares are high, with its ends rounded.
    assert polygon_of(filled).area - polygon_of(plain).area == pytest.approx(10 * 0.05, abs=0.01)
    assert polygon_of(grown(APART, 0.01, closing_mm=0.04)).area == pytest.approx(polygon_of(plain).area, abs=0.001)


@pytest.mark.parametrize("width_mm", [6.2, 7.0, 7.6])
def test_sliver_between_lines_round_letters_is_found_or_closed(assets, width_mm):
    stroke = {"stroke": {"width_mm": width_mm, "color": WHITE}}
    found = with_effects(assets, stroke, spacing=6, least_gap_mm=4)
    assert stroke_gap(found) < 4
    assert codes(found) == {"too_narrow"}
    made = with_effects(assets, stroke, spacing=6, least_gap_mm=4, closes_gaps=True)
    assert codes(made) == set()
    assert stroke_gap(made) >= 4


def test_thin_bridge_of_a_plate_that_letters_are_cut_from_is_found(assets):
    plate = {"plate": {"margin_mm": 0.5, "color": WHITE, "knock_out": True}}
    assert codes(with_effects(assets, plate, least_stroke_mm=2)) == {"too_thin"}
    assert (
        codes(with_effects(assets, {**plate, "plate": {**plate["plate"], "margin_mm": 4}}, least_stroke_mm=0.5))
        == set()
    )


def test_texts_side_by_side_on_one_tool_keep_the_least_gap(assets):
    document = board()
    document["materials"]["methods"]["carving"] |= {"one_color": True, "least_gap_mm": 1.5, "least_letter_mm": 5}
    first = document["placements"][0]
    first |= {"kind": "line", "base_line": {"x_mm": 10, "y_mm": 45, "length_mm": 500}, "least_mm": 20, "most_mm": 20}
    second = {**first, "key": "wood", "field": "wood", "base_line": {"x_mm": 10, "y_mm": 66, "length_mm": 500}}
    document["placements"].append(second)
    given = entries({"name": "HHH", "wood": "oak"})
    document["fields"][4]["options"][1]["label"] = "HHH"
    assert "too_narrow" in codes(evaluate(read_setup(document), given, assets))
    second["base_line"] = {"x_mm": 10, "y_mm": 70, "length_mm": 500}
    assert "too_narrow" not in codes(evaluate(read_setup(document), given, assets))


@pytest.mark.parametrize("folder", sorted((ROOT / "demo" / "products").iterdir()), ids=lambda path: path.name)
def test_no_demo_sample_has_a_gap_that_its_method_cannot_make(folder):
    assets = FolderAssets([folder / "assets", folder, SHIPPED_TYPEFACES])
    setup = read_setup(json.loads((folder / "setup.json").read_text()))
    evaluation = evaluate(setup, sample_entries(setup), assets)
    assert not {"too_narrow", "too_thin"} & codes(evaluation)
    for area in evaluation.scene.areas:
        method, groups = setup.materials.methods[area.method], {}
        for one in made_of(area, painted(area)):
            if isinstance(one.node, Lettering) and one.node.effects:
                tool = (one_tool if method.one_color else tool_of)(one.layer.paint)
                groups.setdefault(tool, []).append(one.layer.outline)
        for outlines in groups.values():
            assert thinnest(union(outlines)).gap >= (method.least_gap_mm or 0.0)


def test_blade_of_the_pennant_leaves_no_sliver():
    folder = ROOT / "demo" / "products" / "burgee-pennant"
    setup = read_setup(json.loads((folder / "setup.json").read_text()))
    evaluation = evaluate(setup, sample_entries(setup), FolderAssets([folder / "assets", folder, SHIPPED_TYPEFACES]))
    (cloth,) = [area for area in evaluation.scene.areas if any(text.effects for text in area.letterings)]
    (text,) = cloth.letterings
    assert thinnest(next(layer.outline for layer in text.layers if layer.role == "stroke")).gap >= 1


@pytest.mark.parametrize(
    ("effects", "found"),
    [
        ({"stroke": {"width_mm": 0.01, "color": WHITE}}, {"too_thin"}),
        ({"stroke": {"width_mm": 0.6, "color": WHITE}}, set()),
        # In the letters' own color it makes them thicker.
        ({"stroke": {"width_mm": 0.01, "color": GOLD}}, set()),
        ({"fill": {"kind": "stripes", "size_mm": 0.1, "angle_deg": 30, "color": WHITE}}, {"too_thin"}),
        ({"fill": {"kind": "stripes", "size_mm": 6, "angle_deg": 30, "color": WHITE}}, set()),
    ],
)
def test_line_or_pattern_finer_than_the_least_stroke_is_found(assets, effects, found):
    assert codes(with_effects(assets, effects, least_stroke_mm=0.3)) == found


def test_lines_of_a_paragraph_that_come_too_near_to_each_other_are_found(assets):
    def said(spacing):
        document = board()
        document["materials"]["methods"]["carving"] |= {"least_gap_mm": 0.6, "least_letter_mm": 4}
        document["fields"][0] |= {"kind": "paragraph", "most_lines": 4, "case": "typed"}
        document["placements"][0] |= {"kind": "block", "least_mm": 12, "most_mm": 12, "line_spacing": spacing}
        return evaluate(read_setup(document), entries({"name": "gypsy\nHILL"}), assets).verdict

    assert "too_narrow" in {finding.code for finding in said(1.25).findings}
    assert "too_narrow" not in {finding.code for finding in said(2.2).findings}
