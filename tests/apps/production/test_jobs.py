"""Jobs: made when an order is paid, taken by one, counted, spoilt and made again, stopped, sent."""

import re
import threading
from datetime import timedelta

import pytest
from django.db import connection
from django.utils import timezone

from tests.apps.conftest import GUEST, send_mails
from yenzo.apps.accounts.models import Person
from yenzo.apps.accounts.rights import SYSTEM_ACTOR, actor_of
from yenzo.apps.designs.services.lists import put_list_in_basket
from yenzo.apps.desk.services.preflights import inspect_order
from yenzo.apps.orders.models import Order, OrderEvent
from yenzo.apps.orders.paying import pay_order
from yenzo.apps.orders.services.orders import cancel_order
from yenzo.apps.production import states
from yenzo.apps.production.models import Job, Station
from yenzo.apps.production.services.jobs import (
    JobError,
    begin_job,
    count_made,
    count_spoilt,
    put_back,
    take_next,
)
from yenzo.apps.production.services.packing import send_order
from yenzo.apps.shop.services.checkout import order_basket
from yenzo.apps.stock.models import StockItem

pytestmark = pytest.mark.django_db


def test_paid_order_becomes_a_job_for_each_method_with_minutes_from_its_content(paid):
    job = Job.objects.get()
    assert (job.method, job.quantity, job.state, job.attempt) == ("carving", 1, "ready", 1)
    assert job.number == f"T-{paid.number}-1/1"
    assert job.minutes_planned > 0
    inspect_order(SYSTEM_ACTOR, paid.pk)
    assert Job.objects.count() == 1


def test_rows_of_a_list_are_jobs_that_stay_together_in_their_order(
    visitor, make_list, checkout_of, put_in_basket, bench, decorator
):
    names = make_list(visitor, "Otter\t2", "Ines\t1", "Adder\t1", heads="Name\tPieces")
    put_list_in_basket(GUEST, names.pk, visitor=visitor)
    names.refresh_from_db()
    order = order_basket(GUEST, checkout_of(visitor, [names]))
    pay_order(GUEST, order, "approves")
    inspect_order(SYSTEM_ACTOR, order.pk)
    taken = []
    while (job := take_next(decorator, bench.pk)) is not None:
        assert take_next(decorator, bench.pk) == job
        taken.append((job.index, job.quantity))
        count_made(decorator, job.pk, job.quantity)
    assert taken == [(1, 2), (3, 1), (4, 1)]


def test_job_is_begun_by_one_only_and_the_order_says_so(job, decorator, actors):
    begin_job(decorator, job.pk)
    assert begin_job(decorator, job.pk).state == "begun"
    with pytest.raises(JobError, match="is begun by"):
        begin_job(actors["desk"], job.pk)
    order = Order.objects.get()
    assert order.begun_at
    assert OrderEvent.objects.filter(kind="begun").count() == 1
    assert not order.is_cancellable_by_customer


def test_pieces_are_counted_until_all_are_made_and_the_order_is_sent(job, paid, decorator, actors):
    Job.objects.update(quantity=3)
    begin_job(decorator, job.pk)
    count_made(decorator, job.pk, 2)
    assert (Order.objects.get().pieces_made, Order.objects.get().made_at) == (2, None)
    count_made(decorator, job.pk, 1)
    order, job = Order.objects.get(), Job.objects.get()
    assert (job.state, order.pieces_made) == ("done", 3)
    assert order.made_at
    send_order(actors["desk"], order.pk, carrier="Gull Post", number="GP 1")
    send_order(actors["desk"], order.pk, carrier="Gull Post", number="GP 1")
    with pytest.raises(JobError, match="Gull Post GP 1"):
        send_order(actors["desk"], order.pk, carrier="Other", number="GP 2")
    assert order.parcels.count() == 1
    order.refresh_from_db()
    assert (order.carrier, order.parcel_number) == ("Gull Post", "GP 1")
    mails = {mail.to: mail for key, mail in send_mails().items() if "-sent-" in key}
    assert mails["wilma@post.example"].subject == f"Your order {order.number} is on its way"
    assert "Gull Post" in mails["wilma@post.example"].text


@pytest.mark.parametrize("count", [0, -1, 4])
def test_more_than_are_left_are_not_counted(job, decorator, count):
    Job.objects.update(quantity=3)
    begin_job(decorator, job.pk)
    with pytest.raises(JobError):
        count_made(decorator, job.pk, count)
    with pytest.raises(JobError):
        count_spoilt(decorator, job.pk, count, "Slipped")
    assert (Job.objects.get().made, Job.objects.get().spoilt) == (0, 0)


def test_nothing_is_counted_before_it_is_begun_and_nothing_is_sent_before_it_is_made(job, paid, decorator, actors):
    with pytest.raises(JobError):
        count_made(decorator, job.pk, 1)
    with pytest.raises(JobError, match="isn't made yet"):
        send_order(actors["desk"], paid.pk, carrier="", number="")


def test_spoilt_piece_is_made_again_out_of_a_new_blank_with_its_reason(job, paid, decorator):
    StockItem.objects.create(sku="NB-1", pieces=4)
    Job.objects.update(quantity=2)
    begin_job(decorator, job.pk)
    count_made(decorator, job.pk, 1)
    again = count_spoilt(decorator, job.pk, 1, "The router slipped")
    assert (again.attempt, again.quantity, again.state, again.why) == (2, 1, "ready", "The router slipped")
    assert again.number == f"T-{paid.number}-1/1+2"
    assert StockItem.objects.get().pieces == 3
    assert Job.objects.get(pk=job.pk).state == "done"
    assert Order.objects.get().made_at is None
    begin_job(decorator, again.pk)
    count_made(decorator, again.pk, 1)
    order = Order.objects.get()
    assert order.made_at
    assert order.pieces_made == 2


def test_spoilt_piece_without_a_blank_left_says_so_on_its_job(job, decorator):
    StockItem.objects.create(sku="NB-1", pieces=0)
    begin_job(decorator, job.pk)
    assert "NB-1" in count_spoilt(decorator, job.pk, 1, "Split").why or "left" in Job.objects.latest("pk").why


def test_spoiling_needs_a_reason(job, decorator):
    begin_job(decorator, job.pk)
    with pytest.raises(JobError, match="what happened"):
        count_spoilt(decorator, job.pk, 1, "  ")


def test_later_method_waits_for_the_earlier_one_and_for_what_is_made_again(job, decorator):
    later = Job.objects.get()
    later.pk, later.place, later.state, later.method = None, 2, "waiting", "sewing"
    later.save()
    begin_job(decorator, job.pk)
    with pytest.raises(JobError):
        begin_job(decorator, later.pk)
    again = count_spoilt(decorator, job.pk, 1, "Slipped")
    assert Job.objects.get(pk=later.pk).state == "waiting"
    begin_job(decorator, again.pk)
    count_made(decorator, again.pk, 1)
    assert Job.objects.get(pk=later.pk).state == "ready"


def test_job_put_back_is_ready_for_the_next_with_its_minutes_kept(job, decorator, actors):
    begin_job(decorator, job.pk)
    Job.objects.update(begun_at=timezone.now() - timedelta(minutes=30))
    put_back(decorator, job.pk)
    after = Job.objects.get()
    assert (after.state, after.holder) == ("ready", None)
    assert 29 < after.minutes_taken < 31
    begin_job(actors["desk"], job.pk)


def test_cancelled_order_stops_what_is_not_begun(job, paid, owner):
    cancel_order(owner, paid.pk)
    assert Job.objects.get().state == "stopped"


def test_what_is_begun_of_a_cancelled_order_stops_when_it_is_put_back_and_is_not_made_again(job, paid, owner, actors):
    begin_job(actors["decorator"], job.pk)
    cancel_order(owner, paid.pk)
    assert Job.objects.get().state == "begun"
    with pytest.raises(JobError, match="cancelled"):
        count_spoilt(actors["decorator"], job.pk, 1, "slipped")
    assert put_back(actors["decorator"], job.pk).state == "stopped"
    with pytest.raises(JobError):
        begin_job(actors["decorator"], job.pk)


def test_states_lead_only_where_they_may():
    assert {state for state in states.NEXT if not states.NEXT[state]} == {"done", "stopped"}
    assert not states.may_become("done", "begun")
    assert all(after in states.NEXT for afters in states.NEXT.values() for after in afters)


def test_station_is_worked_through_by_its_page(job, bench, sign_in):
    browser = sign_in("decorator")
    page = browser.get("/workshop/production/stations/bench/").content.decode()
    assert "Take the next" in page
    browser.post("/workshop/production/stations/bench/next/")
    page = browser.get("/workshop/production/stations/bench/").content.decode()
    assert "WIND &amp; WHEY" in page
    assert "Board" in page
    base = f"/workshop/production/stations/bench/jobs/{job.pk}"
    browser.post(f"{base}/spoilt/", {"count": "1", "reason": "Slipped"})
    again = Job.objects.latest("pk")
    browser.post("/workshop/production/stations/bench/scan/", {"scanned": again.number.lower()})
    assert Job.objects.get(pk=again.pk).state == "begun"
    browser.post(f"/workshop/production/stations/bench/jobs/{again.pk}/made/", {"count": "1"})
    assert Order.objects.get().made_at
    assert browser.get(f"/workshop/production/jobs/{job.pk}/").status_code == 200


@pytest.mark.parametrize("scanned", ["", "T-1-1", "\u202e", "x" * 500])
def test_scan_of_what_is_no_job_here_says_so(job, bench, sign_in, scanned):
    browser = sign_in("decorator")
    answer = browser.post("/workshop/production/stations/bench/scan/", {"scanned": scanned}, follow=True)
    assert "is no job that can be done here now" in answer.content.decode()


def test_customer_reads_how_far_it_is_and_nothing_of_what_was_spoilt(job, paid, decorator, client, actors):
    address = f"/order/{paid.token}/"
    begin_job(decorator, job.pk)
    again = count_spoilt(decorator, job.pk, 1, "Slipped")
    page = client.get(address).content.decode()
    assert "0 of 1 pieces are made" in page
    assert "Slipped" not in page
    begin_job(decorator, again.pk)
    count_made(decorator, again.pk, 1)
    assert "leaves the workshop soon" in client.get(address).content.decode()
    send_order(actors["desk"], paid.pk, carrier="Gull Post", number="GP 1")
    assert "GP 1" in client.get(address).content.decode()


def test_list_of_orders_is_filtered_by_how_far_they_are_and_marks_the_late(job, paid, decorator, sign_in):
    desk = sign_in("desk")

    def found(stage):
        return f"/workshop/orders/{paid.number}/" in desk.get(f"/workshop/orders/?state={stage}").content.decode()

    assert not any(found(stage) for stage in ("late", "making", "made", "sent"))
    Order.objects.update(leaves_on=timezone.localdate() - timedelta(days=1))
    assert found("late")
    begin_job(decorator, job.pk)
    assert found("making")
    count_made(decorator, job.pk, 1)
    assert (found("making"), found("made")) == (False, True)
    desk.post(f"/workshop/production/packing/{paid.number}/sent/", {"by": "all", "carrier": "Gull Post"})
    assert (found("made"), found("sent"), found("late")) == (False, True, False)


def test_station_is_made_and_changed_by_the_desk(sign_in, product):
    desk = sign_in("desk")
    hours = {f"day-{day}": "7.5" for day in range(7)}
    desk.post("/workshop/production/stations/new/", {"name": "Bench", "methods": ["carving", "-"], **hours})
    station = Station.objects.get()
    assert (station.key, station.methods, station.hours[0]) == ("bench", ["carving", ""], 7.5)
    refused = desk.post("/workshop/production/stations/new/", {"name": "Bench", **hours})
    assert "There is a station of that name already." in refused.content.decode()
    desk.post("/workshop/production/stations/bench/change/", {"name": "Bench 2", "methods": [], **hours})
    assert Station.objects.get().name == "Bench 2"
    assert sign_in("decorator").get("/workshop/production/stations/new/").status_code == 403


def test_jobs_of_an_order_stand_on_its_page(job, paid, sign_in):
    page = sign_in("desk").get(f"/workshop/production/orders/{paid.number}/").content.decode()
    assert re.findall(r'data-job="([^"]+)"', page) == [job.number]


@pytest.mark.django_db(transaction=True)
def test_two_stations_that_press_at_once_never_get_the_same_job(owner, people, product, order, bench):
    pay_order(GUEST, order, "approves")
    inspect_order(SYSTEM_ACTOR, order.pk)
    first = Job.objects.get()
    Job.objects.bulk_create(
        Job(
            line=first.line,
            index=first.index,
            personalization=first.personalization,
            method="carving",
            place=place,
            quantity=1,
            state="ready",
            due_on=first.due_on,
            planned_on=first.planned_on,
        )
        for place in range(2, 41)
    )
    taken, lock = [], threading.Lock()

    def work(role):
        actor = actor_of(Person.objects.get(username=role))
        try:
            while (job := take_next(actor, bench.pk)) is not None:
                with lock:
                    taken.append(job.pk)
                count_made(actor, job.pk, 1)
        finally:
            connection.close()

    threads = [threading.Thread(target=work, args=(role,)) for role in ("decorator", "desk", "owner")]
    for thread in threads:
        thread.start()
    for thread in threads:
        thread.join()
    assert sorted(taken) == sorted(Job.objects.values_list("pk", flat=True))
