"""The list of products: what it shows, filters, changes for all ticked ones; and ways to begin."""

import pytest
from django.test import Client
from django.urls import reverse

from yenzo.apps.products.examples import EXAMPLES
from yenzo.apps.products.models import Product
from yenzo.apps.products.services.drafts import edit_draft
from yenzo.apps.products.services.products import duplicate_product
from yenzo.apps.products.to_core import setup_of_draft
from yenzo.core.documents.advice import find_advice

LIST_PAGE = reverse("editor:products")


@pytest.fixture
def seller(sign_in, product):
    return sign_in("seller")


def ticked(seller, what, *products, **more):
    given = {"ticked": [product.pk for product in products], "do": what, **more}
    return seller.post(reverse("editor:change_ticked"), given, follow=True).content.decode()


def named(answer):
    return {name for name in ("Board", "Board (copy)") if f">{name}</a>" in answer.content.decode()}


def test_list_is_filtered_by_state_category_and_words(seller, owner, product):
    copy = duplicate_product(owner, product.pk)
    ticked(seller, "category", copy, category="Odds")
    cases = {
        "state=live": {"Board"},
        "state=draft": {"Board (copy)"},
        "state=resting": set(),
        "state=changed": set(),
        "category=Odds": {"Board (copy)"},
        "words=NB-1": {"Board"},
        "words=copy": {"Board (copy)"},
        "": {"Board", "Board (copy)"},
    }
    for query, expected in cases.items():
        assert named(seller.get(f"{LIST_PAGE}?{query}")) == expected, query
    edit_draft(owner, product.pk, [{"do": "set", "path": ["offer", "sku"], "value": "B"}], seen_version=0, label="SKU")
    assert named(seller.get(f"{LIST_PAGE}?state=changed")) == {"Board"}
    assert "No product is like that" in seller.get(f"{LIST_PAGE}?words=zzz").content.decode()


def test_duplicate_is_a_draft_with_the_same_lines(seller, product):
    assert "Made: “Board (copy)”" in ticked(seller, "duplicate", product)
    copy = Product.objects.get(name="Board (copy)")
    assert copy.live is None
    assert setup_of_draft(copy).fields == setup_of_draft(product).fields
    assert setup_of_draft(copy).offer.sku == ""


def test_resting_product_leaves_the_shop_and_comes_back(seller, product, put_in_basket, visitor, browser_of):
    put_in_basket(visitor, name="Tern")
    assert "1 product taken out of the shop" in ticked(seller, "rest", product)
    assert Client().get("/goods/board/").status_code == 404
    basket = browser_of(visitor).get("/basket/").content.decode()
    assert "sell this at the moment" in basket
    assert "?design=" not in basket
    assert "0 products taken out" in ticked(seller, "rest", product)
    assert "put back into the shop" in ticked(seller, "wake", product)
    assert Client().get("/goods/board/").status_code == 200


def test_category_of_the_ticked_is_a_step_that_can_be_undone(seller, product):
    assert "1 product put in the category “Boards”" in ticked(seller, "category", product, category=" Boards ")
    product.refresh_from_db()
    assert (product.category, product.draft["offer"]["category"]) == ("Boards", "Boards")
    assert seller.post("/workshop/products/board/undo/").status_code == 200
    product.refresh_from_db()
    assert product.category == ""


def test_nothing_ticked_or_wanted_is_said(seller, product):
    assert "Tick the products first" in ticked(seller, "rest")
    assert "Nothing was changed" in ticked(seller, "", product)


@pytest.mark.parametrize("key", EXAMPLES)
def test_example_makes_a_form_that_works_at_once(seller, key):
    given = {"name": f"From {key}", "base_price": "20", "example": key}
    answer = seller.post(reverse("editor:new_product"), given)
    made = Product.objects.get(name=f"From {key}")
    assert answer.url == reverse("editor:setup", args=[made.key])
    setup = setup_of_draft(made)
    assert len(setup.fields) == len(EXAMPLES[key].fields)
    assert find_advice(setup) == []
    assert seller.get(reverse("editor:try_out", args=[made.key])).status_code == 200
    publish = seller.post(reverse("editor:publish", args=[made.key]), {"seen": "0"}).content.decode()
    assert "Revision 1 is live" in publish


def test_first_steps_tick_themselves_until_something_is_live(seller, product):
    assert "First steps" not in seller.get(LIST_PAGE).content.decode()
    ticked(seller, "rest", product)
    page = seller.get(LIST_PAGE).content.decode()
    assert "First steps" in page
    assert "Mark the scale of “Front”" in page
    assert page.count("done-word") >= 4


@pytest.mark.parametrize("sent", ["9" * 40, "-1", "x", "٣", "987654321"])
def test_ticks_that_name_no_product_change_nothing(seller, product, sent):
    for what in ("rest", "duplicate", "category", "kit"):
        given = {"ticked": sent, "do": what, "kit": sent}
        answer = seller.post(reverse("editor:change_ticked"), given, follow=True)
        assert "Tick the products first" in answer.content.decode()
    kit = {"ticked": product.pk, "do": "kit", "kit": sent}
    assert "Nothing was changed" in seller.post(reverse("editor:change_ticked"), kit, follow=True).content.decode()
    assert Product.objects.count() == 1


def test_ticked_products_are_published_together_and_the_list_stays_filtered(seller, product, owner):
    product.refresh_from_db()
    good, bad = (duplicate_product(owner, product.pk) for _ in range(2))
    gone = [{"do": "set", "path": ["fields", "name", "most_characters"], "value": 4}]
    edit_draft(owner, good.pk, gone, seen_version=good.draft_version, label="x")
    tiny = [
        {"do": "set", "path": ["placements", "name", "most_mm"], "value": 31},
        {"do": "set", "path": ["sides", "front", "areas", "panel", "height_mm"], "value": 20},
    ]
    edit_draft(owner, bad.pk, tiny, seen_version=bad.draft_version, label="x")
    given = {"do": "publish", "ticked": [good.pk, bad.pk], "list": "state=draft&words=Bo"}
    answer = seller.post(reverse("editor:change_ticked"), given, follow=True)
    page = answer.content.decode()
    assert answer.redirect_chain[-1][0].endswith("?state=draft&words=Bo")
    assert "1 product published." in page
    assert f"“{bad.name}” isn&#x27;t published:" in page
    good.refresh_from_db()
    bad.refresh_from_db()
    assert (good.live.number, bad.live) == (1, None)


def test_ticked_drafts_are_deleted_and_what_was_published_stays(seller, product, owner):
    copy = duplicate_product(owner, product.pk)
    given = {"do": "delete", "ticked": [copy.pk, product.pk]}
    page = seller.post(reverse("editor:change_ticked"), given, follow=True).content.decode()
    assert "1 product deleted. 1 product kept: what was published once stays." in page
    assert list(Product.objects.values_list("pk", flat=True)) == [product.pk]
