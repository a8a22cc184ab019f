"""The front door: slow senders and silent connections hold nobody up, and words come when the web processes are away."""

import contextlib
import http.client
import os
import re
import signal
import socket
import time
import urllib.error
import urllib.request
from pathlib import Path

import pytest
from playwright.sync_api import expect

from bench.tools.slow_senders import slow_senders
from demo.installation import wait_until

# Far more than the web processes have threads for.
MANY = 60
# Behind the front door an answer takes a moment; without it, nobody would be answered for longer than this.
PATIENCE_SECONDS = 12


def port_of(workshop):
    return int(workshop.url.rsplit(":", 1)[1])


def test_slow_senders_hold_nobody_up(workshop):
    with slow_senders(port_of(workshop), MANY):
        for _ in range(20):
            with urllib.request.urlopen(f"{workshop.url}/goods/cedar-nameboard/", timeout=PATIENCE_SECONDS) as answer:
                assert answer.status == 200


def test_static_files_come_from_the_front_door_with_their_names_kept_for_good(workshop):
    page = urllib.request.urlopen(workshop.url).read().decode()
    sheet = re.search(r'href="(/static/css/yenzo\.[0-9a-f]+\.css)"', page)[1]
    with urllib.request.urlopen(workshop.url + sheet) as answer:
        assert "immutable" in answer.headers["Cache-Control"]
        assert answer.headers["Content-Type"] == "text/css"
    with pytest.raises(urllib.error.HTTPError, match="404"):
        urllib.request.urlopen(f"{workshop.url}/static/../nginx.conf")


def test_request_that_is_far_too_large_is_refused_in_words(workshop):
    connection = http.client.HTTPConnection("127.0.0.1", port_of(workshop), timeout=30)
    connection.putrequest("POST", "/uploads/")
    connection.putheader("Content-Length", str(500_000_000))
    connection.endheaders()
    answer = connection.getresponse()
    assert (answer.status, b"too large to be sent" in answer.read()) == (413, True)


@pytest.mark.parametrize(
    "asked", ["GET /goods/%00/ HTTP/1.1", f"GET /{'x' * 20_000} HTTP/1.1", f"GET /?{'q' * 8150} HTTP/1.1", "nonsense"]
)
def test_request_that_cannot_be_read_gets_a_page_of_ours(workshop, asked):
    with socket.create_connection(("127.0.0.1", port_of(workshop)), 30) as line:
        line.sendall(f"{asked}\r\nHost: 127.0.0.1\r\nConnection: close\r\n\r\n".encode())
        answer = b"".join(iter(lambda: line.recv(65_536), b"")).decode()
    assert answer.startswith("HTTP/1.1 400")
    assert "be read</h1>" in answer


def test_web_process_takes_no_more_requests_than_it_answers_at_a_time(workshop):
    web = next(process for process in workshop.processes if b"gunicorn" in _command(process.pid))
    command = _command(web.pid).decode().split("\0")
    of = {option: command[command.index(option) + 1] for option in ("--bind", "--threads", "--worker-connections")}
    assert of["--worker-connections"] == of["--threads"]
    service = (Path(__file__).parents[2] / "deploy" / "yenzo-web.service").read_text()
    assert all(f"{option} {of[option]}" in service for option in ("--threads", "--worker-connections"))
    # None of them is held by a connection on which nothing is asked.
    with contextlib.closing(http.client.HTTPConnection(of["--bind"], timeout=30)) as connection:
        connection.request("GET", "/goods/cedar-nameboard/", headers={"Host": "127.0.0.1"})
        answer = connection.getresponse()
        assert (answer.status, answer.getheader("Connection")) == (200, "close")


def test_customers_connection_stays_open_between_requests(workshop):
    with contextlib.closing(http.client.HTTPConnection("127.0.0.1", port_of(workshop), timeout=30)) as connection:
        connection.connect()
        line = connection.sock
        for pause in (0, 4):
            time.sleep(pause)
            connection.request("GET", "/goods/cedar-nameboard/")
            answer = connection.getresponse()
            assert answer.status == 200
            answer.read()
        assert connection.sock is line


def test_while_the_web_processes_are_away_a_page_asks_to_wait_and_loads_itself_again(workshop, open_page):
    web = next(process for process in workshop.processes if b"gunicorn" in _command(process.pid))
    os.killpg(web.pid, signal.SIGSTOP)
    os.killpg(web.pid, signal.SIGKILL)
    web.wait()
    workshop.processes.remove(web)
    with pytest.raises(urllib.error.HTTPError) as refused:
        urllib.request.urlopen(workshop.url)
    assert (refused.value.code, b"back in a moment" in refused.value.read()) == (503, True)
    page = open_page("/", expected=503)
    expect(page.get_by_role("heading").first).to_contain_text("back in a moment")
    workshop.start_web()
    wait_until(workshop.answers, what="the web process")
    expect(page.get_by_role("link", name="Cedar nameboard").first).to_be_visible()


def _command(pid):
    return Path(f"/proc/{pid}/cmdline").read_bytes()
