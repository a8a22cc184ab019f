import io
import uuid

import pytest
from django.test import Client
from PIL import Image

from tests.apps.conftest import ADDRESS
from tests.core.conftest import GOODS, sha256_of
from yenzo.apps.designs.models import Design
from yenzo.apps.orders.models import Order

FORM = {"entry-name": "Wind & Whey", "entry-lettering": "quayside", "entry-finish": "gold", "entry-wood": "cedar"}


def test_home_shows_live_goods_with_their_sample_picture(product, client):
    page = client.get("/").content.decode()
    assert "from £86.00" in page
    picture = client.get(f"/goods/board/sample-{product.live.sha256}-360.webp")
    assert (picture["Content-Type"], Image.open(io.BytesIO(picture.content)).width) == ("image/webp", 360)
    assert client.get(f"/goods/board/sample-{product.live.sha256}-361.webp").status_code == 404
    assert client.get(f"/goods/board/sample-{'0' * 64}-360.webp").status_code == 404


def test_goods_are_shown_as_small_as_screens_need_them_with_their_outline(product, client):
    offered = f"/goods-pictures/{sha256_of(GOODS)}"
    whole, small = (client.get(f"{offered}/{width}").content for width in ("", "240/"))
    assert len(small) < len(whole) / 4
    shown = Image.open(io.BytesIO(small))
    assert (shown.format, shown.width, shown.mode) == ("WEBP", 240, Image.open(io.BytesIO(whole)).mode)
    assert client.get(f"{offered}/241/").status_code == 404


def test_product_that_is_not_live_is_not_found(product, client):
    product.live = None
    product.save()
    assert client.get("/goods/board/").status_code == 404


def test_all_that_is_missing_is_named_together_and_what_was_typed_is_kept(product, client):
    answer = client.post(
        "/goods/board/basket/",
        {**FORM, "entry-name": "", "entry-with_photo": "yes", "entry-wood": "oak", "pieces": "3"},
    )
    page = answer.content.decode()
    assert answer.status_code == 422
    assert "Please fill in “Name of the boat”." in page
    assert "Please add a picture for “Photo”." in page
    assert 'value="3"' in page
    assert not Design.objects.exists()


def test_piece_is_put_in_the_basket_changed_and_removed(product, client):
    assert client.post("/goods/board/basket/", FORM).url == "/basket/"
    design = Design.objects.get()
    assert "WIND &amp; WHEY" in client.get("/basket/").content.decode()
    assert client.get(f"/basket/{design.pk}/front/picture.png")["Content-Type"] == "image/png"
    client.post("/goods/board/basket/", {**FORM, "entry-name": "Otter", "design": str(design.pk)})
    assert Design.objects.get().personalization.entries["values"]["name"] == "Otter"
    client.post(f"/basket/{design.pk}/remove/")
    assert "Nothing lies in your basket" in client.get("/basket/").content.decode()


def test_basket_of_another_visitor_cannot_be_seen_changed_or_emptied(product, client, browser_of):
    client.post("/goods/board/basket/", FORM)
    design = Design.objects.get()
    stranger = browser_of(uuid.uuid4())
    assert stranger.get(f"/basket/{design.pk}/front/picture.png").status_code == 404
    stranger.post(f"/basket/{design.pk}/remove/")
    stranger.post("/goods/board/basket/", {**FORM, "entry-name": "Mine", "design": str(design.pk)})
    design.refresh_from_db()
    assert design.in_basket
    assert design.personalization.entries["values"]["name"] == "Wind & Whey"


@pytest.mark.parametrize(
    ("change", "words"),
    [
        ({"checked": ""}, "Please read the entries once more, then tick this."),
        ({"mail": "nobody"}, "This is no mail address as it stands."),
        ({"name": ""}, "Please fill this in."),
        ({"basket_seen": "other"}, "The basket was changed in another window."),
    ],
)
def test_checkout_that_lacks_something_says_so_and_keeps_what_was_typed(product, client, change, words):
    client.post("/goods/board/basket/", FORM)
    form = client.get("/checkout/").context["form"]
    data = {**form.initial, "name": "Wilma", "mail": "w@post.example", **ADDRESS, "checked": "on", **change}
    answer = client.post("/checkout/", data)
    page = answer.content.decode()
    assert answer.status_code == 422
    assert words in page
    assert "Berth 14" in page
    assert not Order.objects.exists()


def test_checkout_makes_the_order_and_leads_to_its_page(product, client):
    client.post("/goods/board/basket/", FORM)
    form = client.get("/checkout/").context["form"]
    data = {**form.initial, "name": "Wilma", "mail": "w@post.example", **ADDRESS, "checked": "on"}
    answer = client.post("/checkout/", data)
    order = Order.objects.get()
    assert answer.url == f"/order/{order.token}/"
    assert client.post("/checkout/", data).url == answer.url
    assert "How would you like to pay £96.70?" in client.get(answer.url).content.decode()


def test_empty_basket_has_no_checkout(client, db):
    assert client.get("/checkout/").url == "/basket/"


def test_pages_carry_the_policy_that_allows_no_inline_script(product, client):
    policy = client.get("/goods/board/")["Content-Security-Policy"]
    assert "default-src 'self'" in policy
    assert "unsafe" not in policy


def test_unknown_address_is_answered_in_plain_words(client, db):
    answer = client.get("/goods/none/")
    assert (answer.status_code, "There is nothing at this address" in answer.content.decode()) == (404, True)
    answer = client.get("/goods/none/", headers={"HX-Request": "true"})
    assert answer["Content-Type"].startswith("text/plain")


def test_form_without_its_token_is_refused(product):
    assert Client(enforce_csrf_checks=True).post("/goods/board/basket/", FORM).status_code == 403
