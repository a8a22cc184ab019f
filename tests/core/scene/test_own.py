"""What the workshop puts on by itself, ready-made artwork, goods and methods that follow a choice."""

import pytest

from tests.core.conftest import GOODS, PHOTO, board, entries, sha256_of, upload
from yenzo.core.asking.ask import ask
from yenzo.core.asking.words import entries_in_words
from yenzo.core.documents.reading import read_setup
from yenzo.core.errors import DocumentError
from yenzo.core.evaluation import evaluate

ARTWORK = {**upload(), "name": "tern.svg"}
CHOICE = {
    "key": "emblem",
    "kind": "ready_made",
    "label": "Emblem",
    "options": [
        {"key": "tern", "label": "Tern", "artwork": ARTWORK},
        {"key": "none", "label": "Without"},
    ],
}


def document(*fields, placed=None, **changes):
    made = board()
    made["fields"] += fields
    if placed:
        made["placements"].append({"key": placed, "kind": "artwork", "field": placed, "side": "front", "area": "photo"})
    return {**made, **changes}


def names(evaluation):
    return [picture.name for area in evaluation.scene.areas for picture in area.pictures]


def test_fixed_text_is_made_whatever_is_sent_and_asks_nobody(assets):
    made = document({"key": "ours", "kind": "fixed_text", "label": "Our mark", "text": "TERN & TILLER"})
    base = made["placements"][0]
    made["placements"].append({**base, "key": "ours", "field": "ours", "least_mm": 21, "most_mm": 21})
    evaluation = evaluate(read_setup(made), entries({"name": "A", "ours": "SOMETHING ELSE"}), assets)
    assert "TERN & TILLER" in [text.text for area in evaluation.scene.areas for text in area.letterings]
    assert [entry.field for entry in entries_in_words(evaluation.setup, evaluation.asked) if not entry.is_asked] == [
        "ours"
    ]


def test_fixed_artwork_is_made_and_can_have_a_rule(assets):
    rule = {"conditions": [{"field": "wood", "value": "oak"}]}
    field = {"key": "ours", "kind": "fixed_artwork", "label": "Our mark", "artwork": ARTWORK, "ask_when": rule}
    setup = read_setup(document(field, placed="ours"))
    assert names(evaluate(setup, entries({"name": "A", "wood": "oak"}), assets)) == ["tern.svg"]
    assert names(evaluate(setup, entries({"name": "A", "wood": "cedar"}), assets)) == []


def test_ready_made_artwork_lands_as_chosen(assets):
    setup = read_setup(document(CHOICE, placed="emblem"))
    assert names(evaluate(setup, entries({"name": "A", "emblem": "tern"}), assets)) == ["tern.svg"]
    for other in ("none", "", "gone"):
        assert names(evaluate(setup, entries({"name": "A", "emblem": other}), assets)) == []


def test_goods_follow_a_choice_that_is_asked(assets):
    oak = {"asset": sha256_of(PHOTO), "width_px": 600, "height_px": 400}
    made = board()
    wood = next(field for field in made["fields"] if field["key"] == "wood")
    wood["options"][1]["goods"] = {"front": oak}
    wood["ask_when"] = {"conditions": [{"field": "with_photo", "value": False}]}
    setup = read_setup(made)
    plain = sha256_of(GOODS)
    cases = (({"wood": "oak"}, oak["asset"]), ({"wood": "cedar"}, plain), ({"wood": "oak", "with_photo": True}, plain))
    for values, picture in cases:
        assert evaluate(setup, entries({"name": "A", **values}), assets).scene.sides[0].picture == picture
    wood["options"][1]["goods"] = {"back": oak}
    with pytest.raises(DocumentError, match="a picture for the side “back”"):
        read_setup(made)


def test_method_that_is_chosen_brings_its_limits(assets):
    made = document({"key": "how", "kind": "method", "label": "Made by", "methods": ["carving", "print"]})
    made["materials"]["methods"]["print"] = {"name": "Printing", "done": "printed", "least_letter_mm": 90}
    made["sides"][0]["areas"][0]["method_field"] = "how"
    setup = read_setup(made)
    for chosen, method, is_small in (("carving", "carving", False), ("print", "print", True), ("", "carving", False)):
        evaluation = evaluate(setup, entries({"name": "TERN", "how": chosen}), assets)
        assert next(evaluation.scene.areas).method == method
        assert any(finding.code == "too_small" for finding in evaluation.verdict.findings) is is_small
    made["sides"][0]["areas"][0]["method_field"] = "wood"
    with pytest.raises(DocumentError, match="which is no choice of one"):
        read_setup(made)
    assert ask(setup, entries({"how": "print"})).text("how") == "print"
