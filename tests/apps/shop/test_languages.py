import pytest
from django.test import Client

from tests.apps.conftest import ADDRESS, send_mails
from yenzo.apps.designs.models import Design
from yenzo.apps.orders.models import Order
from yenzo.apps.orders.services.orders import cancel_order
from yenzo.apps.products.services.drafts import edit_draft
from yenzo.apps.products.services.publishing import publish_setup

FORM = {"entry-name": "Wind & Whey", "entry-lettering": "quayside", "entry-finish": "gold", "entry-wood": "cedar"}
GERMAN = {"Board": "Brett", "Wood": "Holz", "Cedar": "Zeder", "Name of the boat": "Name des Bootes"}


@pytest.fixture
def worded(product, owner):
    operation = {"do": "set", "path": ["wording"], "value": {"de": GERMAN}}
    edited = edit_draft(owner, product.pk, [operation], seen_version=product.draft_version, label="Wording")
    publish_setup(owner, product.pk, seen_version=edited.draft_version)
    product.refresh_from_db()
    return product


@pytest.fixture
def german():
    return Client(headers={"Accept-Language": "de-DE,de;q=0.9"})


def page_of(answer):
    return answer.content.decode()


def test_shop_speaks_the_language_that_the_browser_asks_for(worded, german):
    page = page_of(german.get("/"))
    assert '<html lang="de" dir="ltr">' in page
    assert "Brett" in page
    assert "ab 86,00" in page
    page = page_of(german.get("/goods/board/"))
    assert "Bestellzettel" in page
    assert "Name des Bootes" in page
    assert "Platz für noch 18" in page
    # What has no words stays in the product's own.
    assert "Lettering" in page


def test_arabic_runs_from_right_to_left_with_its_own_style_sheet(worded):
    page = page_of(Client(headers={"Accept-Language": "ar"}).get("/goods/board/"))
    assert '<html lang="ar" dir="rtl">' in page
    assert "bootstrap-reboot.rtl.min.css" in page
    assert "أضف إلى السلة" in page


def test_unknown_languages_get_english(worded):
    page = page_of(Client(headers={"Accept-Language": "fr"}).get("/goods/board/"))
    assert '<html lang="en-gb" dir="ltr">' in page
    assert "Put in the basket" in page


def test_choice_of_language_is_kept(worded, german):
    assert german.post("/language/", {"language": "ar", "next": "/basket/"}).url == "/basket/"
    assert 'dir="rtl"' in page_of(german.get("/basket/"))
    # Neither another site nor a language that the shop doesn't speak.
    assert german.post("/language/", {"language": "tlh", "next": "https://elsewhere.example/"}).url == "/"
    assert 'dir="rtl"' in page_of(german.get("/basket/"))


def test_language_is_changed_on_the_product_page_without_losing_what_was_typed(worded, client):
    answer = client.post("/goods/board/reworded/", {**FORM, "pieces": "3", "language": "de"})
    page = page_of(answer)
    assert answer.status_code == 200
    assert "In den Warenkorb" in page
    assert 'value="Wind &amp; Whey"' in page
    assert 'value="3"' in page
    assert "Warenkorb" in page_of(client.get("/basket/"))
    assert not Design.objects.exists()
    assert "In den Warenkorb" in page_of(client.post("/goods/board/reworded/", {**FORM, "language": "tlh"}))
    # Django knows many languages that the shop doesn't speak.
    assert '<html lang="de"' in page_of(client.post("/goods/board/reworded/", {**FORM, "language": "fr"}))


def test_previews_and_refusals_come_in_the_language_of_the_page(worded, german):
    refreshed = page_of(german.post("/goods/board/preview/", {**FORM, "entry-name": "Viel zu lang für jedes Brett"}))
    assert "Bitte kürzen Sie." in refreshed
    refused = page_of(german.post("/goods/board/basket/", {**FORM, "entry-name": ""}))
    assert "Noch nicht im Warenkorb." in refused
    assert "Bitte füllen Sie „Name des Bootes“ aus." in refused
    assert german.post("/uploads/?field=photo", {}).content.decode().startswith("Es kam keine Datei an.")
    assert "Unter dieser Adresse ist nichts" in page_of(german.get("/goods/none/"))


def test_texts_are_shaped_and_cased_by_the_language_of_the_customer(worded, german):
    german.post("/goods/board/basket/", FORM)
    assert Design.objects.get().personalization.entries["language"] == "de"


def test_product_that_does_not_speak_the_customers_language_has_texts_in_its_own(product, owner, german):
    operation = {"do": "set", "path": ["language"], "value": "tr"}
    edited = edit_draft(owner, product.pk, [operation], seen_version=product.draft_version, label="Language")
    publish_setup(owner, product.pk, seen_version=edited.draft_version)
    german.post("/goods/board/basket/", {**FORM, "entry-name": "deniz"})
    # The dot of a Turkish i stays on its capital.
    assert "DENİZ" in page_of(german.get("/basket/"))


def ordered(browser):
    browser.post("/goods/board/basket/", FORM)
    page = browser.get("/checkout/").context["form"].initial
    facts = {"name": "Wilma", "mail": "wilma@post.example", **ADDRESS, "checked": "on"}
    browser.post("/checkout/", {**{name: str(value) for name, value in page.items()}, **facts})
    return Order.objects.get()


def test_order_speaks_to_its_customer_and_to_the_workshop_each_in_their_own(worded, german, sign_in):
    order = ordered(german)
    assert order.language == "de"
    page = page_of(german.get(f"/order/{order.token}/"))
    assert "Wartet auf Zahlung" in page
    assert "Bestellt; die Schreibweise wurde geprüft" in page
    assert "Übungskarte, die bezahlt" in page
    assert "Holz" in page
    staff = page_of(sign_in("desk").get(f"/workshop/orders/{order.number}/"))
    assert "Waiting for payment" in staff
    assert "Wood" in staff
    assert "Holz" not in staff
    sent = send_mails()
    customer, workshop = (sent[f"{order.number}-placed-{who}"] for who in ("customer", "workshop"))
    assert "Mit Ihrer Adresse" in customer.subject
    assert "New order" in workshop.subject


def test_price_of_an_order_keeps_its_amounts_and_is_said_as_its_reader_reads(worded, german, client):
    order = ordered(german)
    piece = order.lines.get()
    piece.quote["lines"][0]["amount"] = "99.00"
    piece.save()
    for browser, name, amount in ((german, "Brett", "99,00"), (client, "Board", "99.00")):
        page = page_of(browser.get(f"/order/{order.token}/"))
        assert f"<bdi>{name}</bdi>" in page
        assert amount in page


def test_refused_checkout_says_why_in_the_customers_language(worded, german):
    german.post("/goods/board/basket/", FORM)
    answer = german.post("/checkout/", {"name": "", "mail": "nowhere"})
    page = page_of(answer)
    assert answer.status_code == 422
    assert "Bitte füllen Sie das aus." in page
    assert "Bitte lesen Sie die Angaben noch einmal" in page


def test_workshop_stays_english_whatever_its_browsers_ask_for(worded, people):
    browser = Client(headers={"Accept-Language": "de"})
    browser.force_login(people["seller"])
    page = page_of(browser.get("/workshop/products/board/"))
    assert '<html lang="en-gb" dir="ltr">' in page
    assert "Wood" in page
    assert "from £86.00" in page


def test_cancelled_order_is_told_in_the_customers_language(worded, german, actors):
    order = ordered(german)
    cancel_order(actors["desk"], order.pk)
    page = page_of(german.get(f"/order/{order.token}/"))
    assert "Diese Bestellung wurde storniert." in page
    assert "<b>Storniert</b>" in page
