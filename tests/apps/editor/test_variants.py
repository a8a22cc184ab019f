import re

import pytest

from yenzo.apps.designs.models import Design
from yenzo.apps.products.services.drafts import undo_edit
from yenzo.apps.products.services.publishing import publish_setup

BASE = "/workshop/products/board"
AXES = {"name-0": "Size", "values-0": "Small\nLarge", "name-1": "Wood", "values-1": " Cedar \n\nOak\nOak"}


@pytest.fixture
def seller(sign_in):
    return sign_in("seller")


def offer(product):
    product.refresh_from_db()
    return product.draft["offer"]


def names(product):
    return [variant["name"] for variant in offer(product).get("variants", [])]


def test_axes_make_every_combination_and_keep_what_was_said_of_one(seller, product, actors):
    assert seller.post(f"{BASE}/axes/", AXES).status_code == 302
    assert names(product) == ["Small, Cedar", "Small, Oak", "Large, Cedar", "Large, Oak"]
    oak = offer(product)["variants"][1]["key"]
    facts = {"name": "Small, Oak", "price_difference": "7.50", "sku": "B-SO", "swatch": "#aa8844"}
    assert seller.post(f"{BASE}/variants/{oak}/", facts).status_code == 302
    seller.post(f"{BASE}/variants/{offer(product)['variants'][3]['key']}/remove/")
    seller.post(f"{BASE}/axes/", {**AXES, "values-0": "Tiny\nSmall\nLarge"})
    # What was removed can't be had: only the new size brings new combinations.
    assert names(product) == ["Tiny, Cedar", "Tiny, Oak", "Small, Cedar", "Small, Oak", "Large, Cedar"]
    page = seller.get(f"{BASE}/variants/").content.decode()
    assert "isn't made" in page
    (missing,) = re.findall(r'name="key" value="([^"]+)"', page)
    seller.post(f"{BASE}/axes/make/", {"key": missing})
    assert names(product)[-1] == "Large, Oak"
    assert seller.post(f"{BASE}/axes/make/", {"key": missing}).status_code == 404
    kept = offer(product)["variants"][3]
    assert (kept["price_difference"], kept["sku"]) == ("7.50", "B-SO")
    seller.post(f"{BASE}/axes/", {**AXES, "values-1": "Oak"})
    assert names(product) == ["Small, Oak", "Large, Oak"]
    undo_edit(actors["seller"], product.pk)
    assert len(names(product)) == 6
    seller.post(f"{BASE}/axes/", {})
    assert "axes" not in offer(product)
    assert len(names(product)) == 6


def test_variants_that_are_there_find_their_place_by_name_or_keep_the_axes_away(seller, product):
    for name in ("Small", "Large"):
        seller.post(f"{BASE}/variants/", {"name": name, "price_difference": "3", "swatch": "#aa8844"})
    seller.post(f"{BASE}/axes/", {"name-0": "Size", "values-0": "Small\nLarge\nHuge"})
    assert names(product) == ["Small", "Large", "Huge"]
    assert offer(product)["variants"][0]["price_difference"] == "3"
    seller.post(f"{BASE}/axes/", {})
    refused = seller.post(f"{BASE}/axes/", {"name-0": "Wood", "values-0": "Cedar"})
    assert refused.status_code == 422
    assert "“Small” has no place on these axes." in refused.content.decode()
    assert "Cedar" in refused.content.decode()


@pytest.mark.parametrize(
    ("given", "said"),
    [
        ({"name-0": "Size"}, "An axis needs a name and values."),
        ({"values-0": "Small"}, "An axis needs a name and values."),
        ({"name-0": "Size", "values-0": "x" * 81}, "each of at most 80 characters"),
        ({"name-0": "Size", "values-0": "\n".join(map(str, range(101)))}, "At most 100 values"),
        ({"name-0": "A", "values-0": "1", "name-1": "A", "values-1": "2"}, "There is an axis “A” already."),
        (
            {"name-0": "A", "values-0": "\n".join(map(str, range(90))), "name-1": "B", "values-1": "1\n2\n3"},
            "270 variants",
        ),
    ],
)
def test_axes_without_sense_are_refused_in_words(seller, product, given, said):
    refused = seller.post(f"{BASE}/axes/", given)
    assert (refused.status_code, said in refused.content.decode()) == (422, True)
    assert "axes" not in offer(product)


def test_customer_picks_along_axes_and_never_what_is_not_made(seller, product, owner, client):
    seller.post(f"{BASE}/axes/", AXES)
    keys = {variant["name"]: variant["key"] for variant in offer(product)["variants"]}
    seller.post(f"{BASE}/variants/{keys['Large, Oak']}/remove/")
    facts = {"name": "Large, Cedar", "price_difference": "20", "swatch": "#aa8844"}
    seller.post(f"{BASE}/variants/{keys['Large, Cedar']}/", facts)
    product.refresh_from_db()
    publish_setup(owner, product.pk, seen_version=product.draft_version)
    page = client.get("/goods/board/").content.decode()
    assert page.count('name="axis-') == 4
    assert "+ £20.00" in page
    form = {"entry-name": "Otter", "entry-lettering": "quayside", "entry-finish": "gold", "variant": keys["Small, Oak"]}
    answer = client.post("/goods/board/preview/", {**form, "axis-size": "large", "axis-wood": "oak"}).content.decode()
    assert f'name="variant" value="{keys["Large, Cedar"]}"' in answer
    assert 'id="axis-wood-cedar" name="axis-wood" value="cedar" checked' in answer
    same = client.post("/goods/board/preview/", {**form, "axis-size": "small", "axis-wood": "oak"}).content.decode()
    assert 'id="axes"' not in same
    client.post("/goods/board/basket/", {**form, "axis-size": "large", "axis-wood": "oak"})
    assert Design.objects.get().personalization.entries["variant"] == keys["Large, Cedar"]
    assert "Large, Cedar" in client.get("/basket/").content.decode()


def test_renamed_axis_and_value_keep_prices_skus_and_names_of_their_own(seller, product):
    seller.post(f"{BASE}/axes/", AXES)
    facts = {"price_difference": "7.50", "sku": "B-SO", "swatch": "#aa8844"}
    small, plain = offer(product)["variants"][1]["key"], offer(product)["variants"][0]["key"]
    seller.post(f"{BASE}/variants/{small}/", {**facts, "name": "Small, Oak"})
    seller.post(f"{BASE}/variants/{plain}/", {**facts, "name": "The plain one", "sku": ""})
    before = [(one["key"], one["price_difference"]) for one in offer(product)["variants"][:2]]
    renamed = {"name-0": "How large", "values-0": "Little\nLarge", "name-1": "Wood", "values-1": "Cedar\nOld oak"}
    assert seller.post(f"{BASE}/axes/", renamed).status_code == 302
    assert [(one["key"], one["price_difference"]) for one in offer(product)["variants"][:2]] == before
    assert names(product) == ["The plain one", "Little, Old oak", "Large, Cedar", "Large, Old oak"]
    assert offer(product)["axes"][0]["name"] == "How large"


def test_variants_with_something_of_their_own_go_only_when_that_is_meant(seller, product):
    seller.post(f"{BASE}/axes/", AXES)
    small = offer(product)["variants"][1]["key"]
    facts = {"name": "Small, Oak", "price_difference": "7.50", "sku": "B-SO", "swatch": "#aa8844"}
    seller.post(f"{BASE}/variants/{small}/", facts)
    fewer = {**AXES, "values-1": "Cedar"}
    asked = seller.post(f"{BASE}/axes/", fewer)
    assert asked.status_code == 422
    assert "With that goes “Small, Oak” with its price and SKU." in asked.content.decode()
    assert len(names(product)) == 4
    seller.post(f"{BASE}/axes/", {**fewer, "sure": "on"})
    assert names(product) == ["Small, Cedar", "Large, Cedar"]


def test_prices_are_given_by_the_value_for_all_variants_at_once(seller, product):
    seller.post(f"{BASE}/axes/", AXES)
    axes = offer(product)["axes"]
    field = {value["name"]: f"{axis['key']}/{value['key']}" for axis in axes for value in axis["values"]}
    given = {field["Small"]: "0", field["Large"]: "12", field["Cedar"]: "", field["Oak"]: "7.50"}
    assert seller.post(f"{BASE}/axes/prices/", given).status_code == 302
    prices = {one["name"]: one.get("price_difference", "0") for one in offer(product)["variants"]}
    assert prices == {"Small, Cedar": "0", "Small, Oak": "7.50", "Large, Cedar": "12", "Large, Oak": "19.50"}
    page = seller.get(f"{BASE}/variants/").content.decode()
    assert 'value="7.50"' in page
    assert "prices of their own" not in page
    own = next(one["key"] for one in offer(product)["variants"] if one["name"] == "Large, Oak")
    seller.post(f"{BASE}/variants/{own}/", {"name": "Large, Oak", "price_difference": "25", "swatch": "#aa8844"})
    assert "Some have prices of their own now" in seller.get(f"{BASE}/variants/").content.decode()
    assert seller.post(f"{BASE}/axes/prices/", {field["Large"]: "much"}).status_code == 422
