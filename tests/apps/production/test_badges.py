"""Who works at a station says so by a badge; it lets nobody do more than make things."""

import subprocess

import pytest

from tests.apps.conftest import GUEST
from yenzo.apps.orders.paying import pay_order, tell_paid
from yenzo.apps.production.badges import badge_of, person_of_badge
from yenzo.apps.production.models import Job, Station
from yenzo.apps.production.services.jobs import save_station

pytestmark = pytest.mark.django_db
AT = "/workshop/production/stations/bench/"


@pytest.fixture
def job(order, owner, people):
    save_station(owner, "bench", name="Bench", methods=["carving"], hours=[8.0] * 7, people=[people["decorator"]])
    save_station(owner, "loft", name="Loft", methods=[], hours=[8.0] * 7)
    pay_order(GUEST, order, "approves")
    tell_paid(order.pk)
    return Job.objects.get()


def test_badge_says_who_works_and_whose_the_job_is(job, sign_in, people):
    client = sign_in("desk")
    client.post(f"{AT}scan/", {"scanned": badge_of(people["decorator"])})
    assert "works here" in client.get(AT).content.decode()
    client.post(f"{AT}next/")
    assert Job.objects.get().holder == people["decorator"]
    client.post(f"{AT}leave/")
    page = client.get(AT).content.decode()
    assert "works here" not in page
    assert "In other hands" in page


def test_station_code_leads_to_the_station(job, sign_in):
    answer = sign_in("decorator").post(f"{AT}scan/", {"scanned": "s-LOFT"})
    assert answer["Location"] == "/workshop/production/stations/loft/"


def test_false_badges_are_none(job, people, sign_in):
    real = badge_of(people["desk"])
    assert person_of_badge(real) == people["desk"]
    others = [
        real[:-1],
        real + "x",
        real.replace(f"-{people['desk'].pk}-", f"-{people['owner'].pk}-"),
        "P-1-",
        "",
        "P-٣-aaaaaaaaaa",
    ]
    assert [person_of_badge(one) for one in others] == [None] * len(others)
    people["desk"].is_active = False
    people["desk"].save()
    assert person_of_badge(real) is None
    page = sign_in("decorator").post(f"{AT}scan/", {"scanned": real}, follow=True).content.decode()
    assert "is no job that can be done here" in page


def test_badge_of_the_owner_opens_nothing_else(job, people, sign_in):
    client = sign_in("decorator")
    client.post(f"{AT}scan/", {"scanned": badge_of(people["owner"])})
    assert client.get("/workshop/settings/").status_code == 403
    assert (
        client.post("/workshop/production/plan/", {"line": job.line_id, "place": 1, "day": "2999-01-01"}).status_code
        == 403
    )
    client.post(f"{AT}next/")
    assert Job.objects.get().holder == people["owner"]


def test_badges_and_stations_are_printed_with_their_codes(job, people, sign_in):
    made = sign_in("desk").get("/workshop/production/badges.pdf").content
    words = subprocess.run(
        ["pdftotext", "-layout", "-", "-"], input=made, capture_output=True, check=True
    ).stdout.decode()
    assert badge_of(people["decorator"]) in words.replace("\n", "")
    assert "S-bench" in words
    assert sign_in("decorator").get("/workshop/production/badges.pdf").status_code == 403


def test_who_works_at_a_station_is_kept_and_shown_on_the_week(job, people, sign_in):
    desk = sign_in("desk")
    assert "Decorator" in desk.get("/workshop/production/").content.decode()
    hours = {f"day-{day}": "7" for day in range(7)}
    sent = {"name": "Bench", "methods": ["carving"], "people": [people["owner"].pk], **hours}
    desk.post("/workshop/production/stations/bench/change/", sent)
    assert list(Station.objects.get(key="bench").people.all()) == [people["owner"]]
