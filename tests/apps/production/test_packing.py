"""Packing and sending: the rack, checking by scan, parts, the carrier, delivery notes; each counted once."""

import subprocess
import threading

import pytest
from django.db import connection

from tests.apps.conftest import GUEST, send_mails
from yenzo.apps.accounts.rights import SYSTEM_ACTOR
from yenzo.apps.designs.services.lists import put_list_in_basket
from yenzo.apps.desk.models import Preflight
from yenzo.apps.orders.models import Difference, Order
from yenzo.apps.orders.paying import pay_order, tell_paid
from yenzo.apps.orders.services.orders import cancel_order
from yenzo.apps.production.carrier_gateway import carrier
from yenzo.apps.production.costs import costs_of
from yenzo.apps.production.models import Job, Parcel, ParcelItem, RackPlace
from yenzo.apps.production.packing import scanned_at_packing
from yenzo.apps.production.sending import ask_after_parcels, book_and_send
from yenzo.apps.production.services.jobs import JobError, ask_about, begin_job, count_made, save_station
from yenzo.apps.production.services.packing import put_in_parcel, send_order, send_parcel, take_out
from yenzo.apps.shop.services.checkout import order_basket
from yenzo.apps.workshop.models import Workshop
from yenzo.gateways.carrier.interface import CarrierSilenceError

pytestmark = pytest.mark.django_db


@pytest.fixture
def desk(actors):
    return actors["desk"]


@pytest.fixture
def crew(visitor, make_list, checkout_of):
    """A paid list of three rows, four pieces."""
    names = make_list(visitor, "Otter\t2", "Ines\t1", "Adder\t1", heads="Name\tPieces")
    put_list_in_basket(GUEST, names.pk, visitor=visitor)
    names.refresh_from_db()
    order = order_basket(GUEST, checkout_of(visitor, [names]))
    pay_order(GUEST, order, "approves")
    tell_paid(order.pk)
    return order


def make(actor, order, *indexes):
    for job in Job.objects.filter(line__order=order, index__in=indexes):
        begin_job(actor, job.pk)
        count_made(actor, job.pk, job.quantity)


def words_of(data):
    return subprocess.run(
        ["pdftotext", "-layout", "-", "-"], input=data, capture_output=True, check=True
    ).stdout.decode()


def test_first_made_piece_gets_the_lowest_free_place_until_all_is_sent(crew, desk, order):
    assert not RackPlace.objects.exists()
    make(desk, crew, 1)
    assert RackPlace.objects.get(order=crew).number == 1
    pay_order(GUEST, order, "approves")
    tell_paid(order.pk)
    make(desk, order, 1)
    assert RackPlace.objects.get(order=order).number == 2
    send_order(desk, order.pk, carrier="", number="")
    assert list(RackPlace.objects.values_list("number", flat=True)) == [1]
    cancel_order(desk, crew.pk)
    assert not RackPlace.objects.exists()


def test_full_rack_says_so_by_giving_no_place(crew, desk, order):
    Workshop.objects.create(rack_places=1)
    make(desk, crew, 1)
    pay_order(GUEST, order, "approves")
    tell_paid(order.pk)
    make(desk, order, 1)
    assert not RackPlace.objects.filter(order=order).exists()
    assert Order.objects.get(pk=order.pk).made_at


def test_only_what_is_made_is_packed_and_only_once(crew, desk):
    line = crew.lines.get()
    with pytest.raises(JobError, match=r"1\.1 isn't made yet"):
        put_in_parcel(desk, crew.pk, line.pk, 1)
    make(desk, crew, 1)
    assert put_in_parcel(desk, crew.pk, line.pk, 1, 1).quantity == 1
    assert put_in_parcel(desk, crew.pk, line.pk, 1).quantity == 2
    with pytest.raises(JobError, match="is packed already"):
        put_in_parcel(desk, crew.pk, line.pk, 1)
    with pytest.raises(JobError, match="no such piece"):
        put_in_parcel(desk, crew.pk, line.pk, 2)
    take_out(desk, ParcelItem.objects.get().pk)
    with pytest.raises(JobError, match=r"Of T-\d+-1\.1 2 can be packed"):
        put_in_parcel(desk, crew.pk, line.pk, 1, 3)


def test_parts_go_separately_and_the_last_one_makes_the_order_sent(crew, desk):
    line = crew.lines.get()
    make(desk, crew, 1)
    put_in_parcel(desk, crew.pk, line.pk, 1)
    first = send_parcel(desk, crew.pk, carrier="Gull Post", number="GP 1")
    crew.refresh_from_db()
    assert (crew.sent_at, crew.waits_for, first.pieces) == (None, "station", 2)
    mail = send_mails()[f"parcel-{first.pk}"]
    assert "2 of the 4 pieces" in mail.text
    assert "Gull Post GP 1" in mail.text
    make(desk, crew, 3, 4)
    with pytest.raises(JobError, match="Nothing of order"):
        send_parcel(desk, crew.pk, carrier="", number="")
    for index in (3, 4):
        put_in_parcel(desk, crew.pk, line.pk, index)
    send_parcel(desk, crew.pk, carrier="Gull Post", number="GP 2")
    crew.refresh_from_db()
    assert (crew.sent_at is not None, crew.waits_for, crew.parcel_number) == (True, "", "GP 2")
    assert [event.words for event in crew.events.filter(kind__in=("part_sent", "sent"))] == [
        "2 pieces are on their way: Gull Post GP 1",
        "On its way",
    ]
    with pytest.raises(JobError, match="was sent already"):
        put_in_parcel(desk, crew.pk, line.pk, 1)


def test_all_that_is_left_is_sent_at_once_beside_what_went_before(crew, desk):
    line = crew.lines.get()
    make(desk, crew, 1, 3, 4)
    put_in_parcel(desk, crew.pk, line.pk, 1, 1)
    send_parcel(desk, crew.pk, carrier="", number="1")
    put_in_parcel(desk, crew.pk, line.pk, 3)
    last = send_order(desk, crew.pk, carrier="", number="2")
    assert dict(last.items.values_list("index", "quantity")) == {1: 1, 3: 1, 4: 1}
    assert sum(parcel.pieces for parcel in Parcel.objects.all()) == 4


def test_carrier_books_once_prints_a_label_and_later_says_delivered(crew, desk, sign_in, settings):
    client = sign_in("desk")
    make(desk, crew, 1, 3, 4)
    for ticket in ("1", "3", "4"):
        client.post("/workshop/production/packing/scan/", {"scanned": f"T-{crew.number}-1.{ticket}"})
    page = client.get(f"/workshop/production/packing/{crew.number}/").content.decode()
    assert "All of it is packed" in page
    client.post(f"/workshop/production/packing/{crew.number}/sent/", {"by": "carrier"})
    parcel = Parcel.objects.get()
    assert parcel.carrier == "Harbor Post"
    label = client.get(f"/workshop/production/parcels/{parcel.pk}/label.pdf").content
    assert parcel.number in words_of(label)
    assert "Wilma Reedmaker" in words_of(label)
    assert carrier().book(parcel.reference.hex, "Somebody else", "x").number == parcel.number
    assert ask_after_parcels() == 0
    options = {**settings.CARRIER_GATEWAY["OPTIONS"], "days_on_the_way": 0}
    settings.CARRIER_GATEWAY = {**settings.CARRIER_GATEWAY, "OPTIONS": options}
    assert (ask_after_parcels(), ask_after_parcels()) == (1, 0)
    crew.refresh_from_db()
    assert crew.delivered_at
    assert crew.events.filter(kind="delivered").count() == 1
    assert "It was delivered" in client.get(f"/order/{crew.token}/").content.decode()


def test_silent_carrier_loses_nothing(crew, desk, sign_in, monkeypatch):
    class Silent:
        def book(self, *_args):
            raise CarrierSilenceError

        def is_delivered(self, _number):
            raise CarrierSilenceError

    make(desk, crew, 1)
    put_in_parcel(desk, crew.pk, crew.lines.get().pk, 1)
    monkeypatch.setattr("yenzo.apps.production.sending.carrier", Silent)
    answer = sign_in("desk").post(f"/workshop/production/packing/{crew.number}/sent/", {"by": "carrier"})
    assert (answer.status_code, "doesn&#x27;t answer" in answer.content.decode()) == (422, True)
    assert (Parcel.objects.get().sent_at, ask_after_parcels()) == (None, 0)


def test_delivery_note_says_what_lies_in_the_parcel_letter_for_letter(crew, desk, sign_in):
    line = crew.lines.get()
    make(desk, crew, 1, 3)
    put_in_parcel(desk, crew.pk, line.pk, 1, 1)
    put_in_parcel(desk, crew.pk, line.pk, 3)
    client = sign_in("desk")
    address = f"/workshop/production/parcels/{Parcel.objects.get().pk}/delivery-note.pdf"
    words = words_of(client.get(address).content)
    for said in (
        f"Delivery note {crew.number}-1",
        f"T-{crew.number}-1.1",
        "1 of 2",
        "OTTER",
        "INES",
        "Wilma Reedmaker",
    ):
        assert said in words
    assert "ADDER" not in words
    assert "The rest follows" in words
    assert sign_in("decorator").get(address).status_code == 403


@pytest.mark.parametrize("scanned", ["", "X", "T-1", "R99", "R", "T-9999999-1", "0"])
def test_scan_of_nothing_known_is_told(crew, sign_in, scanned):
    page = sign_in("decorator").post("/workshop/production/packing/scan/", {"scanned": scanned}, follow=True)
    assert "is no order, ticket or place" in page.content.decode()


def test_every_code_of_an_order_leads_to_it(crew, desk):
    make(desk, crew, 1)
    line = crew.lines.get().pk
    found = [
        scanned_at_packing(words)
        for words in (str(crew.number), f"t-{crew.number}-1.3", f"T-{crew.number}-1.1/1+2", "R1")
    ]
    assert [(one.order, one.line_id, one.index) for one in found] == [
        (crew, None, 1),
        (crew, line, 3),
        (crew, line, 1),
        (crew, None, 1),
    ]


def test_decorator_packs_and_sees_no_address_and_doesnt_send(crew, desk, sign_in):
    make(desk, crew, 1)
    client = sign_in("decorator")
    client.post(
        f"/workshop/production/packing/{crew.number}/in/", {"line": crew.lines.get().pk, "index": 1, "count": 2}
    )
    page = client.get(f"/workshop/production/packing/{crew.number}/").content.decode()
    assert "In the parcel: 2 pieces" in page
    assert "Berth 14" not in page
    assert "Book it" not in page
    client.post(f"/workshop/production/packing/{crew.number}/{ParcelItem.objects.get().pk}/out/")
    assert not ParcelItem.objects.exists()
    assert client.post(f"/workshop/production/packing/{crew.number}/sent/", {"by": "all"}).status_code == 403
    table = client.get("/workshop/production/packing/").content.decode()
    assert "2 of 4 made" in table
    assert "Berth 14" not in table


def test_station_asks_the_desk_and_the_piece_waits(crew, actors, owner, sign_in):
    save_station(owner, "bench", name="Bench", methods=["carving"], hours=[8.0] * 7)
    decorator = actors["decorator"]
    job = begin_job(decorator, Job.objects.get(index=3).pk)
    with pytest.raises(JobError, match="what is to be known"):
        ask_about(decorator, job.pk, " ")
    client = sign_in("decorator")
    client.post(f"/workshop/production/stations/bench/jobs/{job.pk}/ask/", {"words": "Is the knot all right?"})
    job.refresh_from_db()
    preflight = Preflight.objects.get(index=3)
    assert (job.state, job.holder, preflight.held_why) == ("held", None, "The station asks: Is the knot all right?")
    assert Order.objects.get().waits_for == "desk"


def test_cost_taken_follows_from_the_minutes(crew, desk):
    Job.objects.update(minutes_planned=60, cost_planned=30)
    job = Job.objects.first()
    Job.objects.filter(pk=job.pk).update(minutes_taken=20)
    costs = costs_of(crew)
    assert (costs.planned, costs.taken, costs.cost_planned, costs.cost_taken) == (180, 20, 90, 10)
    Job.objects.update(minutes_planned=0)
    assert costs_of(crew).cost_taken == 0


@pytest.mark.django_db(transaction=True)
def test_two_tables_never_pack_the_same_piece_twice(crew, desk):
    make(desk, crew, 1)
    line, refused = crew.lines.get().pk, []

    def pack():
        try:
            put_in_parcel(desk, crew.pk, line, 1)
        except JobError as error:
            refused.append(error)
        finally:
            connection.close()

    threads = [threading.Thread(target=pack) for _ in range(4)]
    for thread in threads:
        thread.start()
    for thread in threads:
        thread.join()
    assert (ParcelItem.objects.get().quantity, len(refused), Parcel.objects.count()) == (2, 3, 1)


def test_nothing_is_noted_of_a_parcel_that_isnt_on_its_way(crew, desk):
    from yenzo.apps.production.services.packing import note_delivered

    make(desk, crew, 1, 3, 4)
    parcel = send_order(desk, crew.pk, carrier="By hand", number="")
    note_delivered(SYSTEM_ACTOR, parcel.pk)
    assert Order.objects.get().delivered_at is None


def test_nothing_is_booked_while_something_is_to_be_paid(crew, desk, monkeypatch):
    make(desk, crew, 1)
    put_in_parcel(desk, crew.pk, crew.lines.get().pk, 1)
    Difference.objects.create(order=crew, amount=1, why="Longer")
    monkeypatch.setattr("yenzo.apps.production.sending.carrier", lambda: pytest.fail("it was booked"))
    crew.refresh_from_db()
    with pytest.raises(JobError, match="still to be paid"):
        book_and_send(desk, crew)
