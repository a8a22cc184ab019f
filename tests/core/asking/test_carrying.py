"""Carrying a design over: what there is a place for goes along, what there is none for is named, nothing is doubled."""

import pytest

from tests.core.conftest import board, upload
from tests.core.scene.test_own_items import own_board
from yenzo.core.asking.ask import ask
from yenzo.core.asking.carrying import carry
from yenzo.core.documents.reading import read_entries, read_setup
from yenzo.core.evaluation import evaluate

GIVEN = {"values": {"name": "Wind & Whey", "with_photo": True, "lettering": "log-book", "finish": "white"}}


def field(kind="line", **others):
    return {"key": others.get("label", "it").lower(), "kind": kind, "label": "It", **others}


def carried(other, source=None, given=None):
    source = read_setup(source or board())
    entries = read_entries(given or {**GIVEN, "uploads": {"photo": upload()}})
    return carry(source, ask(source, entries), entries, read_setup(other))


def goods(*fields):
    document = board()
    document["fields"], document["placements"], document["charges"] = list(fields), [], []
    return document


def test_a_design_carried_to_the_same_goods_is_the_same_design(assets):
    setup, entries = read_setup(board()), read_entries({**GIVEN, "uploads": {"photo": upload()}})
    found = carried(board())
    assert found.left_out == ()
    one, other = (evaluate(setup, given, assets).scene.sides[0].digest for given in (entries, found.entries))
    assert one == other


def test_a_text_goes_as_it_was_typed_where_one_is_called_the_same_and_else_where_there_is_room():
    source = board()
    source["fields"][0]["label"] = "NAME"
    assert carried(goods(field(label="Motto"), field(label="Name")), source).entries.values == {"name": "Wind & Whey"}
    assert carried(goods(field(label="Motto")), source).entries.values == {"motto": "Wind & Whey"}


def test_what_finds_no_place_is_named():
    assert carried(goods(field("number", label="Count"))).left_out == ("Wind & Whey", "otter.jpg")


def test_several_lines_go_to_no_single_line():
    source = goods(field("paragraph", label="Words"))
    found = carried(goods(field(label="Name")), source, {"values": {"words": "One\nTwo"}})
    assert (found.entries.values, found.left_out) == ({}, ("One\nTwo",))


def test_choices_go_along_only_where_they_are_offered():
    other = goods(
        field("typeface", label="Letters", typefaces=["quayside"]),
        field("color", label="Paint", palette="finishes", colors=["white"]),
    )
    assert carried(other).entries.values == {"paint": "white"}


@pytest.mark.parametrize("kinds", [["png"], ["jpeg"]])
def test_files_go_where_their_kind_is_taken_and_what_must_be_wanted_for_them_is(kinds):
    other = board()
    photo = next(one for one in other["fields"] if one["key"] == "photo")
    photo["kinds"] = kinds
    found = carried(other)
    is_taken = kinds == ["jpeg"]
    assert (list(found.entries.uploads) == ["photo"]) is is_taken
    assert found.entries.values.get("with_photo", False) is is_taken
    assert ("otter.jpg" in found.left_out) is not is_taken


def test_texts_and_pictures_become_own_items_and_the_other_way_round():
    found = carried(own_board())
    assert [item.kind for item in found.entries.items["own"]] == ["text", "picture"]
    assert [one.name for one in [found.entries.uploads["own"]]] == ["otter.jpg"]
    items = [{"kind": "text", "key": "i1", "text": "Salt"}, {"kind": "text", "key": "i2", "text": "Rye"}]
    back = carried(board(), own_board(), {"values": {}, "items": {"own": items}})
    assert back.entries.values["name"] == "Salt"
    assert back.left_out == ("Rye",)


def test_what_is_not_asked_does_not_go_along():
    given = {"values": {"name": "Otter", "with_photo": False}, "uploads": {"photo": upload()}}
    found = carried(board(), given=given)
    assert (found.entries.uploads, found.left_out) == ({}, ())


def test_no_more_own_items_than_there_is_room_for():
    source = goods(*(field(label=f"Line{number}") for number in range(6)))
    values = {f"line{number}": f"Text {number}" for number in range(6)}
    found = carried(own_board(), source, {"values": values})
    assert len(found.entries.items["own"]) == 4
    assert found.left_out == ("Text 4", "Text 5")


def test_what_goes_where_nothing_is_asked_found_no_place():
    cedar = {"match": "all", "conditions": [{"field": "wood", "value": "oak"}]}
    wood = next(one for one in board()["fields"] if one["key"] == "wood")
    hidden = goods(wood, field(label="Motto", ask_when=cedar))
    assert carried(hidden).left_out == ("Wind & Whey", "otter.jpg")
    assert "motto" not in carried(hidden).entries.values
    shown = goods(wood, field(label="Motto", ask_when=cedar), field(label="Name"))
    assert carried(shown).entries.values == {"name": "Wind & Whey"}


def test_what_is_asked_without_a_wish_wishes_for_nothing():
    no = {"match": "none", "conditions": [{"field": "gift", "value": True}]}
    other = goods(field("yes_no", label="Gift"), field(label="Name", ask_when=no))
    assert carried(other).entries.values == {"name": "Wind & Whey"}


def test_a_file_that_there_is_no_room_for_does_not_go_along_unseen():
    found = carried(own_board(most=1))
    assert [item.kind for item in found.entries.items["own"]] == ["text"]
    assert (found.entries.uploads, found.left_out) == ({}, ("otter.jpg",))
