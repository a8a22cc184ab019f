"""Stock: counted, shown, taken by orders and given back."""

import pytest
from django.urls import reverse

from yenzo.apps.accounts.rights import CUSTOMER, Actor
from yenzo.apps.orders.models import Order
from yenzo.apps.orders.services.orders import OrderError, cancel_order
from yenzo.apps.products.services.drafts import edit_draft
from yenzo.apps.products.services.products import rest_products
from yenzo.apps.products.services.publishing import publish_setup
from yenzo.apps.shop.services.checkout import order_basket
from yenzo.apps.stock.models import StockItem
from yenzo.apps.stock.services.stock import count_stock, take_stock

GUEST = Actor(CUSTOMER, "Customer")
EXTRA = {"key": "rope", "kind": "extra", "label": "Rope", "price": "6.50", "sku": "ROPE"}


@pytest.fixture
def with_rope(owner, product):
    edit_draft(owner, product.pk, [{"do": "add", "path": ["fields"], "item": EXTRA}], seen_version=0, label="Rope")
    publish_setup(owner, product.pk, seen_version=1)
    count_stock(owner, {"ROPE": 3, "NB-1": 5})
    product.refresh_from_db()
    return product


def left():
    return dict(StockItem.objects.values_list("sku", "pieces"))


def test_order_takes_what_it_needs_and_cancelling_gives_it_back(owner, with_rope, put_in_basket, checkout_of, visitor):
    design = put_in_basket(visitor, name="Tern", rope="2")
    order = order_basket(GUEST, checkout_of(visitor, [design]))
    assert left() == {"ROPE": 1, "NB-1": 4}
    cancel_order(owner, order.pk)
    assert left() == {"ROPE": 3, "NB-1": 5}
    cancel_order(owner, order.pk)
    assert left() == {"ROPE": 3, "NB-1": 5}


def test_two_lines_of_an_order_that_want_more_than_is_left_are_refused_together(
    with_rope, put_in_basket, checkout_of, visitor
):
    designs = [put_in_basket(visitor, name=name, rope="2") for name in ("Tern", "Otter")]
    with pytest.raises(OrderError, match="Of ROPE only 3 are left"):
        order_basket(GUEST, checkout_of(visitor, designs))
    assert left() == {"ROPE": 3, "NB-1": 5}
    assert not Order.objects.exists()


def test_slip_says_what_is_left_and_what_is_sold_out(owner, with_rope, client):
    page = client.get("/goods/board/").content.decode()
    assert "3 left" in page
    answer = client.post("/goods/board/preview/", {"entry-name": "Tern", "entry-rope": "4", "pieces": "9"})
    assert "Of “Rope” 3 are left; 36 are wanted" in answer.content.decode()
    assert "Of “Board” 5 are left; 9 are wanted" in answer.content.decode()
    count_stock(owner, {"NB-1": 0})
    refused = client.post("/goods/board/basket/", {"entry-name": "Tern"})
    assert (refused.status_code, "“Board” is sold out" in refused.content.decode()) == (422, True)


def test_stock_is_counted_on_its_page(with_rope, sign_in):
    seller, page = sign_in("seller"), reverse("editor:stock")
    shown = seller.get(page).content.decode()
    assert "Rope, with Board" in shown
    assert "not counted" not in shown
    seen = {"initial-left-ROPE": "3", "initial-left-NB-1": "5"}
    assert seller.post(page, {"left-ROPE": "7", "left-NB-1": "", **seen}).status_code == 302
    assert left() == {"ROPE": 7}
    assert "not counted" in seller.get(page).content.decode()
    assert seller.post(page, {"left-ROPE": "-1", "initial-left-ROPE": "7"}).status_code == 422
    seller.post(page, {"left-ROPE": "0", "initial-left-ROPE": "7"})
    assert "sold out" in seller.get(f"{page}?out=on").content.decode()
    assert "Nothing is like that" in seller.get(f"{page}?words=cushion").content.decode()
    assert sign_in("desk").get(page).status_code == 403


def test_count_leaves_alone_what_orders_took_meanwhile(owner, with_rope, sign_in):
    seller, page = sign_in("seller"), reverse("editor:stock")
    count_stock(owner, {"ROPE": 5, "NB-1": 5})
    seen = {"initial-left-ROPE": "5", "initial-left-NB-1": "5"}
    take_stock(GUEST, {"ROPE": 1})
    # Only the other one was counted: what the order took stays taken.
    seller.post(page, {"left-ROPE": "5", "left-NB-1": "9", **seen})
    assert left() == {"ROPE": 4, "NB-1": 9}
    # Who counts what an order took from since then counts again.
    refused = seller.post(
        page, {"left-ROPE": "8", "left-NB-1": "9", "initial-left-ROPE": "5", "initial-left-NB-1": "9"}
    )
    assert "4 are left now. Count again." in refused.content.decode()
    assert left() == {"ROPE": 4, "NB-1": 9}


def test_last_piece_in_stock_can_be_ordered(owner, visitor, put_in_basket, checkout_of, product):
    count_stock(owner, {"NB-1": 1})
    order = order_basket(GUEST, checkout_of(visitor, [put_in_basket(visitor)]))
    assert order.pk
    assert StockItem.objects.get(sku="NB-1").pieces == 0


def test_product_that_rests_is_not_ordered_from_a_basket(owner, visitor, put_in_basket, checkout_of, product):
    designs = [put_in_basket(visitor)]
    rest_products(owner, [product.pk], resting=True)
    with pytest.raises(OrderError, match="doesn't sell this at the moment"):
        order_basket(GUEST, checkout_of(visitor, designs))
    rest_products(owner, [product.pk], resting=False)
    assert order_basket(GUEST, checkout_of(visitor, designs)).pk
