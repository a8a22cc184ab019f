"""Texts in a scene: each layout, joined entries, where they land, and what preflight says of them."""

import pytest

from tests.core.conftest import board, entries
from yenzo.apps.editor.aspects.interface import FormLine
from yenzo.apps.editor.aspects.layout import LayoutAspect
from yenzo.core.documents.edits import OPERATIONS, apply_operations
from yenzo.core.documents.reading import read_setup
from yenzo.core.errors import DocumentError
from yenzo.core.evaluation import evaluate
from yenzo.core.shapes.polygons import leaves_by

LAYOUTS = {
    "base": {"kind": "line", "base_line": {"x_mm": 60, "y_mm": 72, "length_mm": 420, "angle_deg": -3}},
    "block": {"kind": "block", "align": "justified"},
    "arc": {"kind": "arc", "x_mm": 270, "y_mm": 800, "radius_mm": 740, "spread_deg": 24},
    "curve": {"kind": "curve", "points": [[70, 75], [200, 60], [340, 85], [470, 72]]},
    "stack": {"kind": "stack", "least_mm": 1},
}


def with_text(**changes):
    """The board, its text laid out otherwise."""
    document = board()
    document["placements"][0].update(changes)
    return document


def text_on(document, assets, values):
    evaluation = evaluate(read_setup(document), entries(values), assets)
    return evaluation, next(evaluation.scene.areas.__next__().letterings, None)


@pytest.mark.parametrize("layout", LAYOUTS)
def test_each_layout_lands_inside_its_area_between_its_letter_heights(assets, layout):
    document = with_text(**{"least_mm": 20, "most_mm": 40, **LAYOUTS[layout]})
    document["materials"]["methods"]["carving"]["least_letter_mm"] = 1
    evaluation, text = text_on(document, assets, {"name": "Halcyon"})
    assert evaluation.verdict.findings == ()
    assert document["placements"][0]["least_mm"] - 1e-9 <= text.letter_height_mm <= 40 + 1e-9


@pytest.mark.parametrize("layout", ["base", "arc", "curve"])
def test_text_longer_than_its_base_line_is_found_with_the_amount(assets, layout):
    evaluation, text = text_on(with_text(**LAYOUTS[layout]), assets, {"name": "W" * 17})
    finding = next(finding for finding in evaluation.verdict.findings if finding.code == "too_long")
    assert finding.measured == pytest.approx(text.overflow_mm, abs=1e-3)
    assert f"{text.overflow_mm:.1f} mm too long for its base line on “Panel”" in finding.message
    assert evaluation.verdict.blocked


def test_letters_that_join_are_not_stacked(assets):
    evaluation, _ = text_on(with_text(**LAYOUTS["stack"]), assets, {"name": "مرحبا", "lettering": "levant"})
    assert "torn_letters" in {finding.code for finding in evaluation.verdict.findings}


def test_joined_text_takes_all_its_entries_and_drops_what_is_empty(assets):
    document = with_text(joined="{name} · {wood}")
    assert text_on(document, assets, {"name": "Tern", "wood": "oak"})[1].text == "TERN · Oak"
    _, alone = text_on(document, assets, {"name": "", "wood": "oak"})
    assert (alone.text, alone.field, alone.fields) == ("Oak", "wood", ("wood",))
    assert text_on(document, assets, {"name": "", "wood": ""})[1] is None


def test_joined_text_that_names_nobody_is_refused():
    for pattern, said in (("{name} & {nobody}", "“nobody”, which isn't there"), ("{wood}", "its own field")):
        with pytest.raises(DocumentError, match=said):
            read_setup(with_text(joined=pattern))


def test_entry_lands_only_when_its_rule_holds_and_moves_with_nobody_asking_again(assets):
    document = with_text(when={"conditions": [{"field": "with_photo", "value": True}]})
    assert text_on(document, assets, {"name": "Tern", "with_photo": True})[1].text == "TERN"
    assert text_on(document, assets, {"name": "Tern"})[1] is None


def test_paragraph_keeps_its_lines_and_tells_when_there_are_too_many(assets):
    document = with_text(kind="block", least_mm=10)
    document["fields"][0] |= {"kind": "paragraph", "most_lines": 2, "most_characters": 60}
    del document["fields"][0]["allowed"]
    evaluation, text = text_on(document, assets, {"name": "  First   line \r\nsecond \n\n"})
    assert (text.lines, evaluation.verdict.problems) == (("FIRST LINE", "SECOND"), ())
    evaluation, _ = text_on(document, assets, {"name": "a\nb\nc"})
    assert "3 lines, 1 too many: there is room for 2" in evaluation.verdict.problems[0].message
    evaluation, text = text_on(document, assets, {"name": "word " * 1500})
    assert {problem.code for problem in evaluation.verdict.problems} == {"too_long"}
    assert text is None


def test_text_too_long_for_its_stroke_is_told_so_and_shown_without(assets):
    effects = {"stroke": {"width_mm": 2, "color": {"palette": "finishes", "color": "white"}}}
    document = with_text(kind="block", least_mm=2, effects=effects)
    document["fields"][0] = {"key": "name", "kind": "paragraph", "label": "Name"}
    evaluation, text = text_on(document, assets, {"name": "harbor " * 60})
    assert "too_long_for_effects" in {finding.code for finding in evaluation.verdict.findings}
    assert text.effects == ()
    assert len(text_on(document, assets, {"name": "harbor"})[1].effects) == 2


def test_letters_that_run_into_each_other_in_a_tight_turn_are_found(assets):
    tight = {"kind": "arc", "x_mm": 270, "y_mm": 60, "radius_mm": 10, "stand": "inside", "least_mm": 20, "most_mm": 40}
    evaluation, text = text_on(with_text(**tight), assets, {"name": "Tern"})
    assert text.is_tangled
    assert "tangled" in {finding.code for finding in evaluation.verdict.findings}


def test_joined_text_lands_only_while_its_own_line_is_asked(assets):
    document = with_text(joined="{name} {wood}")
    document["fields"][0] |= {"ask_when": {"conditions": [{"field": "with_photo", "value": True}]}, "required": False}
    asked, text = text_on(document, assets, {"name": "Tern", "wood": "oak", "with_photo": True})
    assert text.text == "TERN Oak"
    evaluation, text = text_on(document, assets, {"name": "Tern", "wood": "oak"})
    assert text is None
    assert (evaluation.amounts.whole.placed, asked.amounts.whole.placed) == (0, 1)


def beginning(way):
    """What the seller's form of a layout begins with, for the board's panel."""
    setup = read_setup(with_text(least_mm=5, most_mm=90))
    line = FormLine(setup, setup.field("name"), setup.placements[0])
    form = LayoutAspect().form(line)
    given = {name: field.clean(field.initial) for name, field in form.fields.items()}
    return LayoutAspect().operations(line, {**given, "way": way})


@pytest.mark.parametrize("way", ["base", "arc", "curve"])
@pytest.mark.parametrize("text", ["I", "Hi", "Anna", "HELLO", "Gypsy Moth", "gjpqy"])
def test_short_and_long_texts_stay_inside_with_the_numbers_that_a_layout_begins_with(assets, way, text):
    document = with_text(least_mm=5, most_mm=90)
    document["materials"]["methods"]["carving"]["least_letter_mm"] = 5
    document["fields"][0]["case"] = "typed"
    operations = OPERATIONS.validate_python(tuple(beginning(way)))
    evaluation, node = text_on(apply_operations(document, operations)[0], assets, {"name": text})
    assert evaluation.verdict.findings == ()
    safe = next(evaluation.scene.areas).safe
    over = node.outline.bounds.excess_over(safe)
    assert over <= 0.001
    # As large as fits: it reaches its room's edge, or is as long as its base line.
    ink = node.outline.bounds
    to_edge = min(ink.top - safe.top, safe.bottom - ink.bottom, ink.left - safe.left, safe.right - ink.right)
    assert len(text) > 5 or to_edge < 0.3


@pytest.mark.parametrize("shape", [{"kind": "ellipse"}, {"kind": "rectangle", "corner_mm": 40}])
def test_text_on_an_arc_stays_inside_an_area_of_any_shape(assets, shape):
    document = with_text(least_mm=5, most_mm=90, kind="arc", x_mm=270, y_mm=98, radius_mm=60, spread_deg=160)
    document["sides"][0]["areas"][0]["shape"] = shape
    document["materials"]["methods"]["carving"]["least_letter_mm"] = 5
    evaluation, node = text_on(document, assets, {"name": "Anna"})
    area = next(evaluation.scene.areas)
    assert evaluation.verdict.findings == ()
    assert leaves_by(node.outline, area.safe_outline) <= 0.01
    assert node.letter_height_mm > 10


def test_text_whose_base_line_lies_at_the_edge_says_what_would_help(assets):
    base = {"x_mm": 60, "y_mm": 10, "length_mm": 420}
    evaluation, _ = text_on(with_text(kind="line", base_line=base), assets, {"name": "Hi"})
    (finding,) = evaluation.verdict.blocking
    assert finding.code == "outside"
    assert "though its base line is long enough" in finding.message
    assert "shorten" not in finding.message
