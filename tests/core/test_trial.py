"""Tries: set-ups that contradict nothing, and that nobody could order."""

import json

import pytest

from demo.installation import ROOT
from tests.core.conftest import board
from yenzo.core.cli import SHIPPED_TYPEFACES
from yenzo.core.documents.assets import FolderAssets
from yenzo.core.documents.reading import read_setup
from yenzo.core.trial import cases, find_troubles, least_price


def troubles(document, assets):
    return find_troubles(read_setup(document), assets)


def blocking(document, assets):
    return [trouble.message for trouble in troubles(document, assets) if trouble.blocks]


def test_board_can_be_ordered(assets):
    assert troubles(board(), assets) == ()


def test_letters_below_what_the_method_can_make_are_found(assets):
    document = board()
    document["placements"][0] |= {"least_mm": 5, "most_mm": 12}
    assert any("Carving needs at least 20 mm" in message for message in blocking(document, assets))


@pytest.mark.parametrize(("kinds", "found"), [(["png", "jpeg"], True), (["svg"], False)])
def test_photos_on_a_method_that_follows_outlines_are_found(assets, kinds, found):
    document = board()
    document["materials"]["methods"]["carving"]["files"] = ["dxf"]
    document["fields"][3]["kinds"] = kinds
    assert any("is a picture; Carving follows outlines" in message for message in blocking(document, assets)) is found


def test_margin_that_leaves_no_room_is_found(assets):
    document = board()
    document["sides"][0]["areas"][0]["safe_mm"] = 48
    assert blocking(document, assets)


def test_formula_that_fails_for_some_number_of_pieces_is_found_with_that_number(assets):
    document = board()
    document["charges"].append(
        {"key": "saw", "kind": "formula", "formula": "100 / (pieces - 10) + 500", "label": "Sawing"}
    )
    (message,) = blocking(document, assets)
    assert message.startswith("For 10 pieces: What “Sawing” adds to the price can't be worked out")


def test_texts_that_run_into_each_other_are_found(assets):
    document = board()
    document["placements"].append({**document["placements"][0], "key": "wood", "field": "wood"})
    assert any("runs into" in message for message in blocking(document, assets))


def test_what_only_long_entries_suffer_from_is_told_and_does_not_block(assets):
    document = board()
    document["fields"][0]["most_characters"] = 200
    found = troubles(document, assets)
    assert [(trouble.case, trouble.blocks) for trouble in found] == [("the longest entries", False)]
    assert "sticks out of “Panel”" in found[0].message


def test_what_must_be_sent_or_ticked_or_typed_to_a_shape_is_tried_as_it_must_be(assets):
    document = board()
    document["fields"] += [
        {"key": "rules", "kind": "yes_no", "label": "Rules read", "required": True},
        {
            "key": "berth",
            "kind": "line",
            "label": "Berth",
            "required": True,
            "allowed": {"letters": False},
        },
        {
            "key": "sail",
            "kind": "line",
            "label": "Sail",
            "required": True,
            "pattern": {"shapes": ["AA 99"], "passes": "GB 12", "fails": "12"},
        },
        {"key": "mail", "kind": "email", "label": "Mail", "required": True},
        {
            "key": "day",
            "kind": "date",
            "label": "Day",
            "required": True,
            "after_working_days": 3,
            "closed_weekdays": [5, 6],
        },
        {"key": "logo", "kind": "artwork", "label": "Logo", "required": True, "kinds": ["svg"]},
        {"key": "many", "kind": "artwork", "label": "Photos", "required": True, "least_files": 3, "most_files": 5},
    ]
    assert blocking(document, assets) == []


def test_every_variant_is_tried(assets):
    document = board()
    document["offer"]["variants"] = [{"key": key, "name": key.title()} for key in ("small", "large")]
    names = [case.name for case in cases(read_setup(document))]
    assert "the sample as “Large”" in names


@pytest.mark.parametrize("folder", sorted((ROOT / "demo" / "products").iterdir()), ids=lambda path: path.name)
def test_every_demo_product_can_be_ordered(folder):
    assets = FolderAssets([folder / "assets", folder, SHIPPED_TYPEFACES])
    assert blocking(json.loads((folder / "setup.json").read_text()), assets) == []


@pytest.mark.parametrize(
    ("change", "least"),
    [
        ({}, "86.00"),
        (
            {
                "variants": [
                    {"key": "a", "name": "A", "price_difference": "5"},
                    {"key": "b", "name": "B", "price_difference": "-4"},
                ]
            },
            "82.00",
        ),
    ],
)
def test_least_price_is_that_of_a_piece_with_nothing_that_need_not_be(assets, change, least):
    document = board()
    document["offer"] |= change
    assert str(least_price(read_setup(document), assets)) == least


def test_least_price_counts_what_every_piece_costs_at_least(assets):
    document = board()
    document["charges"] += [
        {"key": "saw", "kind": "per_character", "field": "name", "amount": "0.10", "least": "3"},
        {"key": "pack", "kind": "fixed", "amount": "2"},
    ]
    assert str(least_price(read_setup(document), assets)) == "91.00"
