"""What is entered on a product's page and not yet put in the basket: kept, shown again, forgotten; also without scripts."""

import uuid
from decimal import Decimal

import pytest
from django.core.files.uploadedfile import SimpleUploadedFile
from django.test import Client
from lxml import html

from tests.apps.conftest import looked_at, on_attempt
from tests.core.conftest import picture_bytes
from yenzo.apps.designs.jobs import look_at_upload
from yenzo.apps.designs.models import Design, UnfinishedEntries, Upload
from yenzo.apps.designs.unfinished import MOST_KEPT_CHARACTERS

FORM = {"entry-name": "Wind & Whey", "entry-lettering": "levant", "entry-finish": "white", "entry-wood": "oak"}
PICTURE = picture_bytes((900, 900))
PHOTO_WANTED = {**FORM, "entry-with_photo": "yes"}


def entered(page):
    """What the form of a product's page would be sent with."""
    form = html.fromstring(page.content.decode()).get_element_by_id("slip-form")
    return {name: value for name, value in form.form_values() if name.startswith(("entry-", "upload-", "waits-"))}


def open_page(client, query=""):
    return client.get(f"/goods/board/{query}")


def sent_file(name="otter.png", content=None):
    return SimpleUploadedFile(name, PICTURE if content is None else content)


def work():
    for upload in Upload.objects.waiting():
        look_at_upload(on_attempt(0), upload_id=str(upload.pk))


def test_page_opened_again_shows_what_was_entered_with_its_price(product, client):
    blank = open_page(client)
    assert "still here" not in blank.content.decode()
    assert client.post("/goods/board/keep/", {**FORM, "pieces": "3", "shown": "front:0"}).status_code == 204
    page = open_page(client)
    assert entered(page).items() >= FORM.items()
    assert "What you entered here before is still here." in page.content.decode()
    assert (page.context["slip"].entries.pieces, page.context["slip"].quote.total) == (3, Decimal("333.60"))
    assert entered(open_page(Client())) == entered(blank)


def test_one_form_is_kept_of_each_product_and_visitor(product, client):
    for name in ("Otter", "Tern"):
        client.post("/goods/board/keep/", {**FORM, "entry-name": name})
    assert UnfinishedEntries.objects.count() == 1
    assert entered(open_page(client))["entry-name"] == "Tern"


def test_form_that_is_longer_than_any_form_is_not_kept(product, client):
    answer = client.post("/goods/board/keep/", {"entry-name": "x" * MOST_KEPT_CHARACTERS})
    assert (answer.status_code, UnfinishedEntries.objects.count()) == (413, 0)


def test_what_is_put_in_the_basket_or_begun_anew_is_kept_no_longer(product, client):
    client.post("/goods/board/keep/", FORM)
    assert client.post("/goods/board/anew/").url == "/goods/board/"
    assert entered(open_page(client))["entry-name"] == ""
    client.post("/goods/board/keep/", FORM)
    client.post("/goods/board/basket/", FORM)
    assert not UnfinishedEntries.objects.exists()


def test_piece_in_the_basket_is_kept_apart_while_it_is_changed(product, client):
    client.post("/goods/board/basket/", FORM)
    design = Design.objects.get()
    client.post("/goods/board/keep/", {**FORM, "entry-name": "Otter", "design": str(design.pk)})
    assert entered(open_page(client))["entry-name"] == ""
    assert entered(open_page(client, f"?design={design.pk}"))["entry-name"] == "Otter"
    client.post("/goods/board/anew/", {"design": str(design.pk)})
    assert entered(open_page(client, f"?design={design.pk}"))["entry-name"] == "Wind & Whey"


def test_session_that_ends_takes_nothing_along(product, client):
    answer = client.post("/uploads/?field=photo", {"file": sent_file()})
    upload = looked_at(client, answer).context["upload"]
    client.post("/goods/board/keep/", {**PHOTO_WANTED, "upload-photo": str(upload.pk)})
    client.post("/goods/board/basket/", FORM | {"entry-name": "Tern"})
    client.post("/goods/board/keep/", {**PHOTO_WANTED, "upload-photo": str(upload.pk)})
    client.session.flush()
    del client.cookies["sessionid"]
    assert entered(open_page(client)).items() >= {**PHOTO_WANTED, "upload-photo": str(upload.pk)}.items()
    assert "TERN" in client.get("/basket/").content.decode()


def test_visitor_that_somebody_made_up_is_nobody(product, client, put_in_basket, visitor):
    put_in_basket(visitor)
    client.cookies["visitor"] = str(visitor)
    assert "Nothing lies in your basket" in client.get("/basket/").content.decode()
    client.cookies["visitor"] = f"{visitor}:1abcde:forged"
    assert "Nothing lies in your basket" in client.get("/basket/").content.decode()


def test_what_a_page_sends_first_and_at_once_is_of_one_visitor(product, client):
    open_page(client)
    met = client.cookies["visitor"].value
    two = [Client() for _ in range(2)]
    for one in two:
        one.cookies["visitor"] = met
    answer = two[0].post("/uploads/?field=photo", {"file": sent_file()})
    two[1].post("/goods/board/keep/", FORM)
    assert Upload.objects.get().visitor == UnfinishedEntries.objects.get().visitor
    assert two[1].get(answer["Location"]).status_code == 202


def test_same_piece_sent_twice_lies_in_the_basket_once(product, client):
    once = {"sent-as": str(uuid.uuid4())}
    for _ in range(2):
        client.post("/goods/board/basket/", FORM | once)
    assert Design.objects.count() == 1
    client.post("/goods/board/basket/", FORM | once | {"entry-name": "Tern"})
    client.post("/goods/board/basket/", FORM | {"sent-as": str(uuid.uuid4())})
    assert Design.objects.filter(in_basket=True).count() == 3


def test_piece_that_was_changed_in_the_basket_is_not_changed_back_by_the_page_it_came_from(product, client):
    once = {"sent-as": str(uuid.uuid4())}
    client.post("/goods/board/basket/", FORM | once)
    design = Design.objects.get()
    client.post("/goods/board/basket/", FORM | {"entry-name": "Tern", "design": str(design.pk)})
    client.post("/goods/board/basket/", FORM | once)
    assert sorted(one.personalization.entries["values"]["name"] for one in Design.objects.all()) == [
        "Tern",
        "Wind & Whey",
    ]


def test_file_sent_without_scripts_is_waited_for_and_comes_with_the_page(product, client):
    answer = client.post("/goods/board/show/", PHOTO_WANTED | {"file-photo": sent_file()})
    assert answer.url == "/goods/board/"
    waiting = open_page(client).content.decode()
    assert "The file has arrived and is being looked at." in waiting
    assert '<noscript><meta http-equiv="refresh"' in waiting
    work()
    page = open_page(client)
    assert entered(page)["upload-photo"] == str(Upload.objects.get().pk)
    assert '<meta http-equiv="refresh"' not in page.content.decode()
    assert not [item for item in page.context["slip"].verdict.blocking if item.field == "photo"]


@pytest.mark.parametrize(
    ("content", "words"), [(b"", "is empty"), (b"MZ\x90\x00 a program", "is not a picture, whatever its name says")]
)
def test_file_refused_at_sight_is_told_and_what_was_typed_is_kept(product, client, content, words):
    client.post("/goods/board/show/", PHOTO_WANTED | {"file-photo": sent_file(content=content)})
    page = open_page(client)
    assert f"Photo: “otter.png” {words}" in page.content.decode()
    assert entered(page)["entry-name"] == "Wind & Whey"


def test_file_refused_later_is_told_at_its_line(product, client):
    client.post("/goods/board/show/", PHOTO_WANTED | {"file-photo": sent_file(content=PICTURE[:700])})
    work()
    page = open_page(client)
    assert "damaged or cut off" in page.content.decode()
    assert "waits-photo" not in entered(page)


def test_piece_sent_with_its_file_goes_into_the_basket_once_that_is_there(product, client):
    sent = PHOTO_WANTED | {"file-photo": sent_file()}
    assert client.post("/goods/board/basket/", sent).url == "/goods/board/"
    page = open_page(client)
    assert "Once its picture shows here, put the piece in the basket." in page.content.decode()
    assert not Design.objects.exists()
    work()
    assert client.post("/goods/board/basket/", entered(open_page(client))).url == "/basket/"
    assert Design.objects.get().personalization.uploads.get() == Upload.objects.get()


def test_form_that_only_the_browser_kept_is_shown_again(product, client):
    page = client.post("/goods/board/again/", FORM)
    assert entered(page).items() >= FORM.items()
    assert not UnfinishedEntries.objects.exists()
