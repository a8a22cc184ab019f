"""A piece is evaluated when its page is opened, when it is kept, and when its files are made; all else reads."""

import pytest

from tests.apps.conftest import ADDRESS, GUEST, send_mails
from tests.apps.shop.test_account import FORM, page_of
from yenzo.apps.designs.models import Personalization, Proof
from yenzo.apps.files.models import StoredFile
from yenzo.apps.orders.models import Order
from yenzo.apps.orders.paying import tell_paid
from yenzo.apps.pages.languages import read_in
from yenzo.apps.production.making import make
from yenzo.apps.production.models import Pack
from yenzo.apps.shop.services.checkout import order_basket
from yenzo.core import evaluation


@pytest.fixture
def evaluations(monkeypatch):
    """Where a scene was composed."""
    made, compose = [], evaluation.compose

    def counted(setup, asked, *others):
        made.append(asked)
        return compose(setup, asked, *others)

    monkeypatch.setattr(evaluation, "compose", counted)
    return made


def ordered(client):
    initial = {name: str(value) for name, value in client.get("/checkout/").context["form"].initial.items()}
    facts = {"name": "Wilma", "mail": "wilma@post.example", **ADDRESS, "checked": "on"}
    client.post("/checkout/", {**initial, **facts})
    return Order.objects.latest("pk")


def test_piece_is_evaluated_four_times_from_its_page_to_its_pack(product, client, evaluations, sign_in):
    client.get("/goods/board/")
    client.post("/goods/board/basket/", FORM)
    assert len(evaluations) == 2
    basket = client.get("/basket/")
    design = basket.context["basket"].lines[0].design
    assert client.get(f"/basket/{design.pk}/front/picture.png").content.startswith(b"\x89PNG")
    order = ordered(client)
    assert "WIND" in page_of(client.get(f"/order/{order.token}/"))
    assert client.get(f"/order/{order.token}/1/front/picture.png").status_code == 200
    client.post(f"/order/{order.token}/pay/", {"way": "approves"})
    tell_paid(order.pk)
    assert send_mails()[f"{order.number}-paid-customer"].pictures == 1
    desk = sign_in("desk")
    assert "WIND" in page_of(desk.get(f"/workshop/orders/{order.number}/"))
    assert desk.get(f"/workshop/orders/{order.number}/1/first/picture.png").status_code == 200
    # Looked at once more, by the checks of that day, before it is made.
    assert len(evaluations) == 3
    make(Pack.objects.get().pk)
    assert Pack.objects.get().state == Pack.State.DONE
    assert len(evaluations) == 4


def test_what_was_kept_is_read_when_the_day_and_the_stock_are_others(product, client, evaluations, owner):
    from yenzo.apps.stock.services.stock import count_stock

    client.post("/goods/board/basket/", FORM)
    count_stock(owner, {"NB-1": 1})
    assert "96.70" in page_of(client.get("/basket/"))
    order = ordered(client)
    assert len(evaluations) == 1
    kept = order.lines.get().personalization
    assert kept.asked["stock"] == {"NB-1": 1}
    assert kept.entries == Personalization.objects.exclude(pk=kept.pk).get().entries
    assert kept.proofs.get().file_id == Proof.objects.exclude(personalization=kept).get().file_id


def test_picture_that_could_not_be_kept_is_drawn_and_kept_when_somebody_looks(product, client, monkeypatch):
    from yenzo.apps.designs import personalized

    def full(_data):
        raise OSError(28, "No space left on device")

    with monkeypatch.context() as patch:
        patch.setattr(personalized, "store_file", full)
        assert client.post("/goods/board/basket/", FORM).status_code == 302
    assert not Proof.objects.exists()
    design = client.get("/basket/").context["basket"].lines[0].design
    drawn = client.get(f"/basket/{design.pk}/front/picture.png").content
    kept = Proof.objects.get()
    assert StoredFile.objects.get(pk=kept.file_id).size_bytes == len(drawn)
    assert client.get(f"/basket/{design.pk}/front/picture.png").content == drawn
    assert client.get(f"/basket/{design.pk}/no-side/picture.png").status_code == 404


def test_advice_is_kept_in_the_customers_language_and_in_the_workshops(
    visitor, make_upload, put_in_basket, checkout_of, sign_in, browser_of
):
    with read_in("de"):
        design = put_in_basket(visitor, make_upload(visitor, size=(260, 195)))
        order = order_basket(GUEST, checkout_of(visitor, [design]))
    verdicts = order.lines.get().personalization.record["verdicts"]
    advice = {language: verdict["findings"][0]["message"] for language, verdict in verdicts.items()}
    assert set(advice) == {"de", "en-gb"}
    staff = page_of(sign_in("desk").get(f"/workshop/orders/{order.number}/"))
    assert advice["en-gb"] in staff
    assert advice["de"] not in staff
