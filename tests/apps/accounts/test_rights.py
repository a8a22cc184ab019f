import re
from pathlib import Path

import pytest
from django.core.exceptions import PermissionDenied
from django.test import Client
from django.urls import get_resolver, reverse

from yenzo.apps.accounts.rights import ALL_ROLES, SERVICES, Actor

TABLE = Path(__file__).resolve().parents[3] / "docs" / "rights.md"


def published_rights():
    """Read docs/rights.md: {service: roles that are ticked}."""
    lines = TABLE.read_text().splitlines()
    head = next(line for line in lines if line.startswith("| service"))
    roles = [cell.strip() for cell in head.strip("|").split("|")][1:]
    rows = {}
    for line in lines:
        if re.match(r"\| \w+\.\w+ ", line):
            name, *ticks = (cell.strip() for cell in line.strip().strip("|").split("|"))
            rows[name] = {role for role, tick in zip(roles, ticks, strict=True) if tick == "x"}
    return rows


def all_services():
    # The addresses import every app's views, and those every service.
    assert get_resolver().url_patterns
    return SERVICES


def test_published_table_names_every_service():
    assert set(published_rights()) == set(all_services())


@pytest.mark.parametrize("role", ALL_ROLES)
@pytest.mark.parametrize("name", sorted(published_rights()))
def test_service_refuses_just_the_roles_that_are_not_ticked(name, role):
    guarded, _ = all_services()[name]
    # Called without its arguments a service can do no harm: whoever passes the gate fails on those.
    wanted = TypeError if role in published_rights()[name] else PermissionDenied
    with pytest.raises(wanted):
        guarded(Actor(role, "Somebody"))


STAFF_PAGES = {
    "editor:products": {"owner", "seller"},
    "materials:materials": {"owner", "seller"},
    "materials:new_method": {"owner", "seller"},
    "editor:new_product": {"owner", "seller"},
    "files:files": {"owner"},
    "orders:orders": {"owner", "seller", "desk", "decorator"},
    "outbox:outbox": {"owner", "desk"},
}


@pytest.mark.parametrize("page", STAFF_PAGES)
def test_staff_page_opens_for_its_roles_only(sign_in, page):
    answer = Client().get(reverse(page))
    assert (answer.status_code, answer.url.split("?")[0]) == (302, reverse("accounts:sign_in"))
    for role in ("owner", "seller", "desk", "decorator"):
        status = sign_in(role).get(reverse(page)).status_code
        assert status == (200 if role in STAFF_PAGES[page] else 403), role


def test_product_pages_are_closed_to_desk_and_strangers(sign_in, product):
    addresses = [
        reverse("editor:setup", args=["board"]),
        reverse("editor:try_out", args=["board"]),
        reverse("editor:scale", args=["board", "front"]),
    ]
    for address in addresses:
        assert sign_in("seller").get(address).status_code == 200
        assert sign_in("desk").get(address).status_code == 403
        assert Client().get(address).status_code == 302


@pytest.mark.parametrize(("role", "page"), [("seller", "editor:products"), ("desk", "orders:orders")])
def test_front_door_leads_to_where_the_work_begins(sign_in, role, page):
    answer = sign_in(role).get(reverse("accounts:front_door"))
    assert answer.url == reverse(page)


def test_guessing_a_password_is_stopped_after_eight_times(people):
    client = Client()
    address, wrong = reverse("accounts:sign_in"), {"username": "owner", "password": "guess"}
    statuses = [client.post(address, wrong).status_code for _ in range(9)]
    assert statuses[:7] == [200] * 7
    assert client.post(address, {"username": "owner", "password": "pass-word-9"}).status_code == 429
