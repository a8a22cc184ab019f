"""The shop's theme: kept, tried out by staff only, refused where it can't be read; the workshop's pages stay as they are."""

import re

import pytest

from yenzo.apps.workshop.models import Workshop

pytestmark = pytest.mark.django_db
GOOD = {"ink": "#402030", "paper": "#fffaf4", "accent": "#7a2040", "corner_px": "12", "headings": "plain"}
SHEET = re.compile(r'href="(/workshop/theme/[^"]+\.css)"')


def sheet_of(page):
    found = SHEET.search(page.content.decode())
    return found[1] if found else None


def test_theme_is_on_the_shops_pages_and_not_on_the_workshops(product, sign_in, client):
    owner = sign_in("owner")
    assert sheet_of(client.get("/")) is None
    assert "holds from now on" in owner.post("/workshop/settings/theme/", GOOD, follow=True).content.decode()
    address = sheet_of(client.get("/"))
    sheet = client.get(address)
    assert sheet["Content-Type"].startswith("text/css")
    assert "--ink: #402030;" in sheet.content.decode()
    assert "immutable" in sheet["Cache-Control"]
    assert sheet_of(client.get("/goods/board/")) == address
    assert sheet_of(owner.get("/workshop/orders/")) is None


def test_theme_is_tried_out_before_it_is_kept_by_staff_only(product, sign_in, client):
    owner = sign_in("owner")
    look = owner.post("/workshop/settings/theme/", {**GOOD, "do": "try"})
    assert not Workshop.objects.exists()
    assert sheet_of(owner.get(look["Location"]))
    assert sheet_of(client.get(look["Location"])) is None


@pytest.mark.parametrize(
    ("wrong", "said"),
    [
        ({"accent": "#e0c040"}, "would be hard to read"),
        ({"ink": "red"}, "Please write colors like"),
        ({"ink": "#12345;}body{"}, "Please write colors like"),
        ({"corner_px": "99"}, "less than or equal to 24"),
        ({"headings": "gothic"}, "Select a valid choice"),
    ],
)
def test_what_cant_be_read_or_isnt_a_theme_is_refused(sign_in, wrong, said):
    answer = sign_in("seller").post("/workshop/settings/theme/", {**GOOD, **wrong})
    assert (answer.status_code, said in answer.content.decode()) == (422, True)
    assert not Workshop.objects.exists()


@pytest.mark.parametrize("token", ["x", "e30:1:abc", "eyJpbmsiOiJ9"])
def test_nobody_makes_up_a_stylesheet(client, token):
    assert client.get(f"/workshop/theme/{token}.css").status_code == 404


def test_theme_as_it_ships_is_none(sign_in):
    as_it_ships = {"ink": "#16303a", "paper": "#f8f5ee", "accent": "#1b6f6a", "corner_px": "2", "headings": "narrow"}
    sign_in("owner").post("/workshop/settings/theme/", as_it_ships)
    assert Workshop.objects.get().theme == {}
