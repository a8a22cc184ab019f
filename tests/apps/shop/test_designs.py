"""My designs: kept by themselves, named, shown to others, gone on with elsewhere, on every machine when signed in."""

import io
import re
import uuid

import pytest
from django.test import Client
from PIL import Image

from tests.apps.conftest import GUEST, send_mails
from yenzo.apps.designs.models import Design, Look, NameList, UnfinishedEntries, Upload
from yenzo.apps.designs.services.looks import show_design
from yenzo.apps.outbox.models import OutgoingMail
from yenzo.apps.shop.models import SignInLink
from yenzo.apps.shop.services.checkout import order_basket
from yenzo.apps.shop.services.sign_in import ask_for_link, token_of
from yenzo.apps.workshop.services.workshop import change_workshop

pytestmark = pytest.mark.django_db


@pytest.fixture
def browser(browser_of, visitor):
    return browser_of(visitor)


def kept(browser, **entries):
    return browser.post("/goods/board/kept/", {f"entry-{key}": value for key, value in entries.items()})


def sent_texts():
    return {key: mail.text for key, mail in send_mails().items()}


def sign_in_with(browser, mail):
    link = ask_for_link(GUEST, mail)
    browser.post(f"/account/{token_of(link)}/")
    return uuid.UUID(browser.session["visitor"])


def test_piece_that_cannot_be_made_yet_is_kept_as_it_is(browser, product):
    browser.post("/goods/board/keep/", {"entry-name": "Argo!"})
    answer = kept(browser, name="Argo!", wood="oak")
    design = Design.objects.get()
    assert not design.in_basket
    assert design.personalization.entries["values"]["name"] == "Argo!"
    assert not UnfinishedEntries.objects.exists()
    page = browser.get(answer.url).content.decode()
    assert f'data-design="{design.pk}"' in page
    assert "ARGO!" in page


def test_kept_design_is_changed_and_goes_into_the_basket(browser, product):
    kept(browser, name="Otter")
    design = Design.objects.get()
    page = browser.get(f"/goods/board/?design={design.pk}").content.decode()
    assert 'value="Otter"' in page
    browser.post("/goods/board/kept/", {"entry-name": "Adder", "design": str(design.pk)})
    assert Design.objects.get().personalization.entries["values"]["name"] == "Adder"
    assert not Design.objects.get().in_basket
    browser.post(f"/designs/{design.pk}/basket/")
    assert Design.objects.get().in_basket


def test_design_in_the_basket_stays_there_when_it_is_kept_from_its_page(browser, visitor, put_in_basket):
    design = put_in_basket(visitor)
    browser.post("/goods/board/kept/", {"entry-name": "Adder", "design": str(design.pk)})
    assert Design.objects.get().in_basket
    assert Design.objects.get().personalization.entries["values"]["name"] == "Adder"


def test_page_lists_what_is_begun_kept_in_the_basket_and_ordered(
    browser, visitor, put_in_basket, checkout_of, make_list, product
):
    order_basket(GUEST, checkout_of(visitor, [put_in_basket(visitor)]))
    put_in_basket(visitor, name="Second")
    kept(browser, name="Third")
    make_list(visitor, "Otter")
    browser.post("/goods/board/keep/", {"entry-name": "Begun", "entry-wood": "oak"})
    page = browser.get("/designs/").content.decode()
    assert page.count('<li class="design"') == 5
    assert all(words in page for words in ("ordered", "in the basket", "THIRD", "A list of 1 row", "Begun"))
    assert re.search(r'class="exact"[^>]*>Begun<', page)


def test_design_that_was_ordered_is_not_changed_any_more(browser, visitor, put_in_basket, checkout_of):
    design = put_in_basket(visitor)
    order_basket(GUEST, checkout_of(visitor, [design]))
    browser.post("/goods/board/basket/", {"entry-name": "Adder", "design": str(design.pk)})
    browser.post(f"/designs/{design.pk}/basket/")
    ordered = Design.objects.get(pk=design.pk)
    assert (ordered.in_basket, ordered.personalization_id) == (False, design.personalization_id)
    assert Design.objects.count() == 2


def test_design_is_named_thrown_away_and_taken_up_again(browser, product):
    kept(browser, name="Otter")
    design = Design.objects.get()
    browser.post(f"/designs/{design.pk}/name/", {"name": "For <b>Grandma</b>"})
    assert "For &lt;b&gt;Grandma" in browser.get("/designs/").content.decode()
    away = browser.post(f"/designs/{design.pk}/away/")
    assert "was thrown away" in browser.get(away.url).content.decode()
    assert f'data-design="{design.pk}"' not in browser.get("/designs/").content.decode()
    browser.post(f"/designs/{design.pk}/again/")
    assert f'data-design="{design.pk}"' in browser.get("/designs/").content.decode()


def test_look_shows_the_design_as_it_was_and_others_begin_from_a_copy(browser, visitor, put_in_basket, make_upload):
    upload = make_upload(visitor)
    design = put_in_basket(visitor, upload=upload)
    browser.post(f"/designs/{design.pk}/share/")
    look = Look.objects.get()
    browser.post("/goods/board/basket/", {"entry-name": "Changed", "design": str(design.pk)})
    other = Client()
    page = other.get(f"/look/{look.token}/").content.decode()
    assert "WIND &amp; WHEY" in page
    begun = other.post(f"/look/{look.token}/begin/")
    copy = Design.objects.exclude(visitor=visitor).get()
    assert str(copy.pk) in begun.url
    assert Upload.objects.exclude(visitor=visitor).get().original == upload.original
    page = other.get(begun.url).content.decode()
    assert 'value="Wind &amp; Whey"' in page
    assert str(Upload.objects.exclude(visitor=visitor).get().pk) in page
    assert Design.objects.get(pk=design.pk).personalization.entries["values"]["name"] == "Changed"


def test_shared_picture_carries_the_workshops_name_unless_it_does_not_want_that(owner, browser, visitor, put_in_basket):
    design = put_in_basket(visitor)
    look = show_design(GUEST, design.pk, visitor=visitor, is_shared=True)
    own = show_design(GUEST, design.pk, visitor=visitor, is_shared=False, mail="wilma@post.example")

    def picture(of):
        data = browser.get(f"/look/{of.token}/front.png").content
        return Image.open(io.BytesIO(data)).convert("RGB").tobytes()

    plain = picture(own)
    assert picture(look) != plain
    change_workshop(owner, {"looks_are_marked": False})
    assert picture(look) == plain


def test_look_that_was_withdrawn_shows_nothing(browser, visitor, put_in_basket):
    design = put_in_basket(visitor)
    browser.post(f"/designs/{design.pk}/share/")
    look = Look.objects.get()
    browser.post(f"/designs/{design.pk}/withdraw/")
    assert Client().get(f"/look/{look.token}/").status_code == 404
    assert Client().get(f"/look/{look.token}/front.png").status_code == 404
    assert Client().post(f"/look/{look.token}/begin/").status_code == 404


def test_sharing_twice_gives_one_link_and_a_changed_design_another(browser, visitor, put_in_basket):
    design = put_in_basket(visitor)
    for _ in range(2):
        browser.post(f"/designs/{design.pk}/share/")
    assert Look.objects.count() == 1
    browser.post("/goods/board/basket/", {"entry-name": "Changed", "design": str(design.pk)})
    browser.post(f"/designs/{design.pk}/share/")
    assert Look.objects.count() == 2


def test_link_mailed_to_oneself_goes_on_with_a_copy_elsewhere(browser, visitor, put_in_basket):
    design = put_in_basket(visitor)
    browser.post("/designs/mail/", {"mails": str(design.pk), "mail": "wilma@post.example"})
    mail = next(text for name, text in sent_texts().items() if name.startswith("look-"))
    address = re.search(r"/look/[\w-]+/", mail)[0]
    assert "Go on here" in Client().get(address).content.decode()
    desktop = Client()
    desktop.post(f"{address}begin/")
    assert Design.objects.count() == 2


def test_list_goes_on_elsewhere_by_its_link(browser, visitor, make_list):
    names = make_list(visitor, "Otter", "Ines")
    browser.post("/designs/mail/", {"mails": str(names.pk), "mail": "wilma@post.example"})
    look = Look.objects.get()
    page = Client().get(f"/look/{look.token}/").content.decode()
    assert re.findall(r'data-row="(\d)" data-verdict="(\w+)"', page) == [("1", "good"), ("2", "good")]
    desktop = Client()
    copy = desktop.post(f"/look/{look.token}/begin/").url
    assert desktop.get(copy).status_code == 200
    assert [row.cells for row in NameList.objects.exclude(pk=names.pk).get().rows.all()] == [["Otter"], ["Ines"]]


@pytest.mark.parametrize("mail", ["", "nobody", "a" * 300 + "@post.example"])
def test_no_link_is_mailed_to_what_is_no_address(browser, visitor, put_in_basket, mail):
    design = put_in_basket(visitor)
    answer = browser.post("/designs/mail/", {"mails": str(design.pk), "mail": mail})
    assert answer.status_code == 422
    assert not OutgoingMail.objects.exists()


def test_nothing_of_somebody_else_is_shown_named_or_thrown_away(browser_of, visitor, put_in_basket):
    design = put_in_basket(visitor)
    other = browser_of(uuid.uuid4())
    for action in ("share", "name", "away", "withdraw", "basket"):
        other.post(f"/designs/{design.pk}/{action}/", {"name": "Mine"})
    other.post(f"/designs/{design.pk}/copy/")
    after = Design.objects.get()
    assert (after.name, after.thrown_away_at, Look.objects.count()) == ("", None, 0)


def test_who_signs_in_finds_their_designs_on_every_machine(browser_of, put_in_basket, product):
    phone, desktop = browser_of(one := uuid.uuid4()), browser_of(two := uuid.uuid4())
    first, second = put_in_basket(one), put_in_basket(two, name="Second")
    assert sign_in_with(phone, "wilma@post.example") == one
    assert sign_in_with(desktop, "Wilma@Post.example") == one
    assert set(Design.objects.filter(visitor=one)) == {first, second}
    page = desktop.get("/basket/").content.decode()
    assert str(first.pk) in page
    assert str(second.pk) in page


def test_who_signs_out_leaves_nothing_behind_for_the_next(browser, visitor, put_in_basket):
    put_in_basket(visitor)
    sign_in_with(browser, "wilma@post.example")
    browser.post("/account/out/")
    assert browser.session["visitor"] != str(visitor)
    assert sign_in_with(browser, "otto@post.example") != visitor
    assert Design.objects.get().visitor == visitor
    assert sign_in_with(browser, "wilma@post.example") == visitor


def test_second_customer_of_a_browser_takes_nothing_of_the_first(browser, visitor, put_in_basket):
    put_in_basket(visitor)
    sign_in_with(browser, "wilma@post.example")
    assert sign_in_with(browser, "otto@post.example") != visitor
    assert Design.objects.get().visitor == visitor
    assert SignInLink.objects.exclude(used_at=None).count() == 2


def test_of_what_was_begun_on_two_machines_the_later_stays(browser_of, product):
    phone, desktop = browser_of(uuid.uuid4()), browser_of(uuid.uuid4())
    own = sign_in_with(phone, "wilma@post.example")
    phone.post("/goods/board/keep/", {"entry-name": "Early"})
    desktop.post("/goods/board/keep/", {"entry-name": "Late"})
    sign_in_with(desktop, "wilma@post.example")
    begun = UnfinishedEntries.objects.get()
    assert (begun.visitor, "Late" in begun.form) == (own, True)
