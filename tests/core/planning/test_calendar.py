"""Working days: closed days of the week, closed times, public holidays."""

from datetime import date, timedelta

import pytest
from hypothesis import given
from hypothesis import strategies as st

from yenzo.core.planning.calendar import ClosedDays, WorkingCalendar
from yenzo.core.pricing.delivery import DeliveryWay, ways_to

SCOTTISH = WorkingCalendar(holidays_of="GB-SCT")
FRIDAY = date(2026, 12, 18)


@pytest.mark.parametrize(
    ("first", "days", "found"),
    [
        (FRIDAY, 0, date(2026, 12, 18)),
        (FRIDAY, 1, date(2026, 12, 21)),
        (date(2026, 12, 19), 0, date(2026, 12, 21)),
        (date(2026, 12, 19), 1, date(2026, 12, 21)),
        # Christmas Day, and Boxing Day that is kept on the Monday.
        (date(2026, 12, 24), 1, date(2026, 12, 29)),
        (date(2026, 12, 31), 1, date(2027, 1, 5)),
    ],
)
def test_working_days_are_counted_past_weekends_and_holidays(first, days, found):
    assert SCOTTISH.after(first, days) == found


def test_closed_time_says_why_and_is_passed_over():
    away = ClosedDays(first=date(2027, 7, 5), last=date(2027, 7, 16), why="Summer")
    calendar = WorkingCalendar(closed=(away,))
    assert calendar.why_closed(date(2027, 7, 16)) == "Summer"
    assert calendar.why_closed(date(2027, 7, 17)) == ""
    assert calendar.why_closed(date(2027, 7, 19)) is None
    assert calendar.after(date(2027, 7, 2), 1) == date(2027, 7, 19)


def test_holiday_is_named():
    assert SCOTTISH.why_closed(date(2026, 12, 25)) == "Christmas Day"


def test_workshop_that_never_opens_again_gives_a_day_all_the_same():
    calendar = WorkingCalendar(closed=(ClosedDays(first=date(2026, 1, 1), last=date(2040, 1, 1)),))
    assert calendar.after(FRIDAY, 3) > FRIDAY


def test_workshop_that_works_on_no_weekday_is_refused():
    with pytest.raises(ValueError, match="one day of the week"):
        WorkingCalendar(weekdays=())


@given(st.dates(date(2026, 1, 1), date(2030, 1, 1)), st.integers(0, 40), st.sets(st.integers(0, 6), min_size=1))
def test_day_found_is_open_and_has_just_so_many_open_days_before_it(first, days, weekdays):
    calendar = WorkingCalendar(weekdays=tuple(weekdays))
    found = calendar.after(first, days)
    assert calendar.is_open(found)
    between = (first + timedelta(ahead) for ahead in range(1, (found - first).days + 1))
    opened = sum(calendar.is_open(day) for day in between)
    assert opened == days or (days == 0 and opened == (found > first))


def test_ways_go_to_the_countries_they_name_and_picking_up_is_always_one():
    ways = (
        DeliveryWay(key="post", name="Post", countries=("GB", "IE")),
        DeliveryWay(key="all", name="Parcel"),
        DeliveryWay(key="here", name="Pick up", countries=("GB",), is_pickup=True),
    )
    assert [way.key for way in ways_to(ways, "GB")] == ["post", "all", "here"]
    assert [way.key for way in ways_to(ways, "DE")] == ["all", "here"]


def test_way_is_free_from_its_sum_on():
    way = DeliveryWay(key="post", name="Post", price="4.50", free_from="50")
    assert [str(way.price_for(total)) for total in (49, 50)] == ["4.50", "0"]
