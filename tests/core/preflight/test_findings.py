import pytest

from tests.core.conftest import board, entries, upload
from yenzo.core.documents.reading import read_setup
from yenzo.core.evaluation import evaluate


def findings(assets, values, document=None, **others):
    verdict = evaluate(read_setup(document or board()), entries(values, **others), assets).verdict
    return {finding.code: finding for finding in verdict.findings}, verdict


def test_text_too_wide_at_its_least_height_is_outside_with_the_amount(assets):
    document = board()
    document["fields"][0]["most_characters"] = 60
    found, verdict = findings(assets, {"name": "W" * 40}, document)
    assert found["outside"].measured > 50
    assert "sticks out of “Panel”" in found["outside"].message
    assert verdict.blocked


def test_letters_below_the_methods_least_are_too_small(assets):
    document = board()
    document["placements"][0]["least_mm"] = 5
    document["fields"][0]["most_characters"] = 60
    found, verdict = findings(assets, {"name": "W" * 50}, document)
    assert found["too_small"].measured < 20
    assert verdict.blocked


def small_letters(assets, text, *, height=24, features=(), **method):
    document = board()
    document["materials"]["methods"]["carving"] |= method
    document["fields"][0] |= {"case": "typed"}
    document["placements"][0] |= {"least_mm": height, "most_mm": height, "features": features}
    evaluation = evaluate(read_setup(document), entries({"name": text, "lettering": "quayside"}), assets)
    return [finding for finding in evaluation.verdict.blocking if finding.code == "too_small"]


def test_small_letters_that_are_lower_than_the_least_letter_are_too_small(assets):
    # Of this face an n has 0.741 of the height of capitals.
    (finding,) = small_letters(assets, "Finn")
    assert finding.measured == pytest.approx(24 * 0.741, abs=0.1)
    assert finding.limit == 20
    assert finding.message.startswith("The “n” in “Finn” would be 17.8 mm high; Carving needs at least 20 mm.")
    for fine in ("FINN", "FINN 14", "Étoile".upper()):
        assert small_letters(assets, fine) == [], fine
    assert small_letters(assets, "Finn", height=27) == []
    # Small capitals are higher than an x and lower than capitals.
    (finding,) = small_letters(assets, "finn", height=21, features=["small_capitals"])
    assert 21 * 0.75 < finding.measured < 21
    assert small_letters(assets, "Finn", least_small_mm=17.5) == []
    assert small_letters(assets, "Finn", least_small_mm=19) != []


def test_marks_of_letters_are_no_letters_of_their_own(assets):
    assert small_letters(assets, "A\u0301B\u0308") == []


def test_text_in_the_safe_margin_is_advice(assets):
    document = board()
    base = {"x_mm": 20, "y_mm": 90, "length_mm": 500}
    document["placements"][0] |= {
        "base_line": base,
        "align": "left",
        "effects": {"shadow": {"across_mm": 0, "down_mm": 5, "color": {"field": "finish"}}},
        "least_mm": 60,
    }
    found, verdict = findings(assets, {"name": "TERN"}, document)
    assert set(found) == {"near_edge"}
    assert not verdict.blocked


def test_artwork_is_refused_below_the_least_and_advised_below_the_good_resolution(assets):
    values = {"name": "A", "with_photo": True}
    coarse, verdict = findings(assets, values, uploads={"photo": upload(300, 200)})
    assert set(coarse) == {"coarse"}
    assert not verdict.blocked
    worse, verdict = findings(assets, values, uploads={"photo": upload(150, 100)})
    assert worse["too_coarse"].measured == 39.688
    assert verdict.blocked
    fine, _ = findings(assets, values, uploads={"photo": upload(3000, 2000)})
    assert fine == {}


def test_color_that_nobody_chose_blocks(assets):
    found, verdict = findings(assets, {"name": "A", "finish": ""})
    assert "No color is chosen" in found["undecided"].message
    assert verdict.blocked


def test_missing_letter_is_told_once(assets):
    _, verdict = findings(assets, {"name": "مرحبا"})
    assert [item.code for item in verdict.blocking] == ["missing_letter"]
