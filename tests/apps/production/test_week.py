"""The week: what is planned by station and day against its hours, and cards that are moved to another day."""

from datetime import timedelta

import pytest
from django.utils import timezone

from tests.apps.conftest import GUEST
from yenzo.apps.accounts.rights import SYSTEM_ACTOR
from yenzo.apps.designs.services.lists import put_list_in_basket
from yenzo.apps.desk.services.preflights import inspect_order
from yenzo.apps.orders.paying import pay_order
from yenzo.apps.production.models import Job
from yenzo.apps.production.services.jobs import (
    JobError,
    plan_jobs,
)
from yenzo.apps.production.week import week_of
from yenzo.apps.shop.services.checkout import order_basket
from yenzo.apps.workshop.models import Workshop

pytestmark = pytest.mark.django_db


def test_week_counts_what_is_due_later_apart_and_all_jobs_beyond_those_that_it_lists(job, bench, monkeypatch):
    monkeypatch.setattr("yenzo.apps.production.week.MOST_LISTED", 0)
    week = week_of()
    row = next(row for row in week.rows if row.station == bench)
    assert (len(week.jobs), week.left, sum(load.jobs for load in row.loads) + row.later) == (0, 1, 1)
    Job.objects.update(planned_on=timezone.localdate() + timedelta(days=60))
    row = next(row for row in week_of().rows if row.station == bench)
    assert (sum(load.jobs for load in row.loads), row.later) == (0, 1)


def test_week_of_a_workshop_that_does_not_open_again_shows_today(job, bench):
    Workshop.objects.create(calendar={"closed": [{"first": "2020-01-01", "last": "2099-01-01"}]})
    assert [day.is_today for day in week_of().days] == [True]


def test_week_says_what_is_due_against_the_hours_and_what_is_late(job, bench):
    late = timezone.localdate() - timedelta(days=3)
    Job.objects.update(due_on=late, planned_on=late, minutes_planned=1200)
    week = week_of()
    load = next(row for row in week.rows if row.station == bench).loads[0]
    assert (load.jobs, load.late) == (1, 1)
    assert load.is_over == (load.room < 1200)
    assert [one.number for one in week.jobs] == [job.number]


def test_card_is_moved_with_all_rows_of_its_list_to_a_day_that_is_open(
    visitor, make_list, checkout_of, put_in_basket, bench, actors, sign_in
):
    names = make_list(visitor, "Otter", "Ines", "Adder")
    put_list_in_basket(GUEST, names.pk, visitor=visitor)
    names.refresh_from_db()
    order = order_basket(GUEST, checkout_of(visitor, [names]))
    pay_order(GUEST, order, "approves")
    inspect_order(SYSTEM_ACTOR, order.pk)
    days = [day.day for day in week_of().days]
    line = order.lines.get().pk
    plan_jobs(actors["desk"], line, 1, days[4])
    load = next(row for row in week_of().rows if row.station == bench).loads[4]
    assert [(card.pieces, card.number) for card in load.cards] == [(3, f"T-{order.number}-1/1")]
    weekend = next(day for day in (days[0] + timedelta(days=at) for at in range(7)) if day.weekday() == 6)
    for day, why in ((days[0] - timedelta(days=40), "is over"), (weekend, "is closed on Sunday")):
        with pytest.raises(JobError, match=why):
            plan_jobs(actors["desk"], line, 1, day)
    with pytest.raises(JobError, match="Nothing of it"):
        plan_jobs(actors["desk"], line, 9, days[1])
    desk = sign_in("desk")
    sent = {"line": str(line), "place": "1", "day": str(days[1])}
    page = desk.post("/workshop/production/plan/", sent).content.decode()
    assert "is planned for" in page
    assert f'id="card-{line}-1-1"' in page
    assert set(Job.objects.values_list("planned_on", flat=True)) == {days[1]}
    assert "Please pick a day" in desk.post("/workshop/production/plan/", {**sent, "day": "x"}).content.decode()
    job = Job.objects.first()
    back = desk.post("/workshop/production/plan/", {**sent, "back": str(job.pk)}, follow=True)
    assert back.redirect_chain[-1][0] == f"/workshop/production/jobs/{job.pk}/"
    assert sign_in("decorator").post("/workshop/production/plan/", sent).status_code == 403


def test_week_asks_as_little_of_four_hundred_jobs_as_of_one(job, bench, sign_in, django_assert_max_num_queries):
    Job.objects.bulk_create(
        Job(
            line=job.line,
            index=at,
            personalization=job.personalization,
            method="carving",
            place=1,
            quantity=2,
            state="ready",
            due_on=job.due_on,
            planned_on=job.planned_on,
        )
        for at in range(2, 402)
    )
    desk = sign_in("desk")
    with django_assert_max_num_queries(12):
        page = desk.get("/workshop/production/").content.decode()
    assert "<b>401</b> jobs" in page


def test_method_without_a_station_is_not_forgotten(paid):
    assert [row.station for row in week_of().rows] == [None]
