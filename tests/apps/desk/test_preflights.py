"""Preflight as a state: looked at when paid, held by findings or by hand, waived with a reason, released."""

from pathlib import Path

import pytest

from tests.apps.conftest import GUEST, send_mails
from tests.apps.desk.conftest import doubted
from yenzo.apps.accounts.rights import SYSTEM_ACTOR
from yenzo.apps.desk.models import Finding, Preflight
from yenzo.apps.desk.services.preflights import (
    DeskError,
    hold_pieces,
    inspect_order,
    release_pieces,
    waive_finding,
)
from yenzo.apps.desk.services.replanning import move_order, rush_order
from yenzo.apps.orders.models import Order
from yenzo.apps.orders.paying import pay_order, tell_paid
from yenzo.apps.orders.services.orders import cancel_order
from yenzo.apps.production.models import Job, Pack
from yenzo.apps.production.services.jobs import begin_job, count_made, lay_aside, save_station, take_next
from yenzo.apps.shop.services.checkout import order_basket
from yenzo.apps.workshop.models import Workshop

pytestmark = pytest.mark.django_db


@pytest.fixture
def desk(actors):
    return actors["desk"]


def turn():
    return Order.objects.latest("pk").waits_for


def test_clean_pieces_are_released_by_themselves_with_jobs_and_packs(paid, preflight):
    assert (preflight.state, list(preflight.findings.all())) == ("released", [])
    assert (Job.objects.get().state, Pack.objects.get().personalization) == ("ready", preflight.personalization)
    assert turn() == "station"
    inspect_order(SYSTEM_ACTOR, paid.pk)
    assert (Preflight.objects.count(), Job.objects.count(), Pack.objects.count()) == (1, 1, 1)


def test_doubted_piece_is_held_with_its_place_and_nothing_is_made_of_it(held):
    finding = held.findings.get()
    assert (held.state, finding.code, finding.blocks) == ("held", "doubt-digit_for_letter", False)
    left, top, right, bottom = finding.box_mm
    assert (finding.side, finding.area) == ("front", "panel")
    # The panel lies from 80 to 620 mm; "L0VE" stands in its middle.
    assert left > 80
    assert right < 620
    assert (left + right) / 2 == pytest.approx(350, abs=3)
    assert (top + bottom) / 2 == pytest.approx(87, abs=4)
    assert not Job.objects.exists()
    assert not Pack.objects.exists()
    assert turn() == "desk"


def test_advice_holds_nothing_where_the_workshop_says_so(visitor, put_in_basket, checkout_of):
    Workshop.objects.create(advice_holds=False)
    preflight = doubted(visitor, put_in_basket, checkout_of)
    assert (preflight.state, preflight.findings.count()) == ("released", 1)


def test_nothing_is_released_by_itself_where_the_workshop_says_so(order, desk):
    Workshop.objects.create(releases_clean=False)
    pay_order(GUEST, order, "approves")
    tell_paid(order.pk)
    preflight = Preflight.objects.get()
    assert (preflight.state, turn(), Job.objects.count()) == ("held", "desk", 0)
    release_pieces(desk, preflight.pk)
    assert (turn(), Job.objects.count()) == ("station", 1)


def test_waived_finding_needs_a_reason_and_releases_the_piece(held, desk):
    finding = held.findings.get()
    with pytest.raises(DeskError, match="why it may stay"):
        waive_finding(desk, finding.pk, "  ")
    with pytest.raises(DeskError, match="can't be released yet: Digits"):
        release_pieces(desk, held.pk)
    waive_finding(desk, finding.pk, "It is a radio's call sign")
    waive_finding(desk, finding.pk, "Something else")
    held.refresh_from_db()
    finding.refresh_from_db()
    assert (held.state, finding.waived_why, finding.waived_by) == ("released", "It is a radio's call sign", "Desk")
    assert (Job.objects.count(), Pack.objects.count(), turn()) == (1, 1, "station")
    said = [event.words for event in Order.objects.get().events.filter(kind__in=("waived", "released"))]
    assert "may stay: It is a radio's call sign" in said[0]
    assert said[1].endswith("is released to be made")


def test_piece_held_by_hand_isnt_taken_and_goes_on_where_it_was(preflight, owner, desk):
    bench = save_station(owner, "bench", name="Bench", methods=["carving"], hours=[8.0] * 7)
    with pytest.raises(DeskError, match="why it is held"):
        hold_pieces(desk, preflight.pk, "")
    hold_pieces(desk, preflight.pk, "The oak is damp")
    assert (take_next(desk, bench.pk), Job.objects.get().state, turn()) == (None, "held", "desk")
    release_pieces(desk, preflight.pk)
    assert take_next(desk, bench.pk) == Job.objects.get()
    assert Job.objects.count() == 1


def test_what_is_begun_while_it_is_held_its_holder_finishes(preflight, owner, desk):
    job = begin_job(desk, Job.objects.get().pk)
    hold_pieces(desk, preflight.pk, "Wait")
    count_made(desk, job.pk, 1)
    assert (Job.objects.get().state, Order.objects.get().made_at is not None) == ("done", True)


def test_piece_that_cant_be_drawn_is_held_and_isnt_waived(
    visitor, put_in_basket, make_upload, checkout_of, desk, settings
):
    upload = make_upload(visitor)
    order = order_basket(GUEST, checkout_of(visitor, [put_in_basket(visitor, upload)]))
    (Path(settings.FILES_ROOT) / upload.prepared.path).unlink()
    pay_order(GUEST, order, "approves")
    tell_paid(order.pk)
    finding = Finding.objects.get()
    assert (finding.code, finding.blocks) == ("unreadable", True)
    with pytest.raises(DeskError, match="can't be drawn"):
        waive_finding(desk, finding.pk, "Never mind")
    assert not Pack.objects.exists()


def test_nothing_is_decided_of_a_cancelled_order(held, desk):
    cancel_order(desk, held.line.order_id)
    for decide in (
        lambda: release_pieces(desk, held.pk),
        lambda: hold_pieces(desk, held.pk, "x"),
        lambda: waive_finding(desk, held.findings.get().pk, "x"),
    ):
        with pytest.raises(DeskError, match="to be made any more"):
            decide()
    assert turn() == ""


def test_rows_of_a_list_are_held_one_by_one(
    visitor, make_list, checkout_of, desk, product, django_assert_max_num_queries
):
    from yenzo.apps.designs.services.lists import put_list_in_basket

    names = make_list(visitor, "Otter", "L0ve", "Ines")
    put_list_in_basket(GUEST, names.pk, visitor=visitor)
    names.refresh_from_db()
    order = order_basket(GUEST, checkout_of(visitor, [names]))
    pay_order(GUEST, order, "approves")
    with django_assert_max_num_queries(130):
        inspect_order(SYSTEM_ACTOR, order.pk)
    states = list(Preflight.objects.order_by("index").values_list("index", "state"))
    assert states == [(1, "released"), (2, "held"), (3, "released")]
    assert sorted(Job.objects.values_list("index", flat=True)) == [1, 3]
    held = Preflight.objects.get(index=2)
    assert str(held) == f"T-{order.number}-1.2"
    waive_finding(desk, held.findings.get().pk, "So it is written")
    assert sorted(Job.objects.values_list("index", flat=True)) == [1, 2, 3]


def test_rush_is_made_before_all_others_and_another_day_moves_its_jobs(
    visitor, put_in_basket, checkout_of, owner, desk, paid
):
    bench = save_station(owner, "bench", name="Bench", methods=["carving"], hours=[8.0] * 7)
    later = order_basket(GUEST, checkout_of(visitor, [put_in_basket(visitor)]))
    pay_order(GUEST, later, "approves")
    tell_paid(later.pk)
    rush_order(desk, later.pk, is_rush=True)
    later.refresh_from_db()
    Order.objects.update(leaves_on="2026-03-02", arrives_on="2026-03-04")
    with pytest.raises(DeskError, match="why it leaves"):
        move_order(desk, later.pk, later.placed_at.date(), "")
    move_order(desk, later.pk, later.placed_at.date(), "The fair is later")
    taken = take_next(desk, bench.pk)
    assert (taken.line.order, taken.due_on) == (later, later.placed_at.date())
    assert Order.objects.get(pk=later.pk).arrives_on - later.placed_at.date() == (
        Order.objects.get(pk=paid.pk).arrives_on - Order.objects.get(pk=paid.pk).leaves_on
    )


def test_stopped_job_is_laid_aside_by_who_had_it(preflight, desk, actors):
    job = begin_job(desk, Job.objects.get().pk)
    Job.objects.update(state="stopped")
    lay_aside(actors["decorator"], job.pk)
    assert Job.objects.get().holder
    lay_aside(desk, job.pk)
    assert Job.objects.get().holder is None


def test_desk_decides_on_the_pages_and_sees_why_it_cant(held, sign_in, owner):
    client = sign_in("desk")
    order = held.line.order
    assert "is held</a>: Digits and letters" in client.get(f"/workshop/desk/lines/{held.line_id}/").content.decode()
    page = client.get(f"/workshop/desk/{held.pk}/").content.decode()
    assert 'data-state="held"' in page
    assert '<circle cx="' in page
    refused = client.post(f"/workshop/desk/{held.pk}/release/")
    assert (refused.status_code, "be released yet" in refused.content.decode()) == (422, True)
    finding = held.findings.get()
    client.post(f"/workshop/desk/findings/{finding.pk}/waive/", {"why": "A call sign"})
    assert "Released to be made" in client.get(f"/workshop/desk/lines/{held.line_id}/").content.decode()
    client.post(f"/workshop/desk/{held.pk}/hold/", {"why": "Damp"})
    assert "Damp" in client.get(f"/workshop/desk/lines/{held.line_id}/").content.decode()
    client.post(f"/workshop/desk/orders/{order.number}/rush/", {"rush": "yes"})
    client.post("/workshop/desk/orders/", {"do": "turn", "order": [str(order.number)], "query": "waits=desk"})
    assert not Order.objects.get().is_rush
    assert (
        "Please pick a day"
        in client.post(f"/workshop/desk/orders/{order.number}/day/", {"leaves_on": "x"}, follow=True).content.decode()
    )


def test_decorator_looks_and_decides_nothing(held, sign_in):
    client = sign_in("decorator")
    page = client.get(f"/workshop/desk/{held.pk}/").content.decode()
    assert "What to do" not in page
    assert client.post(f"/workshop/desk/{held.pk}/release/").status_code == 403


def test_no_mail_goes_out_of_preflight_alone(held, desk):
    before = set(send_mails())
    waive_finding(desk, held.findings.get().pk, "Fine")
    assert set(send_mails()) == before
