"""Mending what is ordered: price, stock, papers, jobs and packs follow; what is begun is made anew only on purpose."""

import uuid
from datetime import timedelta
from decimal import Decimal

import pytest
from django.utils import timezone
from procrastinate.contrib.django.models import ProcrastinateJob

from tests.apps.conftest import GUEST, send_mails
from yenzo.apps.accounts.rights import SYSTEM_ACTOR
from yenzo.apps.desk.models import Change, Preflight
from yenzo.apps.desk.services.changes import mend_pieces
from yenzo.apps.desk.services.preflights import DeskError
from yenzo.apps.orders.models import Difference, Order, Payment
from yenzo.apps.orders.paying import give_back, pay_order, settle
from yenzo.apps.orders.payment_gateway import payment_gateway
from yenzo.apps.orders.services.differences import (
    look_after_differences,
    note_difference,
    shares_of,
    waive_difference,
)
from yenzo.apps.orders.services.orders import cancel_order
from yenzo.apps.production.models import Job, Pack
from yenzo.apps.production.services.jobs import JobError, begin_job, count_made
from yenzo.apps.production.services.packing import send_order
from yenzo.apps.stock.models import StockItem

pytestmark = pytest.mark.django_db


@pytest.fixture
def desk(actors):
    return actors["desk"]


def test_mended_piece_is_looked_at_priced_and_made_anew(paid, preflight, desk, wanted):
    before = preflight.personalization
    change = mend_pieces(desk, preflight.pk, wanted(name="Wind & Wheys"), why="The customer rang: it is Wheys")
    preflight.refresh_from_db()
    line = paid.lines.get()
    assert (change.before, change.after) == (before, preflight.personalization)
    assert line.personalization == line.pieces.get().personalization == change.after
    assert line.search_text == "WIND & WHEYS"
    # One letter more, at 0.40.
    assert change.difference.amount == Decimal("0.40")
    assert (Order.objects.get().total, Order.objects.get().waits_for) == (paid.total, "customer")
    old, new = Job.objects.order_by("pk")
    assert (old.state, new.state, new.attempt, new.personalization) == ("stopped", "ready", 2, change.after)
    states = dict(Pack.objects.values_list("personalization", "state"))
    assert states == {before.pk: "dropped", change.after.pk: "waiting"}
    assert Pack.objects.current().get().personalization == change.after
    mail = send_mails()[f"change-{change.pk}"]
    assert "WIND & WHEYS" in mail.text
    assert "It costs £0.40 more" in mail.text
    assert mail.pictures


def test_same_change_is_made_once_however_often_it_is_sent(preflight, desk, wanted):
    key = uuid.uuid4()
    for _ in range(2):
        mend_pieces(desk, preflight.pk, wanted(key, name="Tern"), why="Misheard")
    assert Change.objects.count() == 1


def test_what_costs_less_is_given_back_once_by_the_payment_it_came_from(paid, preflight, desk, wanted, settings):
    change = mend_pieces(desk, preflight.pk, wanted(name="Wind"), why="Shorter")
    assert change.difference.amount < 0
    give_back(change.difference.pk)
    give_back(change.difference.pk)
    change.difference.refresh_from_db()
    assert change.difference.state == "settled"
    folder = payment_gateway()._folder
    key = f"back-{change.difference.reference.hex}-{Payment.objects.get().pk}"
    assert (folder / f"{key}.json").exists()
    assert paid.events.filter(kind="given_back").count() == 1
    assert Order.objects.get().waits_for == "station"


def test_waived_difference_is_kept_and_nobody_pays_it(paid, preflight, desk, wanted):
    change = mend_pieces(desk, preflight.pk, wanted(name="Wind & Wheys"), why="Our mistake", is_waived=True)
    assert change.difference.state == "waived"
    assert Order.objects.get().waits_for == "station"
    assert "needn’t be paid" in paid.events.get(kind="more_waived").words


def test_customer_pays_what_it_costs_more_and_only_then_it_is_sent(paid, preflight, desk, wanted, browser_of, visitor):
    change = mend_pieces(desk, preflight.pk, wanted(name="Wind & Wheys"), why="One letter more")
    job = begin_job(desk, Job.objects.get(state="ready").pk)
    count_made(desk, job.pk, 1)
    with pytest.raises(JobError, match=r"£0.40 of order \d+ are still to be paid"):
        send_order(desk, paid.pk, carrier="", number="")
    browser = browser_of(visitor)
    page = browser.get(f"/order/{paid.token}/").content.decode()
    assert "How would you like to pay the £0.40 more?" in page
    declined = {"way": "declines", "difference": change.difference.pk}
    browser.post(f"/order/{paid.token}/pay/", declined)
    assert Difference.objects.get().state == "open"
    for _ in range(2):
        browser.post(f"/order/{paid.token}/pay/", {"way": "approves", "difference": change.difference.pk})
    assert Difference.objects.get().state == "settled"
    assert sorted(Payment.objects.values_list("state", "amount")) == [
        ("approved", Decimal("0.400")),
        ("approved", paid.total),
        ("declined", Decimal("0.400")),
    ]
    assert Order.objects.get().waits_for == "desk"
    send_order(desk, paid.pk, carrier="", number="")


def test_silent_payment_of_a_difference_is_settled_later_and_never_paid_twice(paid, preflight, desk, wanted, settings):
    change = mend_pieces(desk, preflight.pk, wanted(name="Wind & Wheys"), why="One letter more")
    pay_order(GUEST, paid, "silent", change.difference)
    assert not change.difference.is_payable
    waive_difference(desk, change.difference.pk)
    assert Difference.objects.get().state == "open"
    options = {**settings.PAYMENT_GATEWAY["OPTIONS"], "silence_seconds": 0}
    settings.PAYMENT_GATEWAY = {**settings.PAYMENT_GATEWAY, "OPTIONS": options}
    settle(Payment.objects.get(state="started").pk)
    assert Difference.objects.get().state == "settled"


def test_cancelled_order_gives_back_all_that_was_paid_by_both_payments(paid, preflight, desk, wanted):
    change = mend_pieces(desk, preflight.pk, wanted(name="Wind & Wheys"), why="One letter more")
    pay_order(GUEST, paid, "approves", change.difference)
    cancel_order(desk, paid.pk)
    owed = Difference.objects.get(amount__lt=0)
    assert owed.amount == -(paid.total + Decimal("0.40"))
    assert [share for _, share in shares_of(owed)] == [paid.total, Decimal("0.40")]
    give_back(owed.pk)
    paid.refresh_from_db()
    assert paid.payment_state == "paid_back"


def test_second_amount_is_given_back_from_what_the_first_left(paid, desk):
    first = note_difference(desk, paid, -paid.total + 1, "Most of it")
    second = note_difference(desk, paid, Decimal(-1), "The rest")
    assert [share for _, share in shares_of(first)] == [paid.total - 1]
    assert [share for _, share in shares_of(second)] == [Decimal(1)]


def test_amount_whose_job_was_lost_is_given_back_all_the_same(paid, desk):
    note_difference(desk, paid, Decimal(-1), "Less")
    waiting = ProcrastinateJob.objects.filter(task_name="orders.give_back", status="todo")
    assert waiting.count() == 1
    look_after_differences(SYSTEM_ACTOR, timezone.now() + timedelta(minutes=5))
    assert waiting.count() == 1


def test_what_is_begun_is_changed_only_when_the_desk_says_that_it_is_made_anew(paid, preflight, desk, wanted, sign_in):
    job = begin_job(desk, Job.objects.get().pk)
    with pytest.raises(DeskError, match=r"It is begun: .* in the hands of Desk"):
        mend_pieces(desk, preflight.pk, wanted(name="Tern"), why="Misheard")
    assert Change.objects.count() == 0
    mend_pieces(desk, preflight.pk, wanted(name="Tern"), why="Misheard", even_begun=True)
    job.refresh_from_db()
    assert (job.state, job.holder is not None) == ("stopped", True)


def test_what_is_begun_and_made_anew_takes_new_blanks(paid, preflight, desk, wanted):
    StockItem.objects.create(sku="NB-1", pieces=3)
    begin_job(desk, Job.objects.get().pk)
    mend_pieces(desk, preflight.pk, wanted(name="Tern"), why="Misheard", even_begun=True)
    assert StockItem.objects.get().pieces == 2


def test_pieces_made_before_the_change_are_not_counted(paid, preflight, desk, wanted):
    job = begin_job(desk, Job.objects.get().pk)
    count_made(desk, job.pk, 1)
    assert Order.objects.get().made_at
    mend_pieces(desk, preflight.pk, wanted(name="Tern"), why="Misheard", even_begun=True)
    order = Order.objects.get()
    assert (order.made_at, order.pieces_made, order.waits_for) == (None, 0, "station")


def test_what_cant_be_made_isnt_changed_to(preflight, desk, wanted):
    for entries in ({"name": ""}, {"name": "W" * 40}):
        with pytest.raises(DeskError):
            mend_pieces(desk, preflight.pk, wanted(**entries), why="Longer")
    with pytest.raises(DeskError, match="why it is changed"):
        mend_pieces(desk, preflight.pk, wanted(name="Tern"), why=" ")
    assert Change.objects.count() == 0
    assert Preflight.objects.get().is_held is False


def test_doubt_about_the_mended_piece_holds_it_again(preflight, desk, wanted):
    mend_pieces(desk, preflight.pk, wanted(name="L0ve"), why="So it is written")
    preflight.refresh_from_db()
    assert (preflight.state, Order.objects.get().waits_for) == ("held", "desk")
    assert not Job.objects.filter(state="ready").exists()


def test_piece_keeps_its_blank_though_none_is_left_for_others(paid, preflight, sign_in):
    StockItem.objects.create(sku="NB-1", pieces=0)
    sent = {"entry-name": "Tern", "entry-lettering": "quayside", "entry-wood": "cedar", "entry-finish": "gold"}
    sign_in("desk").post(f"/workshop/desk/{preflight.pk}/mend/", {**sent, "why": "Misheard"})
    assert Change.objects.get().after.asked["values"]["name"] == "TERN"
    assert StockItem.objects.get().pieces == 0


def test_desk_mends_in_the_slip_and_sees_what_it_costs(paid, preflight, sign_in):
    client = sign_in("desk")
    address = f"/workshop/desk/{preflight.pk}/mend/"
    page = client.get(address).content.decode()
    assert 'value="Wind &amp; Whey"' in page
    assert "Costs the same as before" in page
    sent = {"entry-name": "Wind & Wheys", "entry-lettering": "quayside", "entry-wood": "cedar", "entry-finish": "gold"}
    assert "£0.40 more than before" in client.post(f"{address}preview/", sent).content.decode()
    refused = client.post(address, sent)
    assert (refused.status_code, "why it is changed" in refused.content.decode()) == (422, True)
    assert "Wind &amp; Wheys" in refused.content.decode()
    refused = client.post(address, {**sent, "entry-name": "", "why": "Empty"})
    assert (refused.status_code, "It can’t be made like this" in refused.content.decode()) == (422, True)
    done = client.post(address, {**sent, "why": "Misheard", "money": "waived", "pieces": "7"}, follow=True)
    assert "is changed" in done.content.decode()
    change = Change.objects.get()
    assert (change.difference.state, change.after.asked["pieces"]) == ("waived", 1)
    shown = client.get(f"/workshop/desk/{preflight.pk}/{change.pk}/before-front.png")
    assert shown.content.startswith(b"\x89PNG")
    assert shown.content != client.get(f"/workshop/desk/{preflight.pk}/{change.pk}/after-front.png").content
