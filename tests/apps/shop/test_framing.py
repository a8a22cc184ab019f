"""The slip in a frame on another site: who may show it, what speaks for the visitor there, and the way into the shop."""

import re
import uuid

import pytest
from django.test import Client

from yenzo.apps.designs.framed import Framed, address_in
from yenzo.apps.designs.models import Design, UnfinishedEntries
from yenzo.apps.workshop.services.workshop import change_workshop

SITE = "https://club.example"
pytestmark = pytest.mark.django_db


@pytest.fixture
def allowed(owner):
    change_workshop(owner, {"sites": [SITE]})


@pytest.fixture
def framed(allowed, product):
    return Framed(uuid.uuid4(), SITE, "en-gb")


def put(client, framed, product, **entries):
    sent = {"entry-name": "TERN", "entry-lettering": "quayside", "entry-color": "white", "pieces": "2", **entries}
    return client.post(address_in(framed, "shop:put_in_basket", product.key), sent)


@pytest.mark.parametrize("site", ["", "https://other.example", "nonsense", "https://club.example.evil.example", "null"])
def test_site_that_isnt_allowed_gets_no_frame(allowed, product, client, site):
    answer = client.get(f"/framed/goods/{product.key}/", {"site": site})
    assert answer.status_code == 403
    assert "hasn’t allowed this site" in answer.content.decode()
    assert "frame-ancestors 'none'" in answer["Content-Security-Policy"]


def test_frame_is_shown_by_its_site_only_and_speaks_its_language(allowed, product, client):
    begun = client.get(f"/framed/goods/{product.key}/", {"site": f"{SITE}/", "language": "de"})
    assert begun.status_code == 302
    page = client.get(begun.url)
    assert page.status_code == 200
    assert page["Content-Security-Policy"].count("frame-ancestors") == 1
    assert f"frame-ancestors {SITE};" in page["Content-Security-Policy"] + ";"
    assert "X-Frame-Options" not in page
    assert page["Content-Language"] == "de"
    said = page.content.decode()
    assert "shop-bar" not in said
    # All that it asks for stays within the frame; files are at their own addresses.
    head = re.match(r"/on/[^/]+", begun.url)[0]
    addresses = re.findall(r'(?:hx-post|action|formaction|data-keep|data-again|data-reached)="([^"]+)"', said)
    assert addresses
    assert all(one.startswith(f"{head}/") for one in addresses), addresses
    assert 'src="/static/' in said
    pictures = re.findall(r'(?:href|data-picture)="([^"]*/goods-pictures/[^"]+)"', said)
    assert pictures
    assert all(one.startswith(f"{head}/") for one in pictures), pictures
    # The shop's own page, asked for between, has the same pictures at the shop's own addresses.
    outside = re.findall(r'data-picture="([^"]+)"', client.get(f"/goods/{product.key}/").content.decode())
    assert outside
    assert all(one.startswith("/goods-pictures/") for one in outside), outside


def test_no_cookie_is_read_or_set_in_a_frame(framed, product, visitor, browser_of):
    browser = browser_of(visitor)
    answer = put(browser, framed, product)
    assert answer.status_code == 302
    assert not answer.cookies
    assert Design.objects.get().visitor == framed.visitor
    assert "Nothing lies in your basket" in browser.get("/basket/").content.decode()
    shown = browser.get(answer.url)
    assert "TERN" in shown.content.decode()
    assert not shown.cookies


def test_forms_in_a_frame_need_no_other_sign_of_origin_and_those_of_the_shop_still_do(framed, product):
    strict = Client(enforce_csrf_checks=True)
    assert put(strict, framed, product).status_code == 302
    assert strict.post(f"/goods/{product.key}/basket/", {"entry-name": "TERN"}).status_code == 403


def test_what_is_typed_in_a_frame_is_kept_for_its_visitor(framed, product, client):
    client.post(address_in(framed, "shop:keep", product.key), {"entry-name": "Ter"})
    assert UnfinishedEntries.objects.get().visitor == framed.visitor
    assert 'value="Ter"' in client.get(address_in(framed, "shop:product", product.key)).content.decode()


@pytest.mark.parametrize("name", ["shop:checkout", "shop:account", "shop:designs", "accounts:sign_in", "orders:orders"])
def test_all_else_is_reached_in_the_shop_itself(framed, sign_in, name):
    assert sign_in("owner").get(address_in(framed, name)).status_code == 404


@pytest.mark.parametrize("change", ["token", "site", "nonsense"])
def test_frame_that_was_made_up_or_isnt_allowed_any_more_shows_nothing(framed, product, client, owner, change):
    address = address_in(framed, "shop:product", product.key)
    if change == "token":
        address = address.replace("/on/", "/on/x", 1)
    elif change == "nonsense":
        address = f"/on/W10:abc/goods/{product.key}/"
    else:
        change_workshop(owner, {"sites": ["https://other.example"]})
    assert client.get(address).status_code == 404


def test_what_was_made_in_a_frame_is_brought_into_the_shops_basket_once(framed, product, client, visitor, browser_of):
    put(client, framed, product)
    shown = client.get(address_in(framed, "shop:basket")).content.decode()
    order = re.search(r'href="http://testserver(/bring/[^"]+)" target="_top"', shown)[1]
    browser = browser_of(visitor)
    asked = browser.get(order)
    assert "2 ×" in asked.content.decode()
    # Looking at it brings nothing: mail programs and browsers open links by themselves.
    assert Design.objects.get().visitor == framed.visitor
    assert browser.post(order, follow=True).redirect_chain == [("/basket/", 302)]
    assert Design.objects.get().visitor == visitor
    assert "Nothing waits here any more" in browser.get(order).content.decode()
    assert "Nothing lies in your basket" in client.get(address_in(framed, "shop:basket")).content.decode()
    assert browser.get(order.replace("/bring/", "/bring/x")).status_code == 404
