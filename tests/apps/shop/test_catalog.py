"""The shop's list: what is looked for is found, what can't be read is said, machines find the goods too."""

import json
import re
from decimal import Decimal

import pytest
from django.http import QueryDict

from tests.core.conftest import board
from yenzo.apps.products.models import Product
from yenzo.apps.products.services.products import import_product
from yenzo.apps.products.services.publishing import publish_setup
from yenzo.apps.stock.models import StockItem


@pytest.fixture
def goods(owner, product):
    """The board, a cheap pass without any words on it, and a sign in another category."""

    def made(key, name, price, category, *, fields):
        document = {name: value for name, value in board().items() if name != "materials"}
        document["offer"] |= {"name": name, "base_price": price, "category": category, "sku": key.upper()}
        document["wording"] = {"de": {name: f"{name} auf Deutsch", category: f"{category} auf Deutsch"}}
        kept = {field["key"] for field in document["fields"] if field["key"] in fields}
        document["fields"] = [field for field in document["fields"] if field["key"] in kept]
        document["placements"], document["charges"] = [], []
        for field in document["fields"]:
            field.pop("ask_when", None)
        one = import_product(owner, document, key=key)
        publish_setup(owner, one.pk, seen_version=one.draft_version)

    made("pass", "Harbor pass", "9.00", "Paper", fields={"wood"})
    made("sign", "Door sign", "40.00", "House", fields={"finish"})
    return product


def found(client, **wish):
    page = client.get("/", wish).content.decode()
    return re.findall(r'<span class="goods-name">([^<]+)</span>', page)


@pytest.mark.parametrize(
    ("wish", "names"),
    [
        ({}, ["Board", "Door sign", "Harbor pass"]),
        ({"q": "SIGN"}, ["Door sign"]),
        ({"q": "auf deutsch door"}, ["Door sign"]),
        ({"q": "board sign"}, []),
        ({"category": "Paper"}, ["Harbor pass"]),
        ({"category": "Nowhere"}, ["Board", "Door sign", "Harbor pass"]),
        ({"own": "words"}, ["Board"]),
        ({"own": "color"}, ["Board", "Door sign"]),
        ({"own": ["color", "picture"]}, ["Board"]),
        ({"own": "yacht"}, ["Board", "Door sign", "Harbor pass"]),
        ({"most": "40"}, ["Door sign", "Harbor pass"]),
        ({"most": "39,99"}, ["Harbor pass"]),
        ({"order": "cheap"}, ["Harbor pass", "Door sign", "Board"]),
        ({"order": "dear"}, ["Board", "Door sign", "Harbor pass"]),
        ({"order": "new"}, ["Door sign", "Harbor pass", "Board"]),
        ({"order": "sideways", "page": "99"}, ["Board", "Door sign", "Harbor pass"]),
        ({"q": "x" * 5000}, []),
    ],
)
def test_what_is_looked_for_is_found_in_its_order(goods, client, wish, names):
    assert found(client, **wish) == names


@pytest.mark.parametrize("sent", ["much", "-5", "nan", "1e999999", "٣x"])
def test_a_price_that_is_none_says_so_and_leaves_nothing_out(goods, client, sent):
    page = client.get("/", {"most": sent}).content.decode()
    assert "is no price" in page
    assert len(re.findall("goods-name", page)) == 3


def test_nothing_found_leads_back_to_all(goods, client):
    page = client.get("/", {"q": "anchor"}).content.decode()
    assert "Nothing here is like that" in page
    assert "Show all goods" in page


def test_filters_are_in_the_language_of_who_reads(goods, client):
    page = client.get("/", headers={"accept-language": "de"}).content.decode()
    assert "House auf Deutsch" in page
    assert "Door sign auf Deutsch" in page
    page = client.get("/", {"category": "Paper auf Deutsch"}, headers={"accept-language": "de"}).content.decode()
    assert "Harbor pass auf Deutsch" in page
    assert "Board" not in re.findall(r'goods-name">([^<]+)', page)


def test_product_page_tells_machines_what_it_is(goods, client, settings):
    settings.SITE_ADDRESS = "https://shop.example"
    page = client.get("/goods/sign/?design=x").content.decode()
    assert '<link rel="canonical" href="https://shop.example/goods/sign/">' in page
    [data] = re.findall(r'<script type="application/ld\+json">(.*?)</script>', page)
    told = json.loads(data)
    assert (told["@type"], told["name"], told["sku"], told["category"]) == ("Product", "Door sign", "SIGN", "House")
    assert told["offers"]["priceCurrency"] == "GBP"
    assert Decimal(told["offers"]["price"]) == Product.objects.get(key="sign").live.least_price
    assert client.get(told["image"].removeprefix("https://shop.example")).status_code == 200


def test_machines_are_told_when_nothing_is_left(goods, client):
    assert "schema.org/InStock" in client.get("/goods/sign/").content.decode()
    StockItem.objects.create(sku="SIGN", pieces=0)
    assert "schema.org/OutOfStock" in client.get("/goods/sign/").content.decode()


def test_words_of_a_product_end_no_script(owner, product, client):
    document = {name: value for name, value in board().items() if name != "materials"}
    document["offer"]["name"] = "</script><b>Board"
    one = import_product(owner, document, key="ugly")
    publish_setup(owner, one.pk, seen_version=one.draft_version)
    page = client.get("/goods/ugly/").content.decode()
    [data] = re.findall(r'<script type="application/ld\+json">(.*?)</script>', page)
    assert json.loads(data)["name"] == "</script><b>Board"


def test_map_of_the_site_names_what_is_sold_and_nothing_else(goods, client, settings):
    settings.SITE_ADDRESS = "https://shop.example"
    Product.objects.filter(key="pass").update(is_resting=True)
    told = client.get("/sitemap.xml").content.decode()
    assert set(re.findall("<loc>([^<]+)</loc>", told)) == {
        "https://shop.example/",
        "https://shop.example/goods/board/",
        "https://shop.example/goods/sign/",
    }
    assert len(re.findall("<lastmod>20[^<]+</lastmod>", told)) == 3
    robots = client.get("/robots.txt").content.decode()
    assert "Sitemap: https://shop.example/sitemap.xml" in robots
    closed = set(re.findall("Disallow: (.+)", robots))
    assert closed == {"/workshop/", "/order/", "/basket/", "/checkout/", "/account/"}


def test_wishes_are_bounded():
    from yenzo.apps.shop.catalog import catalog_of

    catalog = catalog_of([], QueryDict("q=" + "a" * 9000))
    assert len(catalog.wish.words) == 100
    assert (catalog.categories, catalog.own) == ((), ())
