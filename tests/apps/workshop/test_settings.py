"""The workshop's own settings: kept part by part, refused in words, and what follows them."""

from datetime import timedelta

import pytest
from django.utils import timezone

from yenzo.apps.designs.models import Design
from yenzo.apps.files.services.clearing import clear_old
from yenzo.apps.workshop.current import current_workshop
from yenzo.apps.workshop.to_core import calendar_of, deliveries_of

pytestmark = pytest.mark.django_db
ADDRESS = "/workshop/settings/"


@pytest.fixture
def desk(sign_in):
    return sign_in("seller")


def ways(*rows):
    form = {"ways-TOTAL_FORMS": len(rows), "ways-INITIAL_FORMS": 0}
    for at, row in enumerate(rows):
        form |= {f"ways-{at}-{name}": value for name, value in row.items()}
    return form


def test_name_shows_on_every_page_from_then_on(desk, client):
    desk.post(f"{ADDRESS}name/", {"own_name": "Gull & Gaff", "looks_are_marked": "on"})
    assert "Gull &amp; Gaff" in client.get("/").content.decode()


def test_calendar_is_kept_as_the_core_has_it(desk):
    sent = {
        "weekdays": ["1", "5"],
        "holidays_of": "DE-BY",
        "lead_days": "4",
        "closed": "2026-12-24 to 2027-01-02 Christmas\n\n2027-05-03",
    }
    assert desk.post(f"{ADDRESS}calendar/", sent).status_code == 302
    calendar = calendar_of(current_workshop())
    assert (calendar.weekdays, calendar.holidays_of, calendar.lead_days) == ((1, 5), "DE-BY", 4)
    assert [str(one.last) for one in calendar.closed] == ["2027-01-02", "2027-05-03"]
    assert "2026-12-24 to 2027-01-02 Christmas" in desk.get(ADDRESS).content.decode()


@pytest.mark.parametrize(
    "wrong",
    [
        {"closed": "Christmas"},
        {"closed": "2027-01-02 to 2026-12-24"},
        {"closed": "2026-12-24 to"},
        {"weekdays": []},
        {"weekdays": ["9"]},
        {"holidays_of": "XX"},
        {"lead_days": "-1"},
    ],
)
def test_calendar_that_cannot_be_is_refused_in_words_and_what_was_sent_stays(desk, wrong):
    sent = {"weekdays": ["1"], "holidays_of": "", "lead_days": "4", "closed": ""} | wrong
    answer = desk.post(f"{ADDRESS}calendar/", sent)
    assert answer.status_code == 422
    assert 'class="problem' in answer.content.decode()
    assert current_workshop().calendar == {}


def test_ways_to_deliver_keep_their_keys_and_one_without_a_name_goes(desk):
    desk.post(f"{ADDRESS}deliveries/", ways({"name": "Post", "price": "4.50", "countries": "gb, ie", "days": "2"}))
    assert [(way.key, way.countries) for way in deliveries_of(current_workshop())] == [("way-1", ("GB", "IE"))]
    rows = {"key": "way-1", "name": "", "price": "1"}, {"key": "", "name": "Parcel", "is_pickup": "on"}
    desk.post(f"{ADDRESS}deliveries/", ways(*rows))
    assert [(way.key, way.name, way.is_pickup) for way in deliveries_of(current_workshop())] == [
        ("way-1", "Parcel", True)
    ]


def test_way_to_a_country_that_is_none_is_refused_in_words(desk):
    answer = desk.post(f"{ADDRESS}deliveries/", ways({"name": "Post", "countries": "Britain"}))
    assert answer.status_code == 422
    assert "“Post”" in answer.content.decode()


def test_workshop_that_says_nothing_of_deliveries_sends_by_post_for_nothing(db):
    assert [(way.name, way.price) for way in deliveries_of(current_workshop())] == [("Post", 0)]


def test_designs_are_kept_for_as_long_as_the_workshop_says(desk, actors, visitor, put_in_basket):
    put_in_basket(visitor)
    Design.objects.update(changed_at=timezone.now() - timedelta(days=20))
    clear_old(actors["owner"], timezone.now())
    assert Design.objects.exists()
    desk.post(f"{ADDRESS}kept/", {"designs": "10", "lists": "10", "unfinished": "10", "uploads": "10"})
    clear_old(actors["owner"], timezone.now())
    assert not Design.objects.exists()


@pytest.mark.parametrize("role", ["desk", "decorator"])
def test_page_is_for_owner_and_seller(sign_in, role):
    assert sign_in(role).get(ADDRESS).status_code == 403
    assert sign_in(role).post(f"{ADDRESS}name/", {"own_name": "Mine"}).status_code == 403


def test_part_that_is_none_is_not_found(desk):
    assert desk.post(f"{ADDRESS}nonsense/", {}).status_code == 404


def test_other_sites_are_kept_by_their_origins(desk):
    sent = "https://Club.example/\n\nhttps://shop.dealer.example:8443\nhttps://bücher.example"
    assert desk.post(f"{ADDRESS}sites/", {"sites": sent}).status_code == 302
    kept = ["https://club.example", "https://shop.dealer.example:8443", "https://xn--bcher-kva.example"]
    assert current_workshop().sites == kept
    assert "?site=https://club.example" in desk.get(ADDRESS).content.decode()


@pytest.mark.parametrize(
    "wrong",
    [
        "club.example",
        "https://club.example/page",
        "https://*.example",
        "javascript:alert(1)",
        "https://club.example; script-src *",
        "https://user@club.example",
        "https://club.example:99999",
        "https://",
        "https://" + "a" * 300 + ".example",
        "\n".join(f"https://club{number}.example" for number in range(21)),
    ],
)
def test_what_is_no_site_is_refused_in_words(desk, wrong):
    answer = desk.post(f"{ADDRESS}sites/", {"sites": wrong})
    assert answer.status_code == 422
    assert 'class="problem' in answer.content.decode()
    assert current_workshop().sites == []


def test_site_in_the_clear_is_refused_but_for_practice(desk, settings):
    settings.IS_PRACTICE = False
    assert desk.post(f"{ADDRESS}sites/", {"sites": "http://club.example"}).status_code == 422
    settings.IS_PRACTICE = True
    assert desk.post(f"{ADDRESS}sites/", {"sites": "http://club.example"}).status_code == 302
