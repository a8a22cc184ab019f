"""The checkout: addresses as their country writes them, ways and days, one order, what was agreed to."""

import re
import subprocess
import uuid
from datetime import timedelta
from decimal import Decimal

import pytest
from django.core.files.uploadedfile import SimpleUploadedFile
from django.test import Client
from django.utils import timezone

from tests.apps.conftest import ADDRESS, GUEST, send_mails
from yenzo.apps.designs.models import Design, NameList
from yenzo.apps.designs.services.lists import put_list_in_basket
from yenzo.apps.orders.jobs import draw_proofs
from yenzo.apps.orders.models import Agreement, Order, OrderNote
from yenzo.apps.orders.paying import pay_order
from yenzo.apps.products.models import Revision
from yenzo.apps.shop.services.checkout import order_basket
from yenzo.apps.workshop.services.workshop import change_workshop

pytestmark = pytest.mark.django_db
WAYS = [
    {"key": "post", "name": "Post", "price": "4.50", "free_from": "500", "countries": ["GB"], "days": 2},
    {"key": "courier", "name": "Courier", "price": "9.80", "days": 1, "tax_percent": "20"},
    {"key": "here", "name": "Pick up", "is_pickup": True, "days": 0},
]


@pytest.fixture
def browser(owner, browser_of, visitor, put_in_basket):
    change_workshop(owner, {"deliveries": WAYS, "calendar": {"holidays_of": "GB", "lead_days": 3}})
    put_in_basket(visitor)
    return browser_of(visitor)


def form_of(browser, **change):
    initial = browser.get("/checkout/").context["form"].initial
    facts = {"name": "Wilma", "mail": "wilma@post.example", **ADDRESS, "checked": "on"}
    return {**{name: str(value) for name, value in initial.items()}, **facts, **change}


def ordered(browser, **change):
    answer = browser.post("/checkout/", form_of(browser, **change))
    assert answer.status_code == 302, re.findall(r'class="problem[^>]*>(.*?)</div>', answer.content.decode(), re.DOTALL)
    return Order.objects.latest("pk")


def troubles(browser, **change):
    answer = browser.post("/checkout/", form_of(browser, **change))
    assert answer.status_code == 422
    assert not Order.objects.exists()
    return answer.content.decode()


def test_order_keeps_address_way_and_promise(browser):
    order = ordered(browser, delivery="courier", note="Ring twice", purchase_number="PO-9")
    assert order.address == "Berth 14\nPORT HALLOW\nPO1 3AX"
    assert order.delivery_address["town"] == "Port Hallow"
    assert (order.delivery_name, order.delivery_price) == ("Courier", Decimal("9.80"))
    assert order.total == Decimal(order.lines.get().quote["total"]) + Decimal("9.80")
    assert order.leaves_on > timezone.localdate()
    assert order.arrives_on > order.leaves_on
    assert (order.note, order.purchase_number) == ("Ring twice", "PO-9")


@pytest.mark.parametrize(
    ("change", "words"),
    [
        ({"street": ""}, "Please fill this in."),
        ({"postcode": "12345"}, "“12345” is no postcode"),
        ({"country": "XX"}, "problem"),
        ({"country": "FR", "postcode": "75001", "delivery": "post"}, "Post doesn&#x27;t go to France"),
        ({"delivery": "rocket"}, "problem"),
        ({"wished_for": "2020-01-01"}, "at the earliest"),
        ({"wished_for": "2999-01-01"}, "two years ahead"),
        ({"wished_for": "someday"}, "problem"),
        ({"invoice-elsewhere": "on", "invoice-country": "GB", "invoice-street": ""}, "Please fill this in."),
        ({"invoice-elsewhere": "on"}, "Please pick the country."),
        ({"checked": ""}, "then tick this"),
    ],
)
def test_what_cannot_be_is_said_in_words_and_nothing_is_ordered(browser, change, words):
    page = troubles(browser, **change)
    assert words in page
    assert 'value="wilma@post.example"' in page


def test_all_that_is_missing_is_named_together(browser):
    page = troubles(browser, name="", street="", town="", checked="")
    summary = page[page.index("problem summary") : page.index("</ul>", page.index("problem summary"))]
    assert summary.count("<li>") == 4


def test_parts_that_a_country_does_not_have_are_left_out(browser):
    order = ordered(browser, delivery="courier", country="FR", postcode="75001", region="Kept out", town="Paris")
    assert order.delivery_address["region"] == ""
    assert order.address.endswith("FRANCE")


def test_who_picks_it_up_needs_no_address(browser):
    order = ordered(browser, delivery="here", street="", town="", postcode="")
    assert (order.address, order.delivery_address, order.is_picked_up) == ("", None, True)
    assert "Picked up by" in browser.get(f"/order/{order.token}/").content.decode()


def test_invoice_goes_elsewhere_where_that_is_wanted(browser):
    invoice = {"invoice-elsewhere": "on", "invoice-country": "DE", "invoice-name": "Hafen GmbH"}
    parts = {"invoice-street": "Kai 3", "invoice-postcode": "20457", "invoice-town": "Hamburg"}
    order = ordered(browser, **invoice, **parts)
    assert order.invoice_address["town"] == "Hamburg"
    assert "Hafen GmbH" in browser.get(f"/order/{order.token}/").content.decode()


def test_way_is_free_from_its_sum_on(browser, owner):
    change_workshop(owner, {"deliveries": [{**WAYS[0], "free_from": "10"}]})
    assert ordered(browser, delivery="post").delivery_price == 0


def test_goods_that_take_longer_hold_up_the_promise(browser, owner, product):
    soon = browser.get("/checkout/").context["form"].ways["courier"].promise
    document = product.live.document
    Revision.objects.update(document={**document, "offer": {**document["offer"], "lead_days": 30}}, sha256="1" * 64)
    late = browser.get("/checkout/").context["form"].ways["courier"].promise
    assert late.leaves_on - soon.leaves_on > timedelta(days=30)


def test_wished_day_is_kept_and_shown_to_the_desk(browser, sign_in):
    wished = timezone.localdate() + timedelta(days=60)
    order = ordered(browser, wished_for=wished.isoformat())
    assert order.wished_for == order.arrives_on == wished
    assert timedelta(0) < wished - order.leaves_on < timedelta(days=10)
    assert "Wished for" in sign_in("desk").get(f"/workshop/orders/{order.number}/").content.decode()


def test_order_that_is_paid_late_is_promised_anew_from_then_on(browser):
    order = ordered(browser)
    before = order.leaves_on
    early = before - timedelta(days=20)
    Order.objects.update(leaves_on=early, arrives_on=early)
    order.refresh_from_db()
    pay_order(GUEST, order, "approves")
    order.refresh_from_db()
    assert order.leaves_on >= before
    assert order.arrives_on > order.leaves_on


def test_what_was_agreed_to_is_kept_with_its_texts_digests_and_pictures(browser):
    order = ordered(browser)
    agreed = Agreement.objects.get()
    assert agreed.texts == ["WIND & WHEY"]
    assert agreed.digests == {side["key"]: side["digest"] for side in agreed.personalization.record["sides"]}
    assert agreed.agreed_at == order.spelling_checked_at
    agreed.personalization.proofs.all().delete()
    draw_proofs(order_id=order.pk)
    assert agreed.personalization.proofs.count() == 1


def test_page_of_what_was_agreed_shows_it_for_good(browser, client):
    order = ordered(browser)
    page = client.get(f"/order/{order.token}/proof/").content.decode()
    assert "WIND &amp; WHEY" in page
    assert next(iter(Agreement.objects.get().digests.values()))[:12] in page
    picture = client.get(f"/order/{order.token}/agreed/{Agreement.objects.get().pk}/front.png")
    assert picture.content.startswith(b"\x89PNG")


def test_page_reads_each_text_letter_by_letter(browser):
    page = browser.get("/checkout/").content.decode()
    letters = re.findall(r'<li><b class="exact">(.*?)</b>', page)
    assert letters == ["W", "I", "N", "D", " ", "&amp;", " ", "W", "H", "E", "Y"]
    assert "capital I" in page


def test_next_checkout_begins_with_what_was_given_before(browser, visitor, put_in_basket):
    ordered(browser)
    put_in_basket(visitor)
    initial = browser.get("/checkout/").context["form"].initial
    assert (initial["name"], initial["town"], initial["country"]) == ("Wilma", "Port Hallow", "GB")


def test_address_is_shown_to_who_ordered_and_to_who_proves_the_mail_only(browser, client, sign_in):
    order = ordered(browser)
    address = f"/order/{order.token}/"
    assert "Berth 14" in browser.get(address).content.decode()
    assert "Berth 14" not in client.get(address).content.decode()
    for action in ("write", "cancel", "again"):
        assert client.post(f"{address}{action}/", {"text": "Mine"}).status_code == 403
    assert client.get(f"{address}invoice.pdf").status_code == 403
    session = client.session
    session["customer_mail"] = "Wilma@post.example"
    session.save()
    assert "Berth 14" in client.get(address).content.decode()


def test_customer_cancels_while_nothing_is_begun(browser):
    order = ordered(browser)
    pay_order(GUEST, order, "approves")
    browser.post(f"/order/{order.token}/cancel/")
    order.refresh_from_db()
    assert (order.state, order.payment_state) == ("cancelled", "owed_back")


def test_order_that_is_begun_is_not_cancelled_by_its_customer(browser):
    order = ordered(browser)
    Order.objects.update(begun_at=timezone.now())
    answer = browser.post(f"/order/{order.token}/cancel/")
    assert answer.status_code == 422
    assert "it is begun" in answer.content.decode()
    assert Order.objects.get().state == "placed"


def test_customer_and_workshop_write_to_each_other_with_files(browser, sign_in):
    order = ordered(browser)
    desk = sign_in("desk")
    once = {"sent_as": str(uuid.uuid4())}
    for _ in range(2):
        file = SimpleUploadedFile("logo.<b>.txt", b"hello")
        browser.post(f"/order/{order.token}/write/", {"text": "Please see", "file": file, **once})
    desk.post(f"/workshop/orders/{order.number}/write/", {"text": "Seen", "sent_as": str(uuid.uuid4())})
    notes = list(OrderNote.objects.all())
    assert [note.text for note in notes] == ["Please see", "Seen"]
    page = browser.get(f"/order/{order.token}/").content.decode()
    assert "Seen" in page
    assert "logo.&lt;b&gt;.txt" in page
    answer = desk.get(f"/workshop/orders/{order.number}/files/{notes[0].pk}/")
    assert answer.content == b"hello"
    assert answer["Content-Type"] == "application/octet-stream"
    mails = {mail.to: mail.subject for key, mail in send_mails().items() if key.startswith("note-")}
    assert mails["wilma@post.example"] == f"A message about your order {order.number}"


@pytest.mark.parametrize("sent", [{"text": "  "}, {"text": "x" * 5000}, {}])
def test_message_that_says_nothing_or_too_much_is_refused_in_words(browser, sent):
    order = ordered(browser)
    answer = browser.post(f"/order/{order.token}/write/", {"sent_as": str(uuid.uuid4()), **sent})
    assert answer.status_code == 422
    assert not OrderNote.objects.exists()


def test_order_is_put_in_the_basket_again_and_the_workshop_sees_whose_again_it_is(browser, sign_in):
    first = ordered(browser)
    browser.post(f"/order/{first.token}/again/")
    design = Design.objects.get(in_basket=True)
    assert design.personalization.entries == first.lines.get().personalization.entries
    browser.post("/goods/board/basket/", {"entry-name": "Wind & Wheat", "design": str(design.pk)})
    second = ordered(browser)
    assert second.again_of == first
    assert second.lines.get().search_text == "WIND & WHEAT"
    assert "Again, as" in sign_in("desk").get(f"/workshop/orders/{second.number}/").content.decode()


def test_number_of_somebody_elses_order_is_noted_and_not_followed(browser, browser_of, put_in_basket):
    other = uuid.uuid4()
    put_in_basket(other)
    theirs = ordered(browser_of(other))
    mine = ordered(browser, repeats=f"T-{theirs.number}-1")
    assert (mine.again_of, mine.repeats) == (None, f"T-{theirs.number}-1")


@pytest.mark.parametrize("is_kept", [True, False])
def test_list_is_ordered_again_with_its_rows(browser, visitor, make_list, checkout_of, is_kept):
    Design.objects.all().delete()
    names = make_list(visitor, "Otter\toak", "Ines\tcedar", heads="Name\tWood")
    put_list_in_basket(GUEST, names.pk, visitor=visitor)
    order = order_basket(GUEST, checkout_of(visitor, [NameList.objects.get()]))
    if not is_kept:
        NameList.objects.all().delete()
    answer = browser.post(f"/order/{order.token}/again/")
    again = NameList.objects.get(ordered_at=None)
    assert answer.url == f"/lists/{again.pk}/"
    assert [row.cells for row in again.rows.all()] in ([["Otter", "oak"], ["Ines", "cedar"]],)
    assert {row.state for row in again.rows.all()} == {"good"}


def test_invoice_says_who_what_and_how_much_in_text_that_is_found(browser, owner, tmp_path):
    change_workshop(owner, {"own_name": "Gull & Gaff", "address": "Quay 1\nPort Hallow", "tax_number": "GB 999"})
    order = ordered(browser, delivery="courier", purchase_number="PO-9")
    assert browser.get(f"/order/{order.token}/invoice.pdf").status_code == 404
    pay_order(GUEST, order, "approves")
    answer = browser.get(f"/order/{order.token}/invoice.pdf")
    paper = tmp_path / "invoice.pdf"
    paper.write_bytes(answer.content)
    text = subprocess.run(["pdftotext", "-layout", paper, "-"], capture_output=True, check=True).stdout.decode()
    for words in (f"Invoice {order.number}", "Gull & Gaff", "GB 999", "Wilma", "PO-9", "Courier", "WIND & WHEY"):
        assert words in text
    assert f"£{order.total:.2f}" in text
    assert "Tax of 20 %" in text
    assert answer.content == browser.get(f"/order/{order.token}/invoice.pdf").content


def test_checkout_of_an_empty_basket_leads_back_to_it(db):
    assert Client().get("/checkout/").url == "/basket/"
