import json

import pytest

from tests.core.conftest import board
from yenzo.core.documents.faults import missing_materials
from yenzo.core.documents.reading import dump_document, read_entries, read_setup
from yenzo.core.errors import DocumentError


def changed(path, value):
    document = board()
    place = document
    for step in path[:-1]:
        place = place[step]
    place[path[-1]] = value
    return document


def test_setup_written_and_read_again_is_the_same(setup):
    again = read_setup(json.dumps(dump_document(setup)))
    assert again == setup


@pytest.mark.parametrize(
    ("path", "value", "words"),
    [
        (("typo",), 1, "typo"),
        (("offer", "base_price"), 86.0, "as text"),
        (("offer", "base_price"), "-1", "greater than or equal"),
        (("fields", 1, "key"), "name", "2 times among the fields"),
        (("placements", 0, "area"), "lid", "front / lid"),
        (("placements", 0, "field"), "gone", "“gone”"),
        (("placements", 1, "field"), "name", "can't be placed as artwork"),
        (("charges", 2, "amounts"), {"elm": "3.00"}, "“elm”"),
        (("charges", 0, "field"), "wood", "by the character"),
        (("placements", 0, "typeface"), {"field": "wood"}, "no typeface field"),
        (("placements", 0, "least_mm"), 90, "above the most"),
        (("sides", 0, "scale", "end_px"), [0, 0], "lie on each other"),
        (("sides", 0, "areas", 0, "safe_mm"), 49, "leaves nothing"),
        (("fields", 3, "ask_when", "conditions", 0, "field"), "nobody", "“nobody”"),
        (("fields", 3, "ask_when", "conditions", 0, "value"), "perhaps", "yes or no"),
    ],
)
def test_contradiction_in_setup_is_refused_in_words(path, value, words):
    with pytest.raises(DocumentError, match="set-up document can't be used") as caught:
        read_setup(changed(path, value))
    assert words in caught.value.message


def test_fields_that_wait_for_each_other_are_refused_naming_both():
    document = board()
    document["fields"][2]["ask_when"] = {"conditions": [{"field": "wood", "value": "oak"}]}
    document["fields"][4]["ask_when"] = {"conditions": [{"field": "with_photo", "value": True}]}
    with pytest.raises(DocumentError, match=r"“With a photo” → “Wood” → “With a photo”"):
        read_setup(document)


@pytest.mark.parametrize("data", ["", "{", "[]", "null", '"text"', "[" * 100_000])
def test_unreadable_document_is_refused_as_such(data):
    with pytest.raises(DocumentError):
        read_entries(data)


def test_setup_without_its_materials_names_each_that_is_missing():
    document = board()
    del document["materials"]
    told = " ".join(missing_materials(read_setup(document)))
    for name in ("carving", "quayside", "finishes"):
        assert f"“{name}”" in told


def test_text_is_composed_and_stripped_of_controls_at_the_door():
    read = read_entries({"schema": "yenzo-entries/1", "values": {"name": "e\u030c\x00\x07"}})
    assert read.values["name"] == "ě"
