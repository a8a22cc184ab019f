"""Arrangements and effects of own items: what a seller keeps is what customers can begin from and pick."""

import json

import pytest

from tests.core.scene.test_own_items import own_board
from yenzo.apps.products.models import Product
from yenzo.apps.products.services.products import import_product
from yenzo.apps.products.to_core import setup_of_draft

ITEMS = [{"kind": "text", "key": "i1", "text": "SALT", "letter_mm": 20, "x_mm": 80, "y_mm": 40, "turn_deg": -8}]


@pytest.fixture
def free(owner, product):
    document = {name: value for name, value in own_board().items() if name != "materials"}
    return import_product(owner, document, key="free")


@pytest.fixture
def keep(free, sign_in):
    """Save a form of the line of own items; what it answers."""
    seller = sign_in("seller")

    def saved(aspect, **given):
        seen = Product.objects.get(pk=free.pk).draft_version
        address = f"/workshop/products/free/lines/own/{aspect}/"
        return seller.post(address, {"seen": seen, **given}).content.decode()

    return saved


def own_field():
    return setup_of_draft(Product.objects.get(key="free")).field("own")


def hands(items=ITEMS):
    return json.dumps({"items": {"own": items}})


def test_what_lies_in_the_try_out_is_kept_under_a_name_and_taken_away_again(keep):
    answer = keep("beginnings", new_name="Salt above", hands=hands())
    assert "Customers can begin from" in answer
    [kept] = own_field().beginnings
    assert (kept.key, kept.name) == ("salt-above", "Salt above")
    assert (kept.items[0].text, kept.items[0].x_mm, kept.items[0].turn_deg) == ("SALT", 80, -8)
    keep("beginnings", **{"name-salt-above": "Salt on top"}, new_name="Salt above", hands=hands())
    assert [(one.key, one.name) for one in own_field().beginnings] == [
        ("salt-above", "Salt on top"),
        ("salt-above-2", "Salt above"),
    ]


def test_gestures_that_no_answer_has_shown_yet_are_kept_too(keep):
    move = {"do": "move", "item": "own--i1", "shift_mm": [5, 0]}
    keep("beginnings", new_name="Salt", hands=hands(), gestures=json.dumps([move]))
    assert own_field().beginnings[0].items[0].x_mm == 85


def test_taking_an_arrangement_away_is_asked_first(keep):
    keep("beginnings", new_name="Salt", hands=hands())
    assert "the arrangement “Salt”" in keep("beginnings", **{"name-salt": ""}, hands="")
    assert own_field().beginnings


@pytest.mark.parametrize(
    ("items", "said"),
    [
        ([], "Put something on the goods"),
        ([{"kind": "picture", "key": "i1", "file": "a" * 64}], "isn't the workshop's"),
    ],
)
def test_what_cannot_be_kept_says_why_and_changes_nothing(keep, items, said):
    answer = keep("beginnings", new_name="Salt", hands=hands(items)).replace("&#x27;", "'")
    assert said in answer
    assert own_field().beginnings == ()


def test_effects_of_own_texts_are_offered_and_outlive_a_change_of_what_may_be_added(keep):
    stroke = {"is_on": "on", "color": "finishes/gold", "width_mm": "1.5", "place": "outside"}
    assert "A text may have" in keep("own-stroke", **stroke)
    assert own_field().texts.effects.names == ("stroke",)
    shadow = {"is_on": "on", "color": "finishes/gold", "across_mm": "1", "down_mm": "1"}
    keep("own-shadow", **shadow)
    assert own_field().texts.effects.names == ("stroke", "shadow")
    keep("own-stroke", **{**stroke, "is_on": ""})
    assert own_field().texts.effects.names == ("shadow",)


def test_form_of_an_effect_offers_no_other_entry_as_its_color(free, sign_in):
    form = sign_in("seller").get("/workshop/products/free/lines/own/own-stroke/").content.decode()
    assert 'value="finishes/gold"' in form
    assert 'value="field/' not in form
