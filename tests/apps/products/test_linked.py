"""Extras that are products of the shop: their price and SKU follow it in drafts, and stay in what is published."""

import html
from decimal import Decimal

import pytest

from yenzo.apps.products.kits import own_setup
from yenzo.apps.products.models import Product
from yenzo.apps.products.readiness import unready
from yenzo.apps.products.services.drafts import edit_draft
from yenzo.apps.products.services.products import duplicate_product, rest_products
from yenzo.apps.products.services.publishing import differs_from_live, publish_setup
from yenzo.apps.products.to_core import setup_of_draft, setup_of_revision

BASE = "/workshop/products/board/"


@pytest.fixture
def oil(owner, product):
    made = duplicate_product(owner, product.pk)
    changed(owner, made, ["offer", "name"], "Oil")
    changed(owner, made, ["offer", "base_price"], "7.25")
    changed(owner, made, ["offer", "sku"], "OIL-1")
    publish_setup(owner, made.pk, seen_version=made.draft_version)
    return made


@pytest.fixture
def seller(sign_in):
    return sign_in("seller")


@pytest.fixture
def linked(seller, product, oil):
    seller.post(f"{BASE}lines/", {"label": "With oil", "kind": "extra"})
    return seller.post(f"{BASE}lines/with-oil/extra/", {"product": oil.key, "most": "3"})


def changed(owner, product, path, value):
    operation = {"do": "set", "path": path, "value": value}
    edit_draft(owner, product.pk, [operation], seen_version=product.draft_version, label="Change")
    product.refresh_from_db()


def draft_field():
    return setup_of_draft(Product.objects.get(key="board")).field("with-oil")


def test_extra_takes_price_sku_and_picture_of_its_product_and_follows_it(owner, product, oil, linked):
    assert "“Oil” of the shop, 7.25 each, up to 3, counted as OIL-1" in html.unescape(linked.content.decode())
    extra = draft_field()
    assert (extra.price, extra.sku, extra.product) == (Decimal("7.25"), "OIL-1", oil.key)
    assert extra.picture == setup_of_draft(product).sides[0].picture
    product.refresh_from_db()
    publish_setup(owner, product.pk, seen_version=product.draft_version)
    product.refresh_from_db()
    changed(owner, oil, ["offer", "base_price"], "8.00")
    # What isn't published yet changes nothing elsewhere.
    assert draft_field().price == Decimal("7.25")
    publish_setup(owner, oil.pk, seen_version=oil.draft_version)
    assert draft_field().price == 8
    assert differs_from_live(product, setup_of_draft(product))
    # Customers pay what was published, and a kit that is published meanwhile leaves that as it is.
    assert setup_of_revision(product.live).field("with-oil").price == Decimal("7.25")
    assert own_setup(product.live).field("with-oil").price == Decimal("7.25")


def test_extra_whose_product_is_not_in_the_shop_keeps_the_draft_from_being_published(
    owner, seller, product, oil, linked
):
    rest_products(owner, [oil.pk], resting=True)
    (fault,) = unready(setup_of_draft(Product.objects.get(key="board")))
    assert fault == (
        "“With oil” is a product that isn't in the shop now. Publish it, pick another one, or type in a price."
    )
    assert draft_field().price == 5
    # Saving something else leaves the link, and says what is the matter with it.
    form = seller.get(f"{BASE}lines/with-oil/extra/").content.decode()
    assert "Oil (not in the shop now)" in form
    seller.post(f"{BASE}lines/with-oil/extra/", {"product": oil.key, "most": "4"})
    assert (draft_field().product, draft_field().most) == (oil.key, 4)


def test_extra_is_typed_in_again(seller, linked):
    seller.post(f"{BASE}lines/with-oil/extra/", {"product": "", "price": "2.50", "sku": "X", "most": "3"})
    extra = draft_field()
    assert (extra.price, extra.sku, extra.product) == (Decimal("2.50"), "X", None)
    refused = seller.post(f"{BASE}lines/with-oil/extra/", {"product": "", "price": "", "most": "3"})
    assert refused.status_code == 422
    assert "Say what one costs" in refused.content.decode()
