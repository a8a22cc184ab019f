"""Limits: who is counted, by whom, and that a guesser slows down nobody but themselves."""

import subprocess
import sys
import time
from concurrent.futures import ThreadPoolExecutor

import pytest
from django.test import Client, RequestFactory
from limits import parse
from limits.strategies import FixedWindowRateLimiter

from demo.installation import ROOT
from tests.apps.conftest import ADDRESS
from yenzo.apps.accounts.counting import ProcessStorage
from yenzo.apps.accounts.limiting import client_address, count_once

SIGN_IN = "/workshop/sign-in/"
pytestmark = pytest.mark.django_db


@pytest.mark.parametrize(
    ("proxies", "told", "seen"),
    [
        (0, "203.0.113.9", "10.0.0.1"),
        (1, "203.0.113.9", "203.0.113.9"),
        (1, "198.51.100.1, 203.0.113.9", "203.0.113.9"),
        (2, "198.51.100.1, 203.0.113.9", "198.51.100.1"),
        (2, "203.0.113.9", "10.0.0.1"),
        (1, "nonsense", "10.0.0.1"),
        (1, "", "10.0.0.1"),
        (1, "2001:db8:1:2:3:4:5:6", "2001:db8:1:2::/64"),
    ],
)
def test_client_is_who_the_outermost_of_our_proxies_saw(settings, proxies, told, seen):
    settings.TRUSTED_PROXIES = proxies
    request = RequestFactory().get("/", REMOTE_ADDR="10.0.0.1", HTTP_X_FORWARDED_FOR=told)
    assert client_address(request) == seen


@pytest.mark.django_db(transaction=True)
def test_count_is_shared_by_all_processes(settings):
    settings.LIMITS = {**settings.LIMITS, "upload": "5/minute"}
    code = (
        "import django; django.setup()\n"
        "from django.conf import settings\n"
        f"settings.DATABASES['default']['NAME'] = {settings.DATABASES['default']['NAME']!r}\n"
        "settings.LIMITS['upload'] = '5/minute'\n"
        "from yenzo.apps.accounts.limiting import count_once\n"
        "print([count_once('upload', 'somebody') for _ in range(4)])"
    )
    done = subprocess.run([sys.executable, "-c", code], cwd=ROOT, capture_output=True, text=True, check=True)
    assert done.stdout.strip() == "[True, True, True, True]"
    assert [count_once("upload", "somebody") for _ in range(3)] == [True, False, False]
    assert count_once("upload", "somebody else")


def test_what_is_counted_in_the_process_begins_anew_with_each_window_and_keeps_to_its_room(monkeypatch):
    counts, now = ProcessStorage(most=3), 1000.0
    monkeypatch.setattr("yenzo.apps.accounts.counting.time.monotonic", lambda: now)
    limiter, share = FixedWindowRateLimiter(counts), parse("2/minute")
    assert [limiter.hit(share, "preview", "one") for _ in range(3)] == [True, True, False]
    assert limiter.hit(share, "preview", "another")
    [key] = [key for key in counts._windows if "one" in key]
    assert counts.get(key) == 3
    assert counts.get_expiry(key) - time.time() == pytest.approx(60, abs=5)
    now += 60
    assert counts.get(key) == 0
    assert limiter.hit(share, "preview", "one")
    limiter.clear(share, "preview", "one")
    assert counts.get(key) == 0
    for number in range(5):
        limiter.hit(share, "preview", f"address {number}")
    assert len(counts._windows) == 3
    assert counts.reset() == 3
    assert not len(counts._windows)


def test_no_count_is_lost_between_threads():
    counts = ProcessStorage()
    with ThreadPoolExecutor(8) as pool:
        list(pool.map(lambda _: counts.incr("key", 60), range(4000)))
    assert counts.get("key") == 4000


def sign_in(client, password, **more):
    return client.post(SIGN_IN, {"username": "owner", "password": password}, **more)


def test_guesser_is_slowed_and_the_owner_signs_in_meanwhile(people, settings):
    settings.TRUSTED_PROXIES = 1
    owner, guesser = Client(), Client()
    assert sign_in(owner, "pass-word-9", HTTP_X_FORWARDED_FOR="203.0.113.1").status_code == 302
    owner.post("/workshop/sign-out/")
    for _ in range(9):
        answer = sign_in(guesser, "guess", HTTP_X_FORWARDED_FOR="203.0.113.66")
    assert "many tries in a short time" in answer.content.decode()
    assert "many tries" in sign_in(guesser, "pass-word-9", HTTP_X_FORWARDED_FOR="203.0.113.66").content.decode()
    # From elsewhere, and from the guesser's own network with a browser that is known.
    assert sign_in(Client(), "pass-word-9", HTTP_X_FORWARDED_FOR="203.0.113.2").status_code == 302
    assert sign_in(owner, "pass-word-9", HTTP_X_FORWARDED_FOR="203.0.113.66").status_code == 302


def test_known_browser_is_no_pass_for_another_name_or_for_guessing(people):
    known = Client()
    sign_in(known, "pass-word-9")
    known.post("/workshop/sign-out/")
    for _ in range(21):
        answer = sign_in(known, "guess")
    assert "many tries" in answer.content.decode()
    for _ in range(9):
        answer = known.post(SIGN_IN, {"username": "desk", "password": "guess"})
    assert "many tries" in answer.content.decode()


def test_right_password_begins_the_count_anew(people):
    client = Client()
    for _ in range(3):
        for _ in range(6):
            sign_in(client, "guess")
        assert sign_in(client, "pass-word-9").status_code == 302
        client.post("/workshop/sign-out/")
        client.cookies.clear()


def test_many_orders_in_a_short_time_are_refused_in_words_and_the_basket_stays(
    visitor, put_in_basket, browser_of, settings
):
    settings.LIMITS = {**settings.LIMITS, "checkout": "2/minute"}
    browser, codes = browser_of(visitor), []
    for _ in range(3):
        put_in_basket(visitor)
        form = {name: str(value) for name, value in browser.get("/checkout/").context["form"].initial.items()}
        facts = {"name": "Wilma", "mail": "wilma@post.example", **ADDRESS, "checked": "on"}
        answer = browser.post("/checkout/", {**form, **facts})
        codes.append(answer.status_code)
    assert codes == [302, 302, 429]
    assert "very often in a short time" in answer.content.decode()
    assert "WIND &amp; WHEY" in browser.get("/basket/").content.decode()
