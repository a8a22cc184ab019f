"""Kits in the core: their parts get keys of their own everywhere."""

import pytest

from tests.core.conftest import board, entries
from yenzo.core.documents.kits import KitUse, Override, with_kits
from yenzo.core.documents.reading import read_setup
from yenzo.core.errors import DocumentError
from yenzo.core.spine import walk


def kit(**changes):
    document = {
        "schema": "yenzo-setup/1",
        "offer": {"name": "Sewing", "base_price": "0"},
        "sections": [{"key": "sewn", "title": "Sewn"}],
        "fields": [
            {"key": "seams", "kind": "number", "label": "Seams", "section": "sewn"},
            {"key": "kind", "kind": "choice", "label": "Kind", "options": [{"key": "seams", "label": "Plain"}]},
            {
                "key": "twice",
                "kind": "computed",
                "label": "Twice",
                "formula": "seams * 2 if kind == 'seams' else 0",
                "ask_when": {"match": "any", "conditions": [{"field": "seams", "test": "filled"}]},
            },
        ],
        "charges": [{"key": "seams", "kind": "formula", "field": "twice", "formula": "twice + pieces", "least": "0"}],
    }
    return read_setup({**document, **changes})


def use(**others):
    return KitUse(key="sewing", name="Sewing", setup=kit(), **others)


def test_parts_of_a_kit_work_under_their_own_keys(assets):
    setup = with_kits(read_setup(board()), [use()])
    walked = walk(setup, entries({"name": "A", "sewing-seams": "3", "sewing-kind": "seams"}), assets)
    assert walked.asked.values["sewing-twice"] == "6"
    assert {line.key: str(line.amount) for line in walked.quote.lines}["sewing-seams"] == "7.00"
    assert setup.field("sewing-seams").section == "sewing-sewn"


def test_kit_for_some_variants_is_asked_for_those_only(assets):
    document = board()
    document["offer"]["variants"] = [{"key": "small", "name": "Small"}, {"key": "large", "name": "Large"}]
    setup = with_kits(read_setup(document), [use(variants=("large",))])
    given = {"name": "A", "sewing-seams": "3", "sewing-kind": "seams"}
    small, large = (walk(setup, entries(given, variant=variant), assets) for variant in ("small", "large"))
    assert not any(key.startswith("sewing") for key in small.asked.values)
    assert large.asked.values["sewing-twice"] == "6"


def test_line_that_others_lean_on_can_not_be_left_out():
    with pytest.raises(DocumentError, match=r"sewing-seams|sewing_seams"):
        with_kits(read_setup(board()), [use(overrides=(Override(field="seams", left_out=True),))])


def test_without_kits_a_set_up_stays_as_it_is(setup):
    assert with_kits(setup, []) is setup
