"""Cancelling some pieces: what they cost is given back, their blanks come back, the rest is made and sent."""

import uuid
from decimal import Decimal

import pytest

from tests.apps.conftest import GUEST, send_mails
from tests.apps.desk.conftest import paid_and_looked_at
from yenzo.apps.designs.services.lists import put_list_in_basket
from yenzo.apps.designs.to_core import evaluate_entries
from yenzo.apps.desk.models import Preflight
from yenzo.apps.desk.services.cancelling import cancel_pieces
from yenzo.apps.desk.services.changes import Wanted, mend_pieces
from yenzo.apps.desk.services.preflights import DeskError, release_pieces
from yenzo.apps.orders.models import Difference, Order
from yenzo.apps.orders.paying import pay_order
from yenzo.apps.production.models import Job, Pack
from yenzo.apps.production.services.jobs import begin_job, count_made
from yenzo.apps.production.services.packing import put_in_parcel, send_order
from yenzo.apps.shop.services.checkout import order_basket
from yenzo.apps.stock.models import StockItem
from yenzo.core.documents.reading import read_entries

pytestmark = pytest.mark.django_db


@pytest.fixture
def desk(actors):
    return actors["desk"]


@pytest.fixture
def crew(visitor, make_list, checkout_of):
    names = make_list(visitor, "Otter\t2", "Ines\t1", heads="Name\tPieces")
    put_list_in_basket(GUEST, names.pk, visitor=visitor)
    names.refresh_from_db()
    StockItem.objects.create(sku="NB-1", pieces=10)
    return paid_and_looked_at(order_basket(GUEST, checkout_of(visitor, [names])))


def test_row_is_cancelled_and_the_rest_is_made_and_sent(crew, desk):
    row = Preflight.objects.get(index=1)
    cancel_pieces(desk, row.pk, "Otter left the crew")
    cancel_pieces(desk, row.pk, "Otter left the crew")
    crew.refresh_from_db()
    back = Difference.objects.get()
    # Two boards at 86.00 and 9.50 for the finish; the name has five letters, none of them charged.
    assert back.amount == Decimal("-191.00")
    assert (crew.pieces, StockItem.objects.get().pieces) == (1, 9)
    assert sorted(Job.objects.values_list("index", "state")) == [(1, "stopped"), (3, "ready")]
    assert sorted(Pack.objects.values_list("index", "state")) == [(1, "dropped"), (3, "waiting")]
    mail = send_mails()[f"pieces-{row.pk}"]
    assert "Otter left the crew" in mail.text
    assert "£191.00 are paid back" in mail.text
    job = begin_job(desk, Job.objects.get(index=3).pk)
    count_made(desk, job.pk, 1)
    send_order(desk, crew.pk, carrier="", number="")
    assert Order.objects.get().sent_at


def test_what_is_made_comes_back_to_no_shelf(crew, desk):
    job = begin_job(desk, Job.objects.get(index=1).pk)
    count_made(desk, job.pk, 2)
    cancel_pieces(desk, Preflight.objects.get(index=1).pk, "Too late", Decimal(0))
    assert (StockItem.objects.get().pieces, Difference.objects.count()) == (7, 0)
    assert Order.objects.get().pieces_made == 0


@pytest.mark.parametrize(
    ("why", "amount", "said"),
    [
        (" ", None, "why it is cancelled"),
        ("x", Decimal(-1), "More than it cost"),
        ("x", Decimal(500), "More than it cost"),
    ],
)
def test_reason_and_amount_are_looked_at(crew, desk, why, amount, said):
    with pytest.raises(DeskError, match=said):
        cancel_pieces(desk, Preflight.objects.get(index=1).pk, why, amount)
    assert not Preflight.objects.filter(state="cancelled").exists()


def test_last_pieces_and_packed_ones_arent_cancelled(crew, desk):
    job = begin_job(desk, Job.objects.get(index=3).pk)
    count_made(desk, job.pk, 1)
    put_in_parcel(desk, crew.pk, crew.lines.get().pk, 3)
    with pytest.raises(DeskError, match="is packed or sent"):
        cancel_pieces(desk, Preflight.objects.get(index=3).pk, "x")
    cancel_pieces(desk, Preflight.objects.get(index=1).pk, "x")
    with pytest.raises(DeskError, match="all pieces of the order"):
        cancel_pieces(desk, Preflight.objects.get(index=3).pk, "x")
    with pytest.raises(DeskError, match="is cancelled"):
        release_pieces(desk, Preflight.objects.get(index=1).pk)


def test_desk_cancels_on_the_page_with_the_cost_filled_in(crew, sign_in):
    client = sign_in("desk")
    row = Preflight.objects.get(index=3)
    page = client.get(f"/workshop/desk/{row.pk}/").content.decode()
    assert 'value="95.5' in page
    refused = client.post(f"/workshop/desk/{row.pk}/cancel/", {"why": "Left", "amount": "much"})
    assert (refused.status_code, "as an amount" in refused.content.decode()) == (422, True)
    done = client.post(f"/workshop/desk/{row.pk}/cancel/", {"why": "Left", "amount": "50,00"}, follow=True)
    assert 'data-state="cancelled"' in done.content.decode()
    assert Difference.objects.get().amount == -50
    assert "is cancelled" in client.get(f"/workshop/desk/lines/{row.line_id}/").content.decode()


def test_what_nobody_paid_isnt_given_back_and_holds_up_nothing(crew, desk, product):
    row = Preflight.objects.get(index=3)
    entries = read_entries({"values": {"name": "Ines of Hallow"}})
    for words, is_waived in (("Ines of Hallow", False), ("Ines of the Hallow", True)):
        entries = read_entries({"values": {"name": words}})
        wanted = Wanted(entries, evaluate_entries(product.live, entries), (), uuid.uuid4())
        mend_pieces(desk, row.pk, wanted, why="Longer", is_waived=is_waived)
    cancel_pieces(desk, row.pk, "Left after all")
    assert Difference.objects.get(amount__lt=0).amount == Decimal("-95.50")
    assert not Order.objects.get().differences.to_pay().exists()


def test_what_costs_more_and_is_being_paid_keeps_it_from_being_cancelled(crew, desk, product):
    row, entries = Preflight.objects.get(index=3), read_entries({"values": {"name": "Ines of Hallow"}})
    wanted = Wanted(entries, evaluate_entries(product.live, entries), (), uuid.uuid4())
    change = mend_pieces(desk, row.pk, wanted, why="Longer")
    pay_order(GUEST, crew, "silent", change.difference)
    with pytest.raises(DeskError, match="being paid"):
        cancel_pieces(desk, row.pk, "Left")


def test_packed_pieces_arent_changed(crew, desk, product):
    job = begin_job(desk, Job.objects.get(index=3).pk)
    count_made(desk, job.pk, 1)
    put_in_parcel(desk, crew.pk, crew.lines.get().pk, 3)
    entries = read_entries({"values": {"name": "Ida"}})
    wanted = Wanted(entries, evaluate_entries(product.live, entries), (), uuid.uuid4())
    with pytest.raises(DeskError, match="packed or sent"):
        mend_pieces(desk, Preflight.objects.get(index=3).pk, wanted, why="Misheard", even_begun=True)
