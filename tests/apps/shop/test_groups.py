"""Groups: an organiser lets others order; each fills in their own; one pays for all or each for themselves."""

import re
import uuid
from datetime import timedelta

import pytest
from django.utils import timezone

from tests.apps.conftest import ADDRESS
from yenzo.apps.designs.models import Design, Group, NameList
from yenzo.apps.orders.models import Order
from yenzo.apps.products.models import Product

pytestmark = pytest.mark.django_db


@pytest.fixture
def organiser(browser_of, visitor):
    return browser_of(visitor)


@pytest.fixture
def member(browser_of):
    return browser_of(uuid.uuid4())


def tomorrow(days=1):
    return (timezone.localdate() + timedelta(days=days)).isoformat()


def opened(organiser, **terms):
    """Return the page of a group that orders boards of oak."""
    begun = organiser.post("/goods/board/list/", {"entry-wood": "oak"}).url
    said = {"title": "Regatta", "organiser": "Wilma", "closes_on": tomorrow(), "pays": "organiser", "goes": "together"}
    answer = organiser.post(f"{begun}group/", said | terms)
    assert answer.status_code == 302, answer.content.decode()
    return f"/group/{Group.objects.latest('pk').token}/"


def fill(browser, page, name="Otter", by="Otto", **more):
    sent = {"by": by, "cell-0": name, "sent_as": str(uuid.uuid4())} | more
    return browser.post(f"{page}{NameList.objects.latest('created_at').pk}/", sent)


def test_members_fill_in_their_own_and_the_organiser_orders_all(organiser, member, browser_of, product):
    page = opened(organiser)
    names = NameList.objects.get()
    assert names.targets == ["name"]
    shown = member.get(page).content.decode()
    assert "Regatta" in shown
    assert "Oak" in shown
    fill(member, page)
    fill(browser_of(uuid.uuid4()), page, name="Adder", by="Ines")
    assert [(row.by, row.cells, row.state) for row in names.rows.all()] == [
        ("Otto", ["Otter"], "good"),
        ("Ines", ["Adder"], "good"),
    ]
    assert "Otter" in member.get(page).content.decode()
    assert "Adder" not in member.get(page).content.decode()
    listed = organiser.get(f"/lists/{names.pk}/").content.decode()
    assert "Otto" in listed
    assert "Ines" in listed
    organiser.post(f"/lists/{names.pk}/basket/")
    assert NameList.objects.get().in_basket


def test_piece_that_cannot_be_made_is_refused_in_words_and_kept_in_the_form(organiser, member, product):
    page = opened(organiser)
    answer = fill(member, page, name="Otter!")
    assert answer.status_code == 422
    text = answer.content.decode()
    assert "“!”" in text
    assert 'value="Otter!"' in text
    assert 'value="Otto"' in text
    assert not NameList.objects.get().rows.exists()


def test_member_says_who_they_are(organiser, member, product):
    page = opened(organiser)
    assert "Please write your name" in fill(member, page, by=" ").content.decode()


def test_double_click_is_one_row(organiser, member, product):
    page = opened(organiser)
    once = {"sent_as": str(uuid.uuid4())}
    for _ in range(2):
        fill(member, page, **once)
    assert NameList.objects.get().rows.count() == 1


def test_member_takes_their_own_back_and_nobody_elses(organiser, member, browser_of, product):
    page = opened(organiser)
    fill(member, page)
    names = NameList.objects.get()
    browser_of(uuid.uuid4()).post(f"{page}{names.pk}/1/back/")
    assert names.rows.active().count() == 1
    member.post(f"{page}{names.pk}/1/back/")
    assert names.rows.active().count() == 0


def test_closed_group_takes_nothing_more(organiser, member, product):
    page = opened(organiser)
    fill(member, page)
    Group.objects.update(closes_on=timezone.localdate() - timedelta(days=1))
    assert "takes no more orders" in member.get(page).content.decode()
    assert fill(member, page, name="Late").status_code == 422
    member.post(f"{page}{NameList.objects.get().pk}/1/back/")
    assert NameList.objects.get().rows.active().count() == 1


def test_closed_group_leaves_nothing_in_the_basket(organiser, member, product):
    page = opened(organiser, pays="each")
    Group.objects.update(closes_on=timezone.localdate() - timedelta(days=1))
    assert fill(member, page).status_code == 422
    assert not Design.objects.exists()


def test_each_pays_their_own_and_the_organiser_sees_who_has_ordered(organiser, member, product):
    page = opened(organiser, pays="each")
    assert fill(member, page).url == "/basket/"
    design = Design.objects.get()
    assert design.personalization.entries["values"] == {"wood": "oak", "name": "Otter"} | {
        key: value for key, value in design.personalization.entries["values"].items() if key not in {"wood", "name"}
    }
    listed = f"/lists/{NameList.objects.get().pk}/"
    assert "not ordered yet" in organiser.get(listed).content.decode()
    form = member.get("/checkout/").context["form"]
    assert [one.way.name for one in form.ways.values()] == ["Together with “Regatta”, to Wilma"]
    sent = {name: str(value) for name, value in form.initial.items()}
    facts = {"name": "Otto", "mail": "otto@post.example", "checked": "on"}
    assert member.post("/checkout/", {**sent, **facts}).status_code == 302
    order = Order.objects.get()
    assert (order.delivery_price, order.delivery_name) == (0, "Together with “Regatta”, to Wilma")
    assert "not ordered yet" not in organiser.get(listed).content.decode()
    page = member.get(page).content.decode()
    assert "Take it back" not in page


def test_list_whose_members_pay_is_not_ordered_once_more_together(organiser, member, product):
    page = opened(organiser, pays="each")
    fill(member, page)
    names = NameList.objects.get()
    answer = organiser.post(f"/lists/{names.pk}/basket/", follow=True)
    assert "there is nothing to be ordered together" in answer.content.decode()
    assert not NameList.objects.get().in_basket
    assert "in the basket</button>" not in organiser.get(f"/lists/{names.pk}/").content.decode()


def test_who_pays_changes_for_all_lists_of_a_group_and_takes_them_out_of_the_basket(organiser, member, product):
    page = opened(organiser)
    fill(member, page)
    names = NameList.objects.get()
    second = organiser.post("/goods/board/list/", {"entry-wood": "oak"}).url
    organiser.post(f"{second}group/", {"join": Group.objects.get().pk})
    organiser.post(f"/lists/{names.pk}/basket/")
    terms = {"title": "Regatta", "organiser": "Wilma", "closes_on": tomorrow(), "pays": "each", "goes": "each"}
    organiser.post(f"{second}group/", terms)
    assert Group.objects.get().each_pays
    assert not NameList.objects.filter(in_basket=True).exists()


def test_page_of_a_group_stands_when_its_product_is_sold_no_more(organiser, member, product):
    page = opened(organiser)
    fill(member, page)
    Product.objects.update(live=None)
    answer = member.get(page)
    assert answer.status_code == 200
    assert "Otter" in answer.content.decode()


def test_what_was_ordered_is_not_taken_back(organiser, member, product):
    page = opened(organiser, pays="each")
    fill(member, page)
    names = NameList.objects.get()
    Design.objects.update(in_basket=False, ordered_at=timezone.now())
    member.post(f"{page}{names.pk}/1/back/")
    assert names.rows.active().count() == 1


def test_what_goes_to_each_is_sent_as_usual(organiser, member, product):
    page = opened(organiser, pays="each", goes="each")
    fill(member, page)
    form = member.get("/checkout/").context["form"]
    assert [one.way.key for one in form.ways.values()] == ["post"]
    sent = {name: str(value) for name, value in form.initial.items()}
    facts = {"name": "Otto", "mail": "otto@post.example", "checked": "on", **ADDRESS}
    assert member.post("/checkout/", {**sent, **facts}).status_code == 302


def test_taking_back_a_piece_that_each_pays_takes_it_out_of_the_basket(organiser, member, product):
    page = opened(organiser, pays="each")
    fill(member, page)
    member.post(f"{page}{NameList.objects.get().pk}/1/back/")
    assert not Design.objects.get().in_basket


@pytest.mark.parametrize(
    "wrong",
    [
        {"closes_on": tomorrow(-1)},
        {"closes_on": "someday"},
        {"title": ""},
        {"organiser": " "},
        {"pays": "nobody"},
        {"pays": "organiser", "goes": "each"},
    ],
)
def test_terms_that_cannot_be_are_refused_in_words(organiser, product, wrong):
    begun = organiser.post("/goods/board/list/", {}).url
    said = {"title": "Regatta", "organiser": "Wilma", "closes_on": tomorrow(), "pays": "organiser", "goes": "together"}
    answer = organiser.post(f"{begun}group/", said | wrong)
    assert answer.status_code == 422
    assert 'class="problem' in answer.content.decode()
    assert not Group.objects.exists()


def test_second_list_joins_the_group_and_its_page_shows_both(organiser, member, product):
    page = opened(organiser)
    second = organiser.post("/goods/board/list/", {"entry-wood": "cedar"}).url
    organiser.post(f"{second}group/", {"join": str(Group.objects.get().pk)})
    shown = member.get(page).content.decode()
    assert len(re.findall("data-list=", shown)) == 2


def test_list_of_somebody_else_joins_no_group(organiser, member, product):
    opened(organiser)
    theirs = member.post("/goods/board/list/", {}).url
    assert member.post(f"{theirs}group/", {"join": str(Group.objects.get().pk)}).status_code == 404
    assert organiser.get(f"{theirs}group/").status_code == 404


def test_preview_shows_the_piece_and_what_it_costs_and_writes_nothing(organiser, member, product):
    page = opened(organiser)
    answer = member.post(f"{page}{NameList.objects.get().pk}/preview/", {"cell-0": "Otter"})
    text = answer.content.decode()
    assert "data:image/png;base64," in text
    assert re.search(r'data-total="[\d.]+"', text)
    assert not NameList.objects.get().rows.exists()
