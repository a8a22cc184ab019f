import uuid
from concurrent.futures import ThreadPoolExecutor
from decimal import Decimal
from importlib import import_module

import pytest
from django.db import IntegrityError, connection, transaction
from django.test import Client
from django.test.utils import CaptureQueriesContext

from tests.apps.conftest import GUEST, send_mails
from tests.core.conftest import PHOTO
from yenzo.apps.accounts.rights import SYSTEM_ACTOR
from yenzo.apps.designs.models import Design, Personalization
from yenzo.apps.desk.services.preflights import inspect_order
from yenzo.apps.orders.interface import order_paid
from yenzo.apps.orders.models import Order, Payment
from yenzo.apps.orders.paying import give_back, pay_order, settle, tell_paid
from yenzo.apps.orders.payment_gateway import payment_gateway
from yenzo.apps.orders.services.orders import OrderError, cancel_order
from yenzo.apps.orders.services.payments import record_outcome, start_payment
from yenzo.apps.orders.showing import ShownLine
from yenzo.apps.production.making import make
from yenzo.apps.production.models import Pack
from yenzo.apps.products.models import Revision
from yenzo.apps.products.services.drafts import edit_draft
from yenzo.apps.products.services.publishing import publish_setup
from yenzo.apps.shop.services.checkout import basket_digest, order_basket
from yenzo.apps.stock.models import StockItem
from yenzo.apps.stock.services.stock import count_stock
from yenzo.gateways.payment.interface import Outcome, PaymentSilenceError


def jobs_named(name):
    with connection.cursor() as cursor:
        cursor.execute("SELECT count(*) FROM procrastinate_jobs WHERE task_name = %s", [name])
        return cursor.fetchone()[0]


def raise_price(owner, product):
    price = [{"do": "set", "path": ["offer", "base_price"], "value": "95.00"}]
    edit_draft(owner, product.pk, price, seen_version=product.draft_version, label="Price")
    product.refresh_from_db()
    publish_setup(owner, product.pk, seen_version=product.draft_version)


def test_order_freezes_what_was_asked_and_its_price(order):
    line = order.lines.get()
    assert (order.total, line.quantity, line.search_text) == (Decimal("96.70"), 1, "WIND & WHEY")
    assert line.personalization.entries["values"]["name"] == "Wind & Whey"
    assert line.personalization.asked["values"]["name"] == "WIND & WHEY"
    assert sum(Decimal(row["amount"]) for row in line.quote["lines"]) == order.total
    assert jobs_named("outbox.send_mail") == 2


def as_ordered(order):
    return ShownLine(Order.objects.get(pk=order.pk).lines.get())


def test_order_keeps_revision_and_price_when_the_seller_publishes_anew(order, owner, product):
    before = as_ordered(order)
    raise_price(owner, product)
    after = as_ordered(order)
    assert after.quote == before.quote
    assert list(after.piece.recorded.sides) == list(before.piece.recorded.sides)


def test_same_checkout_sent_twice_makes_one_order(visitor, put_in_basket, checkout_of):
    checkout = checkout_of(visitor, [put_in_basket(visitor)])
    assert order_basket(GUEST, checkout).pk == order_basket(GUEST, checkout).pk
    assert Order.objects.count() == 1


@pytest.mark.django_db(transaction=True)
def test_same_checkout_sent_at_the_same_moment_makes_one_order(visitor, put_in_basket, checkout_of):
    checkout = checkout_of(visitor, [put_in_basket(visitor)])

    def place(_number):
        try:
            return order_basket(GUEST, checkout).pk
        finally:
            connection.close()

    with ThreadPoolExecutor(4) as pool:
        assert len(set(pool.map(place, range(4)))) == 1
    assert Order.objects.count() == 1


def test_other_visitor_with_the_same_key_gets_nothing_of_the_order(order, checkout_of):
    with pytest.raises(OrderError, match="basket is empty"):
        order_basket(GUEST, checkout_of(uuid.uuid4(), [], key=order.checkout_key))


def test_basket_changed_in_another_window_is_not_ordered_unseen(visitor, put_in_basket, checkout_of):
    checkout = checkout_of(visitor, [put_in_basket(visitor)])
    put_in_basket(visitor, wood="oak")
    with pytest.raises(OrderError, match="changed in another window"):
        order_basket(GUEST, checkout)
    assert not Order.objects.exists()


def test_product_that_changed_since_is_not_ordered_unseen(
    owner, visitor, product, put_in_basket, checkout_of, browser_of
):
    designs = [put_in_basket(visitor)]
    raise_price(owner, product)
    with pytest.raises(OrderError, match="has changed this product since"):
        order_basket(GUEST, checkout_of(visitor, designs))
    shopper = browser_of(visitor)
    assert "The workshop has changed this product since" in shopper.get("/basket/").content.decode()
    page = shopper.get(f"/goods/board/?design={designs[0].pk}").content.decode()
    assert "It was £96.70 and is £105.70 now" in page
    assert 'value="Wind &amp; Whey"' in page


def test_piece_that_cannot_be_made_is_not_ordered(visitor, put_in_basket, checkout_of):
    designs = [put_in_basket(visitor, name="This name is far too long for a board")]
    with pytest.raises(OrderError, match="there is room for 18"):
        order_basket(GUEST, checkout_of(visitor, designs))
    assert Design.objects.get().in_basket


@pytest.mark.parametrize(
    ("name", "value", "words"),
    [
        ("base_price", "0.00", "It would cost less than nothing"),
        ("currency", "EUR", "It is priced in EUR; the shop sells in GBP"),
    ],
)
def test_piece_whose_price_makes_no_sense_is_not_ordered(
    owner, visitor, product, put_in_basket, checkout_of, name, value, words
):
    operation = {"do": "set", "path": ["charges", "finish", "amounts"], "value": {"gold": "-9.50"}}
    edit_draft(owner, product.pk, [operation], seen_version=0, label="x")
    product.live = publish_setup(owner, product.pk, seen_version=1)
    # Such a revision can't be published any more; one that was is guarded against all the same.
    document = {**product.live.document, "offer": {**product.live.document["offer"], name: value}}
    Revision.objects.filter(pk=product.live.pk).update(document=document, sha256="0" * 64)
    with pytest.raises(OrderError, match=words):
        order_basket(GUEST, checkout_of(visitor, [put_in_basket(visitor)]))


def test_checkout_of_another_visitor_is_refused_in_words(order, visitor, put_in_basket, checkout_of):
    other = uuid.uuid4()
    checkout = checkout_of(other, [put_in_basket(other)], key=order.checkout_key)
    with pytest.raises(OrderError, match="somebody else's"):
        order_basket(GUEST, checkout)


def test_approved_payment_marks_paid_and_wants_the_packs(order):
    assert pay_order(GUEST, order, "approves").payment_state == Order.PaymentState.PAID
    assert jobs_named("orders.tell_paid") == 1
    for _ in range(2):
        tell_paid(order.pk)
    assert (jobs_named("production.make_pack"), jobs_named("outbox.send_mail")) == (1, 4)


def test_payment_stays_recorded_and_the_mails_go_when_a_receiver_fails(order):
    def fails(sender, **_more):
        raise RuntimeError("the press is jammed")

    order_paid.connect(fails)
    try:
        assert pay_order(GUEST, order, "approves").payment_state == Order.PaymentState.PAID
        with pytest.raises(ExceptionGroup, match="did not all succeed"):
            tell_paid(order.pk)
    finally:
        order_paid.disconnect(fails)
    order.refresh_from_db()
    assert order.payments.get().state == "approved"
    assert (jobs_named("production.make_pack"), jobs_named("outbox.send_mail")) == (1, 4)


def test_declined_payment_leaves_the_order_payable_and_nothing_made(order):
    assert pay_order(GUEST, order, "declines").payment_state == Order.PaymentState.WAITING
    assert jobs_named("production.make_pack") == 0
    order.refresh_from_db()
    assert pay_order(GUEST, order, "approves").payment_state == Order.PaymentState.PAID
    assert [payment.state for payment in order.payments.order_by("pk")] == ["declined", "approved"]


def test_silent_payment_is_unknown_until_the_job_settles_it(order, settings):
    assert pay_order(GUEST, order, "silent").payment_state == Order.PaymentState.UNKNOWN
    payment = order.payments.get()
    assert jobs_named("orders.settle_payment") == 1
    with pytest.raises(PaymentSilenceError):
        settle(payment.pk)
    with pytest.raises(OrderError, match="payment unknown"):
        start_payment(GUEST, order.pk, "approves")
    options = {**settings.PAYMENT_GATEWAY["OPTIONS"], "silence_seconds": 0}
    settings.PAYMENT_GATEWAY = {**settings.PAYMENT_GATEWAY, "OPTIONS": options}
    settle(payment.pk)
    settle(payment.pk)
    order.refresh_from_db()
    assert order.payment_state == Order.PaymentState.PAID
    assert [event.words for event in order.events.all()].count("Paid") == 1


def test_payment_whose_charge_never_began_is_voided_and_cannot_come_later(order):
    payment = start_payment(GUEST, order.pk, "approves")
    settle(payment.pk)
    order.refresh_from_db()
    assert order.payment_state == Order.PaymentState.WAITING
    late = payment_gateway().charge(payment.reference.hex, order.total, "GBP", "approves")
    assert late is Outcome.DECLINED


def test_outcome_that_comes_a_second_time_changes_nothing(order):
    payment = start_payment(GUEST, order.pk, "approves")
    record_outcome(SYSTEM_ACTOR, payment.pk, Outcome.APPROVED)
    assert record_outcome(SYSTEM_ACTOR, payment.pk, Outcome.DECLINED).payment_state == Order.PaymentState.PAID


def test_database_holds_one_open_or_approved_payment_an_order(order):
    Payment.objects.create(order=order, way="approves")
    with pytest.raises(IntegrityError), transaction.atomic():
        Payment.objects.create(order=order, way="approves")


def test_only_an_order_that_waits_for_payment_is_cancelled(order, actors):
    assert cancel_order(actors["desk"], order.pk).state == Order.State.CANCELLED
    with pytest.raises(OrderError, match="can't be paid now: cancelled"):
        start_payment(GUEST, order.pk, "approves")


def test_paid_order_is_cancelled_by_the_desk_and_everybody_is_told(order, sign_in, actors, owner):
    count_stock(owner, {"NB-1": 5})
    pay_order(GUEST, order, "approves")
    inspect_order(SYSTEM_ACTOR, order.pk)
    desk = sign_in("desk")
    page = desk.get(f"/workshop/orders/{order.number}/").content.decode()
    assert "£96.70 are given back" in page
    assert "is cancelled" in desk.post(f"/workshop/orders/{order.number}/cancel/", follow=True).content.decode()
    order.refresh_from_db()
    assert order.state == Order.State.CANCELLED
    assert order.events.last().words == "Cancelled; what was paid is paid back"
    give_back(order.differences.get().pk)
    order.refresh_from_db()
    assert order.payment_state == Order.PaymentState.PAID_BACK
    assert StockItem.objects.get(sku="NB-1").pieces == 6
    mails = send_mails()
    assert "What you paid is paid back to you" in mails[f"{order.number}-cancelled-customer"].text
    assert "£96.70 are given back" in mails[f"{order.number}-cancelled-workshop"].text
    # Its packs, which were wanted already, aren't made any more.
    pack = Pack.objects.get()
    make(pack.pk)
    pack.refresh_from_db()
    assert (pack.state, list(Pack.objects.under_way())) == ("waiting", [])


def test_order_whose_payment_is_unknown_is_not_cancelled(order, sign_in):
    start_payment(GUEST, order.pk, "approves")
    page = sign_in("desk").post(f"/workshop/orders/{order.number}/cancel/", follow=True).content.decode()
    assert "isn&#x27;t known yet" in page
    order.refresh_from_db()
    assert order.payment_state == Order.PaymentState.UNKNOWN


def test_before_paying_one_short_mail_goes_without_anything_that_was_typed(order):
    sent = send_mails()
    assert {key: mail.to for key, mail in sent.items()} == {
        f"{order.number}-placed-customer": "wilma@post.example",
        f"{order.number}-placed-workshop": "workshop@tern-and-tiller.example",
    }
    short = sent[f"{order.number}-placed-customer"]
    assert f"/order/{order.token}/" in short.text
    assert (short.pictures, "WIND" in short.text, "Reedmaker" in short.text) == (0, False, False)
    full = sent[f"{order.number}-placed-workshop"]
    assert (full.pictures, "Name of the boat (Front / Panel):\n    WIND & WHEY" in full.text) == (1, True)


def test_paid_order_is_confirmed_to_both_with_entries_and_pictures_once(order):
    pay_order(GUEST, order, "approves")
    for _ in range(2):
        tell_paid(order.pk)
        sent = send_mails()
    assert len(sent) == 4
    for who in ("customer", "workshop"):
        mail = sent[f"{order.number}-paid-{who}"]
        assert (mail.pictures, "Name of the boat (Front / Panel):\n    WIND & WHEY" in mail.text) == (1, True)


def test_proven_address_gets_the_whole_confirmation_at_once(visitor, put_in_basket, checkout_of):
    designs = [put_in_basket(visitor)]
    order = order_basket(
        GUEST, checkout_of(visitor, designs, mail="Wilma@post.example", proven_mail="wilma@post.example")
    )
    assert send_mails()[f"{order.number}-placed-customer"].pictures == 1


@pytest.mark.parametrize("proven", ["anna@post.example", "zoe@post.example", ""])
def test_only_the_address_that_was_proven_counts_as_proven(visitor, put_in_basket, checkout_of, proven):
    wanted = checkout_of(visitor, [put_in_basket(visitor)], mail="mara@post.example", proven_mail=proven)
    assert not order_basket(GUEST, wanted).is_mail_proven


@pytest.mark.parametrize("words", ["Reedmaker", "wilma@post", "wind & whey", "number", "T-number-1"])
def test_order_is_found_by_customer_number_and_words_on_the_goods(order, sign_in, words):
    words = words.replace("number", str(order.number))
    desk = sign_in("desk")
    assert "Wilma Reedmaker" in desk.get("/workshop/orders/", {"q": words}).content.decode()
    assert "No order matches" in desk.get("/workshop/orders/", {"q": words + "zzz"}).content.decode()


def test_order_list_asks_the_database_as_often_for_many_as_for_one(order, put_in_basket, checkout_of, sign_in):
    desk = sign_in("desk")

    def queries():
        with CaptureQueriesContext(connection) as caught:
            assert desk.get("/workshop/orders/").status_code == 200
        return len(caught)

    one = queries()
    for _ in range(3):
        other = uuid.uuid4()
        order_basket(GUEST, checkout_of(other, [put_in_basket(other), put_in_basket(other)]))
    assert queries() == one


def test_customers_files_are_handed_out_to_staff_only_and_as_downloads(
    visitor, put_in_basket, checkout_of, make_upload, sign_in, browser_of
):
    order = order_basket(GUEST, checkout_of(visitor, [put_in_basket(visitor, make_upload(visitor, size=(2000, 1500)))]))
    stranger = make_upload(uuid.uuid4(), "secret.jpg")
    upload = order.lines.get().personalization.uploads.get()
    address = f"/workshop/orders/{order.number}/1/uploads/"
    answer = sign_in("decorator").get(f"{address}{upload.pk}/")
    assert answer["Content-Type"] == "application/octet-stream"
    assert answer["Content-Disposition"].startswith("attachment")
    assert "sandbox" in answer["Content-Security-Policy"]
    assert answer.content == PHOTO
    assert sign_in("desk").get(f"{address}{stranger.pk}/").status_code == 404
    assert browser_of(visitor).get(f"{address}{upload.pk}/").status_code == 302


def test_order_page_opens_by_its_whole_link_only(order):
    client = Client()
    assert client.get(f"/order/{order.token}/").status_code == 200
    assert client.get(f"/order/{order.token}/1/front/picture.png")["Content-Type"] == "image/png"
    for wrong in (order.token[:-1], str(order.number), order.token.upper()):
        assert client.get(f"/order/{wrong}/").status_code == 404


def test_unknown_way_to_pay_is_refused_on_the_page(order):
    answer = Client().post(f"/order/{order.token}/pay/", {"way": "gold"})
    assert (answer.status_code, Payment.objects.count()) == (422, 0)
    assert "Please choose how to pay." in answer.content.decode()


def test_basket_digest_changes_with_every_change(visitor, put_in_basket):
    design = put_in_basket(visitor)
    before = basket_digest([design])
    design.save()
    assert basket_digest([design]) != before


def test_orders_with_mixed_directions_of_before_keep_what_was_seen_and_the_desk_is_told(order, sign_in):
    Personalization.objects.update(asked=order.lines.get().personalization.asked | {"in_typed_order": True})
    migration = import_module("yenzo.apps.orders.migrations.0005_texts_in_typed_order")
    assert migration.has_both_directions("22 مايو 2027")
    assert "in the order it was typed" in sign_in("desk").get("/workshop/orders/").content.decode()
    assert not migration.has_both_directions("مرحبا !")
    assert not migration.has_both_directions("Wind & Whey")


def test_piece_that_costs_nothing_can_be_ordered(owner, product, visitor, put_in_basket, checkout_of):
    operations = [
        {"do": "set", "path": ["offer", "base_price"], "value": "0"},
        *({"do": "remove", "path": ["charges"], "key": key} for key in ("letters", "photo", "wood", "finish")),
    ]
    edit_draft(owner, product.pk, operations, seen_version=product.draft_version, label="A gift")
    product.refresh_from_db()
    publish_setup(owner, product.pk, seen_version=product.draft_version)
    product.refresh_from_db()
    assert order_basket(GUEST, checkout_of(visitor, [put_in_basket(visitor)])).total == 0


def test_order_that_was_never_paid_is_cancelled_without_a_word_of_paying_back(order, actors):
    cancel_order(actors["desk"], order.pk)
    assert [str(event) for event in order.events.all()][-1] == "Cancelled"


def test_order_says_who_placed_it(order, actors, visitor, put_in_basket, checkout_of):
    assert order.events.first().who == "Customer"
    by_staff = order_basket(actors["desk"], checkout_of(visitor, [put_in_basket(visitor, name="Tern")]))
    assert by_staff.events.first().who == actors["desk"].name
