"""The practice album: consent is good for once, pictures come by pages, what is slow or broken is told apart."""

import io
import socket
import subprocess
import threading
from contextlib import suppress
from time import sleep
from urllib.parse import parse_qs, urlencode, urlsplit

import pytest
import urllib3
from PIL import Image

from demo.installation import album_command
from yenzo.gateways.album.interface import AlbumPictureError, AlbumRefusalError, AlbumSilenceError
from yenzo.gateways.album.practice import PracticeAlbum
from yenzo.gateways.album.practice_server import BROKEN, LATE, NAME, PICTURES, Server

SECRET, BACK = "known-to-both", "http://shop.example/"


@pytest.fixture(scope="module")
def server():
    server = Server(0, SECRET, BACK, late_seconds=2.0)
    threading.Thread(target=server.serve_forever, daemon=True).start()
    yield server
    server.shutdown()
    server.server_close()


@pytest.fixture
def album(server):
    return PracticeAlbum(f"http://127.0.0.1:{server.server_port}/", SECRET, patience_seconds=1.0)


def consent(album, *, answer="yes", back=f"{BACK}back/"):
    """Answer its page of consent; return what the owner comes back with."""
    page = album.consent_address(back, "state-7")
    assert urllib3.request("GET", page).status == (200 if back.startswith(BACK) else 400)
    body, headers = urlencode({"consents": answer}), {"Content-Type": "application/x-www-form-urlencoded"}
    said = urllib3.request("POST", page, body=body, headers=headers, redirect=False)
    return {name: values[0] for name, values in parse_qs(urlsplit(said.headers.get("Location", "")).query).items()}


@pytest.fixture
def token(album):
    return album.token(consent(album)["code"])


def test_consent_leads_back_with_a_code_that_is_good_for_once(album):
    came = consent(album)
    assert came["state"] == "state-7"
    assert album.token(came["code"])
    with pytest.raises(AlbumRefusalError):
        album.token(came["code"])


def test_without_consent_there_is_no_code_and_nobody_else_gets_one(album):
    assert consent(album, answer="no") == {"state": "state-7"}
    assert consent(album, back="http://evil.example/") == {}
    with pytest.raises(AlbumRefusalError):
        album.token("made-up")
    code = consent(album)["code"]
    with pytest.raises(AlbumRefusalError):
        PracticeAlbum(album._address, "guessed").token(code)


def test_every_picture_is_on_one_page_and_a_page_that_failed_comes_the_next_time(album, server, token):
    server.failed.clear()
    after, seen, failed = "", [], 0
    while True:
        try:
            page = album.page(token, after)
        except AlbumSilenceError:
            failed += 1
            continue
        seen += [picture.key for picture in page.pictures]
        if not (after := page.after):
            break
    assert (len(seen), len(set(seen)), failed) == (PICTURES, PICTURES, 1)


def test_pictures_are_the_owners_only(album, token, tmp_path):
    for stranger in ("", "made-up"):
        with pytest.raises(AlbumRefusalError):
            album.page(stranger)
        with pytest.raises(AlbumRefusalError):
            album.fetch(stranger, "p1", tmp_path / "picture", most_bytes=10**8)
    assert Image.open(io.BytesIO(album.small(token, "p1"))).size == (180, 120)


def test_picture_comes_whole_with_its_name(album, token, tmp_path):
    path = tmp_path / "picture"
    assert album.fetch(token, "p3", path, most_bytes=10**8) == "Evening sail 1.jpg"
    with Image.open(path) as picture:
        assert picture.size == (1800, 1200)


@pytest.mark.parametrize(
    ("key", "most_bytes", "wrong"),
    [
        (f"p{BROKEN}", 10**8, AlbumSilenceError),
        (f"p{LATE}", 10**8, AlbumSilenceError),
        ("p1", 1000, AlbumPictureError),
        (f"p{PICTURES}", 10**8, AlbumPictureError),
        ("../token", 10**8, AlbumPictureError),
        ("", 10**8, AlbumPictureError),
    ],
)
def test_of_what_didnt_come_whole_nothing_is_left(album, token, tmp_path, key, most_bytes, wrong):
    with pytest.raises(wrong):
        album.fetch(token, key, tmp_path / "picture", most_bytes=most_bytes)
    assert list(tmp_path.iterdir()) == []


def test_album_that_isnt_there_is_silent():
    with pytest.raises(AlbumSilenceError):
        PracticeAlbum("http://127.0.0.1:9", SECRET, patience_seconds=0.5).page("token")


def test_album_that_sends_a_byte_now_and_then_is_silent_too(tmp_path):
    def drip(listener):
        line, _ = listener.accept()
        with line, suppress(OSError):
            line.recv(10_000)
            line.sendall(b"HTTP/1.1 200 OK\r\nContent-Length: 100000\r\n\r\n")
            while True:
                line.sendall(b"x")
                sleep(0.05)

    with socket.create_server(("127.0.0.1", 0)) as listener:
        threading.Thread(target=drip, args=(listener,), daemon=True).start()
        album = PracticeAlbum(f"http://127.0.0.1:{listener.getsockname()[1]}", SECRET, whole_seconds=0.5)
        with pytest.raises(AlbumSilenceError):
            album.fetch("token", "p1", tmp_path / "picture", most_bytes=10**8)
    assert list(tmp_path.iterdir()) == []


def test_answer_that_is_larger_than_what_was_asked_for_isnt_read_on(album, token, monkeypatch):
    monkeypatch.setattr("yenzo.gateways.album.practice.MOST_SMALL_BYTES", 100)
    with pytest.raises(AlbumPictureError):
        album.small(token, "p1")
    monkeypatch.setattr("yenzo.gateways.album.practice.MOST_SAID_BYTES", 100)
    with pytest.raises(AlbumSilenceError):
        album.page(token)


def test_album_starts_with_any_secret(free_port):
    command = album_command(free_port, "-begins-with-a-dash", "http://127.0.0.1:1")
    with subprocess.Popen(command, stdout=subprocess.PIPE, stderr=subprocess.PIPE, text=True) as album:
        said = album.stdout.readline()
        album.terminate()
    assert said == f"{NAME} at http://127.0.0.1:{free_port}\n"


@pytest.fixture
def free_port():
    with socket.socket() as one:
        one.bind(("127.0.0.1", 0))
        return one.getsockname()[1]
