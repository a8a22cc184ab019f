"""How often pages ask the database: as often for many as for few."""

import uuid

import pytest
from django.db import connection
from django.test.utils import CaptureQueriesContext

from yenzo.apps.products.models import Product, Revision
from yenzo.apps.stock.models import StockItem


@pytest.fixture
def many_products(product):
    """A shop of sixty products more, each live with a revision of its own."""
    live = product.live
    for number in range(60):
        made = Product.objects.create(key=f"more-{number}", name=f"More {number:02}", draft=product.draft)
        revision = Revision.objects.get(pk=live.pk)
        revision.pk, revision.product, revision.sha256 = None, made, f"{number:064x}"
        revision.name = made.name
        revision.save()
        made.live = revision
        made.save()
    return product


def queries(client, address, **data):
    client.get(address)
    with CaptureQueriesContext(
        connection,
    ) as asked:
        answer = client.post(address, data) if data else client.get(address)
    assert answer.status_code in {200, 302}, answer.content
    return len(asked), [one["sql"][:90] for one in asked]


def test_shop_home_shows_pages_and_reads_no_document(many_products, client):
    count, said = queries(client, "/")
    assert count <= 8, said
    page = client.get("/").content.decode()
    assert page.count("goods-card") == 48
    assert "Page 1 of 2" in page
    assert "More 58" in client.get("/?page=2").content.decode()
    assert not any('"catalogue_revision"."document"' in one["sql"] for one in connection.queries)


def test_product_list_shows_pages(many_products, sign_in):
    seller = sign_in("seller")
    count, said = queries(seller, "/workshop/products/")
    assert count <= 16, said
    assert "Page 1 of 2" in seller.get("/workshop/products/").content.decode()


def test_basket_and_checkout_of_ten_lines_ask_as_often_as_of_one(visitor, put_in_basket, browser_of, product):
    StockItem.objects.create(sku="NB-1", pieces=50)
    shopper = browser_of(visitor)
    put_in_basket(visitor)
    one, _ = queries(shopper, "/basket/")
    for number in range(9):
        put_in_basket(visitor, name=f"Tern {number}")
    ten, said = queries(shopper, "/basket/")
    assert ten == one
    assert ten <= 8, said
    checkout, said = queries(shopper, "/checkout/")
    assert checkout <= 12, said


def test_product_page_and_preview_ask_for_the_stock_once(product, client):
    for number in range(300):
        StockItem.objects.create(sku=f"OTHER-{number}", pieces=3)
    count, said = queries(client, "/goods/board/")
    assert count <= 8, said
    client.get("/goods/board/")
    with CaptureQueriesContext(connection) as asked:
        client.post("/goods/board/preview/", {"entry-name": "Tern"})
    assert len(asked) <= 4, [one["sql"][:90] for one in asked]


def test_order_list_and_page_ask_as_often_for_many(order, visitor, put_in_basket, checkout_of, sign_in):
    from tests.apps.conftest import GUEST
    from yenzo.apps.shop.services.checkout import order_basket

    desk = sign_in("desk")
    few, _ = queries(desk, "/workshop/orders/")
    for _ in range(5):
        order_basket(GUEST, checkout_of(uid := uuid.uuid4(), [put_in_basket(uid)]))
    many, said = queries(desk, "/workshop/orders/")
    assert many == few, said
    assert many <= 10, said
    with CaptureQueriesContext(connection) as asked:
        desk.get("/workshop/orders/")
    # Neither records nor set-ups are read for it.
    assert not any('."record"' in one["sql"] or '."document"' in one["sql"] for one in asked)
