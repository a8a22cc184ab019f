import re
from datetime import timedelta

import pytest
from django.test import Client
from django.utils import timezone

from tests.apps.conftest import ADDRESS, send_mails
from yenzo.apps.designs.models import Design
from yenzo.apps.orders.models import Order
from yenzo.apps.products.services.drafts import edit_draft
from yenzo.apps.products.services.kits import attach_kit, create_kit, publish_kit, set_kit_scope
from yenzo.apps.shop.models import SignInLink

FORM = {"entry-name": "Wind & Whey", "entry-lettering": "quayside", "entry-finish": "gold", "entry-wood": "cedar"}


def test_look_alike_address_gets_no_link_and_no_orders(order, db):
    browser = Client()
    answer = browser.post("/account/link/", {"mail": "wilma@po\u017ft.example"})
    assert answer.status_code == 422
    answer = browser.post("/account/link/", {"mail": "w\u0131lma@b\u0131g.example"})
    assert "has letters that look like others" in page_of(answer)
    assert not SignInLink.objects.exists()


@pytest.mark.parametrize("mail", ["w\u0131lma@post.example", "wi1ma@post.example", "wilma@p\u00f6st.example"])
def test_customer_of_another_address_finds_no_orders(order, outbox, mail):
    browser = Client()
    enter(browser, outbox, mail)
    assert order.token not in page_of(browser.get("/account/"))


@pytest.fixture
def outbox(post):
    return post


def mailed_address(browser, outbox, mail="wilma@post.example"):
    """Ask for a link and return where it leads."""
    browser.post("/account/link/", {"mail": mail})
    link = SignInLink.objects.latest("asked_at")
    send_mails()
    written = (outbox / f"sign-in-{link.pk}.eml").read_text().replace("=\n", "").replace("=3D", "=")
    return re.search(r"(/account/\S+/)", written)[1]


def enter(browser, outbox, mail="wilma@post.example"):
    assert browser.post(mailed_address(browser, outbox, mail)).url == "/account/"


def page_of(answer):
    return answer.content.decode()


def test_customer_signs_in_by_a_mailed_link_and_finds_the_own_orders(order, db, outbox):
    browser = Client()
    assert "Mail me a link" in page_of(browser.get("/account/"))
    address = mailed_address(browser, outbox, "Wilma@post.example")
    assert "Sign in as Wilma@post.example?" in page_of(browser.get(address))
    # Whoever only opens the link, as mail programs do, uses nothing up.
    assert browser.post(address).url == "/account/"
    page = page_of(browser.get("/account/"))
    assert f"Order {order.number}" in page
    assert order.token in page
    assert "Your orders" in page_of(browser.get("/"))
    browser.post("/account/out/")
    assert order.token not in page_of(browser.get("/account/"))


def test_link_works_once_within_its_hour_and_cannot_be_made_up(db, outbox):
    browser = Client()
    address = mailed_address(browser, outbox)
    sign = browser.post(address)
    assert sign.status_code == 302
    for again in (Client().post(address), Client().get(address), Client().get("/account/made-up/")):
        assert again.status_code == 410
        assert "too old or was used already" in page_of(again)
    late = mailed_address(browser, outbox)
    SignInLink.objects.update(asked_at=timezone.now() - timedelta(minutes=61))
    assert Client().post(late).status_code == 410


def test_another_customers_orders_are_not_shown(order, outbox):
    browser = Client()
    enter(browser, outbox, "other@post.example")
    assert "Nothing was ordered from this address yet." in page_of(browser.get("/account/"))


@pytest.mark.parametrize("mail", ["", "nobody", "a@b"])
def test_what_is_no_mail_address_is_refused_and_stays_typed(db, mail):
    answer = Client().post("/account/link/", {"mail": mail})
    assert answer.status_code == 422
    assert f'value="{mail}"' in page_of(answer) or not mail
    assert not SignInLink.objects.exists()


def test_many_links_in_a_minute_are_refused_in_words(db, settings):
    settings.LIMITS = {**settings.LIMITS, "sign_in": "2/minute"}
    browser = Client(REMOTE_ADDR="10.1.2.3")
    answers = [browser.post("/account/link/", {"mail": "a@post.example"}) for _ in range(3)]
    assert [answer.status_code for answer in answers] == [302, 302, 422]
    assert "many links in a short time" in page_of(answers[2])


def test_basket_stays_when_somebody_signs_in_and_waits_for_them_after_signing_out(product, client, outbox):
    client.post("/goods/board/basket/", FORM)
    enter(client, outbox)
    assert "WIND &amp; WHEY" in page_of(client.get("/basket/"))
    assert client.get("/checkout/").context["form"].initial["mail"] == "wilma@post.example"
    client.post("/account/out/")
    assert "WIND &amp; WHEY" not in page_of(client.get("/basket/"))
    enter(client, outbox)
    assert "WIND &amp; WHEY" in page_of(client.get("/basket/"))


def test_kit_for_signed_in_customers_follows_from_slip_to_order(product, actors, client, outbox, sign_in):
    seller = actors["seller"]
    kit = create_kit(seller, name="Club", currency="GBP")
    operations = [
        {"do": "add", "path": ["fields"], "item": {"key": "berth", "kind": "line", "label": "Berth in our harbor"}},
        {
            "do": "add",
            "path": ["charges"],
            "item": {"key": "berth", "kind": "fixed", "field": "berth", "amount": "-5", "label": "For members"},
        },
    ]
    edit_draft(seller, kit.pk, operations, seen_version=0, label="Lines")
    attach_kit(seller, kit.pk, [product.pk])
    scope = {"reach": "picked", "category": "", "picked": [product.pk], "excluded": []}
    set_kit_scope(seller, kit.pk, **scope, only_signed_in=True)
    publish_kit(seller, kit.pk, seen_version=1)
    form = {**FORM, "entry-club-berth": "14"}
    stranger = page_of(client.get("/goods/board/"))
    assert 'id="line-club-berth" class="line width-full" hidden' in stranger
    assert "For members" not in page_of(client.post("/goods/board/preview/", form))
    enter(client, outbox)
    assert "For members" in page_of(client.post("/goods/board/preview/", form))
    client.post("/goods/board/basket/", form)
    assert "Berth in our harbor" in page_of(client.get("/basket/"))
    initial = {name: str(value) for name, value in client.get("/checkout/").context["form"].initial.items()}
    client.post("/checkout/", {**initial, "name": "Wilma", **ADDRESS, "checked": "on"})
    asked = Order.objects.get().lines.get().personalization.asked
    assert asked["signed_in"] is True
    assert asked["values"]["club-berth"] == "14"
    assert not Design.objects.filter(in_basket=True).exists()
    staff = sign_in("seller")
    assert "of customers who are signed in" in page_of(staff.get("/workshop/products/board/"))
    tried = "/workshop/products/board/try-out/"
    assert "The customer is signed in" in page_of(staff.get(tried))
    assert "For members" in page_of(staff.post(tried, {"signed-in": "yes", **form}))
