"""Pictures from an album: opened by its owner in this browser only, taken as uploads, every fault in words."""

from urllib.parse import parse_qs, urlsplit

import pytest
from django.test import Client

from tests.core.artwork import samples
from yenzo.apps.designs.models import Upload
from yenzo.apps.slip.views import album as views
from yenzo.gateways.album.interface import (
    Album,
    AlbumPage,
    AlbumPicture,
    AlbumPictureError,
    AlbumRefusalError,
    AlbumSilenceError,
)

pytestmark = pytest.mark.django_db


class SmallAlbum(Album):
    """An album of two pictures in memory; `fault` is raised by whatever is asked of it."""

    name = "Gull Album"

    def __init__(self, picture):
        self.picture, self.fault = picture, None

    def _fail(self, token="open"):
        if self.fault:
            raise self.fault
        if token != "open":
            raise AlbumRefusalError

    def consent_address(self, back, state):
        return f"http://album.example/?back={back}&state={state}"

    def token(self, code):
        self._fail()
        if code != "good":
            raise AlbumRefusalError
        return "open"

    def page(self, token, after=""):
        self._fail(token)
        return AlbumPage((AlbumPicture("p1", "Low <tide>"),), "" if after else "2")

    def small(self, token, key):
        self._fail(token)
        return b"\xff\xd8"

    def fetch(self, token, key, into, *, most_bytes):
        self._fail(token)
        into.write_bytes(self.picture)
        return "tide.png"


@pytest.fixture
def album(monkeypatch):
    chosen = SmallAlbum(samples.logo_picture())
    monkeypatch.setattr(views, "album", lambda: chosen)
    return chosen


def opened(client):
    begun = client.get("/uploads/album/begin/")
    state = parse_qs(urlsplit(begun.url).query)["state"][0]
    return client.get("/uploads/album/back/", {"state": state, "code": "good"})


def test_album_is_closed_until_its_owner_has_consented(album, client):
    assert "Open your Gull Album" in client.get("/uploads/album/").content.decode()
    assert "It is open" in opened(client).content.decode()
    shown = client.get("/uploads/album/").content.decode()
    assert "Low &lt;tide&gt;" in shown
    assert "after=2" in shown
    assert "More pictures" not in client.get("/uploads/album/?after=2").content.decode()
    assert client.get("/uploads/album/small/p1/")["Content-Type"] == "image/jpeg"


@pytest.mark.parametrize(
    ("query", "said"),
    [
        ({"code": "good"}, "in another browser"),
        ({"code": "good", "state": "made-up"}, "in another browser"),
        ({"state": True}, "you chose not to open it"),
        ({"state": True, "code": "bad"}, "did not open"),
    ],
)
def test_what_comes_back_otherwise_opens_nothing(album, client, query, said):
    if query.get("state") is True:
        begun = client.get("/uploads/album/begin/")
        query = {**query, "state": parse_qs(urlsplit(begun.url).query)["state"][0]}
    answer = client.get("/uploads/album/back/", query)
    assert said in answer.content.decode()
    assert not answer.cookies.get("album")


@pytest.mark.parametrize("known", [True, False])
def test_consent_of_another_browser_opens_nothing_here(album, client, visitor, browser_of, known):
    begun = (browser_of(visitor) if known else Client()).get("/uploads/album/begin/")
    state = parse_qs(urlsplit(begun.url).query)["state"][0]
    answer = client.get("/uploads/album/back/", {"state": state, "code": "good"})
    assert "in another browser" in answer.content.decode()


def test_picture_that_is_chosen_becomes_an_upload_that_is_looked_at(album, client):
    opened(client)
    answer = client.post("/uploads/album/take/?field=photo&kind=png", {"picture": "p1"})
    assert answer.status_code == 202
    upload = Upload.objects.get()
    assert (upload.name, upload.state, str(upload.pk)) == ("tide.png", "waiting", answer["Upload-Id"])
    assert client.get(answer["Location"]).status_code == 202


@pytest.mark.parametrize(
    ("fault", "said"),
    [
        (AlbumSilenceError(), "did not come whole"),
        (AlbumRefusalError(), "is closed again"),
        (AlbumPictureError(), "isn’t in the album any more"),
    ],
)
def test_picture_that_doesnt_come_is_told_and_nothing_is_kept(album, client, fault, said):
    opened(client)
    album.fault = fault
    answer = client.post("/uploads/album/take/?field=photo", {"picture": "p1"})
    assert (answer.status_code, Upload.objects.count()) == (422, 0)
    assert said in answer.content.decode()
    assert client.get("/uploads/album/small/p1/").status_code == 404


def test_kind_that_the_field_doesnt_take_and_what_is_no_picture_are_refused_as_uploads_are(album, client):
    opened(client)
    assert client.post("/uploads/album/take/?field=photo&kind=jpeg", {"picture": "p1"}).status_code == 422
    album.picture = b"words"
    assert client.post("/uploads/album/take/?field=photo", {"picture": "p1"}).status_code == 422
    assert Upload.objects.count() == 0


def test_silent_album_can_be_asked_again_and_one_that_is_over_is_opened_anew(album, client):
    opened(client)
    album.fault = AlbumSilenceError()
    said = client.get("/uploads/album/?after=2").content.decode()
    assert "doesn’t answer just now" in said
    assert 'data-album-again="/uploads/album/?after=2"' in said
    album.fault = AlbumRefusalError()
    assert "Open your Gull Album" in client.get("/uploads/album/").content.decode()
    album.fault = None
    assert "Open your Gull Album" in client.get("/uploads/album/").content.decode()


@pytest.mark.parametrize("address", ["", "begin/", "back/", "small/p1/"])
def test_where_there_is_no_album_nothing_speaks_of_one(client, product, address):
    assert client.get(f"/uploads/album/{address}").status_code == 404
    assert "data-album=" not in client.get(f"/goods/{product.key}/").content.decode()
