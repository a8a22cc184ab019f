"""Questions of the second look, from the slip to the order: answered once, kept with the piece, told to the workshop."""

import html
import json
import re

import pytest
from django.test import Client

from tests.apps.conftest import GUEST
from tests.core.conftest import board
from yenzo.apps.designs.models import Design
from yenzo.apps.designs.to_core import asked_of, entries_of
from yenzo.apps.products.services.products import import_product
from yenzo.apps.products.services.publishing import publish_setup
from yenzo.apps.shop.services.checkout import order_basket

MEANS = json.dumps(["name", "stray_capital", "JOhn"])
TAKES = json.dumps(["name", "", "John"])


@pytest.fixture
def typed(owner, product):
    """The board, whose name is made as it is typed."""
    document = {name: value for name, value in board().items() if name != "materials"}
    document["fields"][0].pop("case", None)
    made = import_product(owner, document, key="typed")
    publish_setup(owner, made.pk, seen_version=made.draft_version)
    return made


def refreshed(**form):
    return html.unescape(Client().post("/goods/typed/preview/", {"entry-name": "JOhn", **form}).content.decode())


def test_a_question_stands_at_its_field_until_it_is_answered(typed):
    assert 'data-question="stray_capital"' in refreshed()
    assert "Write “John”" in refreshed()
    assert "data-question" not in refreshed(means=MEANS)
    assert 'data-question="stray_capital"' in refreshed(means=json.dumps(["name", "stray_capital", "JOHn"]))
    assert "data-question" not in refreshed(**{"entry-name": "John"})


@pytest.mark.parametrize("sent", ["{", "[]", '["name"]', '["name", 3, 4]', "null", '["name", "BAD CODE", "x"]', ""])
def test_answers_that_cannot_be_read_are_none(typed, sent):
    assert 'data-question="stray_capital"' in refreshed(means=sent, takes=sent)


def test_a_suggestion_is_taken_without_scripts(typed):
    page = Client().post("/goods/typed/show/", {"entry-name": "JOhn", "takes": TAKES}, follow=True).content.decode()
    assert 'value="John"' in page
    assert "data-question" not in page


@pytest.fixture
def basket(typed, visitor, browser_of):
    client = browser_of(visitor)
    assert client.post("/goods/typed/basket/", {"entry-name": "JOhn"}).status_code == 302
    return client


def only_design():
    return Design.objects.get()


def test_the_basket_asks_again_and_keeps_either_answer(basket):
    design = only_design()
    page = basket.get("/basket/").content.decode()
    [address] = set(re.findall(r'formaction="([^"]+)"', page))
    basket.post(address, {"means": MEANS})
    assert "data-question" not in basket.get("/basket/").content.decode()
    design.refresh_from_db()
    assert [one.text for one in asked_of(design.personalization).meant["name"]] == ["JOhn"]
    basket.post(address, {"takes": TAKES})
    design.refresh_from_db()
    assert entries_of(design.personalization).values["name"] == "John"
    assert Design.objects.count() == 1


def test_nobody_answers_for_another_basket(basket, browser_of):
    page = basket.get("/basket/").content.decode()
    [address] = set(re.findall(r'formaction="([^"]+)"', page))
    assert Client().post(address, {"means": MEANS}).status_code == 404
    assert not entries_of(only_design().personalization).meant


@pytest.mark.parametrize(
    "given",
    [
        {"means": json.dumps(["No Key!", "stray_capital", "x"])},
        {"means": json.dumps(["nobody", "stray_capital", "x"])},
        {"takes": json.dumps(["nobody", "i1", "x"])},
        {"takes": json.dumps(["name", "", 3])},
    ],
)
def test_answers_that_nobody_asked_for_leave_the_basket_as_it_was(basket, given):
    before = entries_of(only_design().personalization)
    assert basket.post(f"/basket/{only_design().pk}/answer/", given, follow=True).status_code == 200
    assert entries_of(only_design().personalization) == before
    assert 'data-question="stray_capital"' in basket.get("/basket/").content.decode()


def test_the_workshop_reads_that_it_was_meant_so(basket, sign_in, visitor, checkout_of):
    basket.post(f"/basket/{only_design().pk}/answer/", {"means": MEANS})
    order = order_basket(GUEST, checkout_of(visitor, [only_design()]))
    page = sign_in("desk").get(f"/workshop/orders/{order.number}/").content.decode()
    assert "The customer meant it so" in page
    assert "JOhn" in page


def test_what_was_answered_is_kept_when_a_page_is_left(typed, visitor, browser_of):
    client = browser_of(visitor)
    client.post("/goods/typed/keep/", {"entry-name": "JOhn", "means": MEANS})
    page = client.get("/goods/typed/").content.decode()
    assert "data-question" not in page
    assert html.escape(MEANS) in page
