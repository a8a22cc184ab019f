"""What is done with a piece in the basket: counted, copied, taken out and put back, made anew or kept as it was."""

import html
import re
import uuid

import pytest
from django.test import Client

from tests.apps.conftest import GUEST
from tests.core.conftest import board
from yenzo.apps.designs.models import Design
from yenzo.apps.designs.to_core import entries_of
from yenzo.apps.orders.services.orders import OrderError
from yenzo.apps.products.services.drafts import edit_draft
from yenzo.apps.products.services.products import import_product
from yenzo.apps.products.services.publishing import publish_setup
from yenzo.apps.shop.basket import basket_of
from yenzo.apps.shop.services.checkout import order_basket


@pytest.fixture
def design(put_in_basket, visitor):
    return put_in_basket(visitor)


@pytest.fixture
def press(browser_of, visitor, design):
    """Press a button of the piece; the basket's page after it."""
    client = browser_of(visitor)

    def pressed(what, of=None, **given):
        return client.post(f"/basket/{(of or design).pk}/{what}/", given, follow=True).content.decode()

    return pressed


@pytest.fixture
def dearer(owner, product, design):
    """The board becomes dearer while it lies in the basket."""

    def raised(price="100.00"):
        product.refresh_from_db()
        operations = [{"do": "set", "path": ["offer", "base_price"], "value": price}]
        edit_draft(owner, product.pk, operations, seen_version=product.draft_version, label="Dearer")
        product.refresh_from_db()
        publish_setup(owner, product.pk, seen_version=product.draft_version)
        product.refresh_from_db()

    return raised


def total_of(visitor):
    return str(basket_of(visitor).total)


def test_pieces_are_counted_and_the_price_follows(press, visitor):
    before = basket_of(visitor).total
    assert f'data-total="{before * 12:.2f}"' in press("count", pieces="12")
    assert entries_of(Design.objects.get().personalization).pieces == 12


@pytest.mark.parametrize("sent", ["0", "-1", "10001", "many", "", "1e3", "٣", "9" * 40])
def test_a_number_that_cannot_be_ordered_says_so_and_changes_nothing(press, sent):
    assert "can’t be ordered" in press("count", pieces=sent).replace("&#x27;", "’").replace("'", "’")
    assert entries_of(Design.objects.get().personalization).pieces == 1


def test_a_copy_lies_beside_it_and_is_changed_alone(press, design, visitor):
    assert "A copy lies in the basket" in press("copy")
    other = Design.objects.exclude(pk=design.pk).get()
    press("count", of=other, pieces="3")
    design.refresh_from_db()
    assert [entries_of(one.design.personalization).pieces for one in basket_of(visitor).lines] == [1, 3]


def test_what_was_taken_out_is_put_back_as_it_was(press, design, visitor):
    before = design.personalization_id
    page = press("remove")
    assert "was taken out of the basket" in page
    assert basket_of(visitor).lines == ()
    assert "It lies in the basket again" in press("back")
    [line] = basket_of(visitor).lines
    assert line.design.personalization_id == before


def test_old_and_new_price_are_shown_and_the_new_one_is_taken(press, dearer, product, visitor):
    old = total_of(visitor)
    dearer()
    page = press("back")
    assert "it costs £" in page
    assert old in re.sub("£", "", page)
    assert not basket_of(visitor).is_orderable
    press("renew")
    [line] = basket_of(visitor).lines
    assert (line.design.revision, line.newer) == (product.live, None)
    assert basket_of(visitor).is_orderable
    assert float(total_of(visitor)) - float(old) == pytest.approx(14)


def test_a_piece_stays_as_it_was_until_the_workshop_changes_it_once_more(press, dearer, product, visitor, checkout_of):
    old = total_of(visitor)
    dearer()
    page = press("stay", revision=str(product.live_id))
    assert "It stays as you made it" in page
    assert (basket_of(visitor).is_orderable, total_of(visitor)) == (True, old)
    dearer("120.00")
    assert not basket_of(visitor).is_orderable
    design = Design.objects.get()
    with pytest.raises(OrderError, match="has changed this product"):
        order_basket(GUEST, checkout_of(visitor, [design]))
    press("stay", revision=str(product.live_id))
    order = order_basket(GUEST, checkout_of(visitor, [Design.objects.get()]))
    assert str(order.total) == old


def test_a_piece_that_stays_as_it_was_stays_so_when_it_is_counted(press, dearer, product, visitor):
    dearer()
    press("stay", revision=str(product.live_id))
    press("count", pieces="2")
    assert basket_of(visitor).is_orderable


def test_what_is_done_very_often_in_a_short_time_waits(press, visitor, settings):
    settings.LIMITS = {**settings.LIMITS, "basket": "3/day"}
    pages = [press("copy") for _ in range(4)]
    assert "was sent very often" not in pages[2]
    assert "was sent very often" in pages[3]
    assert len(basket_of(visitor).lines) == 4


def test_whoever_has_seen_another_revision_than_is_live_is_asked_again(press, dearer, product, visitor):
    dearer()
    seen = product.live_id
    dearer("130.00")
    for sent in (str(seen), "", "x", "9" * 30):
        assert "changed it once more" in press("stay", revision=sent)
    assert not basket_of(visitor).is_orderable


def test_what_cannot_be_made_any_more_is_sent_to_its_field(press, owner, product, design, visitor):
    operations = [{"do": "set", "path": ["fields", "name", "most_characters"], "value": 3}]
    edit_draft(owner, product.pk, operations, seen_version=product.draft_version, label="Shorter")
    product.refresh_from_db()
    publish_setup(owner, product.pk, seen_version=product.draft_version)
    assert "must be mended first" in press("renew")
    design.refresh_from_db()
    assert design.revision.pk != Design.objects.get().revision.product.live_id


@pytest.mark.parametrize("what", ["answer", "count", "copy", "remove", "back", "renew", "stay"])
def test_nobody_touches_another_basket(design, browser_of, what, visitor):
    for client in (Client(), browser_of(uuid.uuid4())):
        answer = client.post(f"/basket/{design.pk}/{what}/", {"pieces": "9", "revision": "1"})
        assert answer.status_code in {302, 404}
    [line] = basket_of(visitor).lines
    assert entries_of(line.design.personalization).pieces == 1
    assert Design.objects.count() == 1


def test_a_checkout_in_another_window_sees_that_a_piece_was_kept(press, dearer, product, visitor, checkout_of):
    dearer()
    seen = checkout_of(visitor, list(Design.objects.all()))
    press("stay", revision=str(product.live_id))
    with pytest.raises(OrderError, match="changed in another window"):
        order_basket(GUEST, seen)


@pytest.fixture
def sign(owner, product):
    """Other goods, with one line of text and nothing for pictures."""
    document = {name: value for name, value in board().items() if name != "materials"}
    document["offer"]["name"] = "Door sign"
    document["fields"] = [document["fields"][0] | {"label": "Words of the door"}]
    document["placements"], document["charges"] = [], []
    made = import_product(owner, document, key="sign")
    publish_setup(owner, made.pk, seen_version=made.draft_version)
    return made


def test_a_design_is_carried_to_other_goods_and_what_finds_no_place_is_said(
    sign, browser_of, visitor, put_in_basket, make_upload
):
    design = put_in_basket(visitor, make_upload(visitor))
    client = browser_of(visitor)
    [address] = re.findall(r'href="(/goods/sign/[^"]+)"', client.get(f"/basket/{design.pk}/like/").content.decode())
    page = html.unescape(client.get(address).content.decode())
    assert 'value="Wind & Whey"' in page
    assert "Carried over from your Board" in page
    assert "“otter.jpg” found no place here." in page
    # Nothing lies in the basket, and nothing is kept, before somebody wants it.
    assert Design.objects.count() == 1
    assert "Wind" not in client.get("/goods/sign/").content.decode()


def test_a_design_with_its_picture_comes_to_goods_that_take_it(
    owner, product, browser_of, visitor, put_in_basket, make_upload
):
    document = {name: value for name, value in board().items() if name != "materials"}
    twin = import_product(owner, document, key="twin")
    publish_setup(owner, twin.pk, seen_version=twin.draft_version)
    upload = make_upload(visitor)
    design = put_in_basket(visitor, upload)
    client = browser_of(visitor)
    page = client.get(f"/goods/twin/?like={design.pk}").content.decode()
    assert f'value="{upload.pk}"' in page
    assert Client().get(f"/goods/twin/?like={design.pk}").content.decode().count(str(upload.pk)) == 0


def test_what_was_begun_is_not_lost_for_a_design_that_is_carried_over(sign, design, browser_of, visitor):
    client = browser_of(visitor)
    client.post("/goods/sign/keep/", {"entry-name": "Begun"})
    page = client.get(f"/goods/sign/?like={design.pk}").content.decode()
    assert 'value="Begun"' in page
    assert "You have begun one of these already" in page


@pytest.mark.parametrize("wanted", ["", "x", "00000000-0000-4000-8000-000000000000"])
def test_a_design_that_is_not_there_is_not_carried(sign, client, wanted):
    page = client.get(f"/goods/sign/?like={wanted}")
    assert page.status_code == 200
    assert "Carried over" not in page.content.decode()
    assert client.get(f"/basket/{uuid.uuid4()}/like/").status_code == 404
