"""Kits in the core: their parts get keys of their own everywhere."""

import pytest

from tests.core.conftest import board, entries
from yenzo.core.documents.kit_use import KitUse, Override
from yenzo.core.documents.kits import lands_nowhere, with_kits
from yenzo.core.documents.reading import read_setup
from yenzo.core.errors import DocumentError
from yenzo.core.evaluation import evaluate


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
    evaluation = evaluate(setup, entries({"name": "A", "sewing-seams": "3", "sewing-kind": "seams"}), assets)
    assert evaluation.asked.values["sewing-twice"] == "6"
    assert {line.key: str(line.amount) for line in evaluation.quote.lines}["sewing-seams"] == "7.00"
    assert setup.field("sewing-seams").section == "sewing-sewn"


def test_kit_for_some_variants_is_asked_for_those_only(assets):
    document = board()
    document["offer"]["variants"] = [{"key": "small", "name": "Small"}, {"key": "large", "name": "Large"}]
    setup = with_kits(read_setup(document), [use(variants=("large",))])
    given = {"name": "A", "sewing-seams": "3", "sewing-kind": "seams"}
    small, large = (evaluate(setup, entries(given, variant=variant), assets) for variant in ("small", "large"))
    assert not any(key.startswith("sewing") for key in small.asked.values)
    assert large.asked.values["sewing-twice"] == "6"


def test_line_that_others_lean_on_can_not_be_left_out():
    with pytest.raises(DocumentError, match=r"sewing-seams|sewing_seams"):
        with_kits(read_setup(board()), [use(overrides=(Override(field="seams", left_out=True),))])


def test_without_kits_a_set_up_stays_as_it_is(setup):
    assert with_kits(setup, []) is setup


def greeting_kit(*more, lands_on="Photo"):
    fields = [{"key": "words", "kind": "line", "label": "Words", "lands_on": lands_on}, *more]
    return KitUse(key="card", name="Card", setup=kit(sections=[], charges=[], fields=fields))


def landings(setup):
    return [(one.field, one.side, one.area) for one in setup.placements if one.field.startswith("card-")]


def test_line_of_a_kit_lands_on_the_area_of_that_name(assets):
    setup = with_kits(read_setup(board()), [greeting_kit(lands_on=" photo")])
    assert landings(setup) == [("card-words", "front", "photo")]
    (placement,) = (one for one in setup.placements if one.field == "card-words")
    # As for any new line: as high as the area has room, in the customer's own typeface and color.
    assert (placement.least_mm, placement.most_mm) == (20, 52)
    assert (placement.typeface.field, placement.color.field) == ("lettering", "finish")
    evaluation = evaluate(setup, entries({"name": "TERN", "card-words": "Hi"}), assets)
    assert [text.text for area in evaluation.scene.areas for text in area.letterings] == ["TERN", "Hi"]


def test_line_of_a_kit_lands_nowhere_where_no_area_has_that_name():
    own, use_of = read_setup(board()), greeting_kit(lands_on="Lid")
    assert landings(with_kits(own, [use_of])) == []
    assert lands_nowhere(use_of, own) == ["“Words” goes on the ticket only: no imprint area is called “Lid”."]
    assert lands_nowhere(greeting_kit(), own) == []


def test_product_says_where_a_line_of_its_kit_lands_and_how():
    override = Override(
        field="words",
        areas=("front/panel",),
        typeface={"fixed": "log-book"},
        color={"palette": "finishes", "color": "white"},
        most_mm=15,
    )
    setup = with_kits(read_setup(board()), [greeting_kit().model_copy(update={"overrides": (override,)})])
    assert landings(setup) == [("card-words", "front", "panel")]
    placement = setup.placements[-1]
    assert (placement.least_mm, placement.most_mm) == (15, 15)
    assert (placement.typeface.fixed, placement.color.color) == ("log-book", "white")
    nowhere = Override(field="words", areas=())
    assert landings(with_kits(read_setup(board()), [greeting_kit().model_copy(update={"overrides": (nowhere,)})])) == []


def test_kit_that_asks_for_a_typeface_is_set_in_that():
    face = {"key": "face", "kind": "typeface", "label": "Face", "typefaces": ["levant"], "default": "levant"}
    setup = with_kits(read_setup(board()), [greeting_kit(face)])
    assert setup.placements[-1].typeface.field == "card-face"
    assert setup.placements[-1].color.field == "finish"


def test_artwork_of_a_kit_lands_and_an_area_that_is_gone_is_told():
    logo = {"key": "logo", "kind": "artwork", "label": "Logo", "lands_on": "Panel"}
    setup = with_kits(read_setup(board()), [greeting_kit(logo)])
    assert landings(setup) == [("card-words", "front", "photo"), ("card-logo", "front", "panel")]
    gone = Override(field="words", areas=("front/lid",))
    with pytest.raises(
        DocumentError, match="“Words” of the kit “Card” lands on an imprint area that “Board” no longer"
    ):
        with_kits(read_setup(board()), [greeting_kit().model_copy(update={"overrides": (gone,)})])
