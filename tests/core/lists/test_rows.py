"""Columns are told by their heads or their cells; a row's cells become entries, or are told as troubles."""

import pytest

from tests.core.conftest import board
from yenzo.core.asking.second_look.listed import twice_in_list
from yenzo.core.documents.entries import Entries
from yenzo.core.documents.reading import read_setup
from yenzo.core.lists.columns import match_columns, targets_of
from yenzo.core.lists.rows import read_row
from yenzo.core.lists.tables import read_pasted
from yenzo.core.translation import override_language


def setup_with(**parts):
    return read_setup(board() | parts)


@pytest.fixture
def setup():
    return read_setup(board())


def with_axes():
    document = board()
    document["offer"]["axes"] = [
        {"key": "size", "name": "Size", "values": [{"key": "s", "name": "Small"}, {"key": "l", "name": "Large"}]},
        {"key": "hue", "name": "Hue", "values": [{"key": "r", "name": "Red"}, {"key": "b", "name": "Blue"}]},
    ]
    document["offer"]["variants"] = [
        {"key": "sr", "name": "Small, Red", "at": {"size": "s", "hue": "r"}},
        {"key": "lr", "name": "Large, Red", "at": {"size": "l", "hue": "r"}},
        {"key": "lb", "name": "Large, Blue", "at": {"size": "l", "hue": "b"}},
    ]
    return read_setup(document)


def columns(setup, pasted, remembered=()):
    return match_columns(read_pasted(pasted), targets_of(setup), dict(remembered))


def test_heads_are_matched_word_for_word_nearly_and_by_key(setup):
    found = columns(setup, "Name of the boats\twood\tPieces\tBerth\nOtter\tOak\t2\t14")
    assert found.targets == ("name", "wood", "@pieces", "")
    assert found.has_heads
    assert found.heads == ("Name of the boats", "wood", "Pieces", "Berth")


def test_head_that_was_matched_before_is_matched_again(setup):
    assert columns(setup, "Rufname\nOtter", {"rufname": "name"}).targets == ("name",)
    assert columns(setup, "Rufname\nOtter", {"rufname": "gone"}).targets == ("name",)
    assert not columns(setup, "Rufname\nOtter", {"rufname": "gone"}).has_heads


def test_columns_without_heads_are_told_by_what_can_be_chosen_and_then_in_turn(setup):
    found = columns(setup, "oak\tOtter\nCedar\tWind\nCedar\tWhey")
    assert found.targets == ("wood", "name")
    assert not found.has_heads


def test_heads_that_say_nothing_are_told_from_what_stands_below_them(setup):
    found = columns(setup, "Given\tOf what\tHow many\nOtter\toak\t2\nWind\tCedar\t1\nWhey\tCedar\t1")
    assert found.has_heads
    assert found.targets == ("name", "wood", "@pieces")
    assert found.heads == ("Given", "Of what", "How many")


def test_two_columns_never_give_the_same(setup):
    assert columns(setup, "Wood\tWood\nOak\tOak").targets == ("wood", "")


def test_targets_are_what_a_cell_has_room_for(setup):
    assert [target.key for target in targets_of(setup)] == [
        "name",
        "lettering",
        "with_photo",
        "wood",
        "finish",
        "@pieces",
    ]


def test_cells_become_entries_by_what_people_call_things(setup):
    targets = ("name", "lettering", "wood", "finish", "with_photo", "@pieces", "")
    cells = ("Otter", "log book", "OAK", "gold leaf", "no", "3", "ignored")
    read = read_row(setup, Entries(), targets, cells)
    names = {key: face.name for key, face in setup.materials.typefaces.items()}
    cells = ("Otter", names["log-book"].upper(), *cells[2:])
    read = read_row(setup, Entries(), targets, cells)
    assert read.entries.values == {
        "name": "Otter",
        "lettering": "log-book",
        "wood": "oak",
        "finish": "gold",
        "with_photo": False,
    }
    assert (read.entries.pieces, read.troubles) == (3, ())


def test_empty_cell_leaves_what_all_share(setup):
    common = Entries(values={"name": "Otter", "wood": "oak"}, pieces=2)
    assert read_row(setup, common, ("name", "wood", "@pieces"), ("", "", "")).entries == common


def test_cell_that_names_nothing_offered_is_kept_for_the_checks(setup):
    assert read_row(setup, Entries(), ("wood",), ("Balsa",)).entries.values == {"wood": "Balsa"}


@pytest.mark.parametrize(("target", "cell"), [("with_photo", "perhaps"), ("@pieces", "none"), ("@pieces", "0")])
def test_cell_that_no_check_could_tell_is_told_as_a_trouble(setup, target, cell):
    read = read_row(setup, Entries(), (target,), (cell,))
    assert [one.target for one in read.troubles] == [target]
    assert f"“{cell}”" in read.troubles[0].message


def test_yes_and_days_are_read_in_the_language_of_who_reads():
    document = board()
    document["fields"].append({"key": "day", "kind": "date", "label": "Day"})
    setup = read_setup(document)
    with override_language("de"):
        read = read_row(setup, Entries(), ("with_photo", "day"), ("Ja", "14.6.2031"))
    assert read.entries.values == {"with_photo": True, "day": "2031-06-14"}


def test_variant_is_picked_along_the_axes_and_what_cannot_be_had_is_told():
    setup = with_axes()
    assert [target.key for target in targets_of(setup)][-3:] == ["@axis/size", "@axis/hue", "@pieces"]
    both = ("@axis/size", "@axis/hue")
    assert read_row(setup, Entries(), both, ("large", "Blue")).entries.variant == "lb"
    assert read_row(setup, Entries(variant="lb"), both, ("", "red")).entries.variant == "lr"
    assert "together" in read_row(setup, Entries(), both, ("Small", "Blue")).troubles[0].message
    assert "“Pink”" in read_row(setup, Entries(), both, ("Small", "Pink")).troubles[0].message


def test_row_that_says_what_an_earlier_one_says_is_asked_about():
    rows = [(1, ("Otto", "Mate")), (2, ("Ines", "Mate")), (4, ("OTTO", "mate")), (5, ("", ""))]
    found = twice_in_list(rows)
    assert list(found) == [4]
    assert "row 1" in found[4].message
