"""The whole of Yenzo running for the stories: a database of its own, web processes, a worker, and Chromium."""

import hashlib
import json
import os
import signal
import socket
import subprocess
import sys
import urllib.request
from pathlib import Path
from time import monotonic, sleep

import psycopg
import pytest
from playwright.sync_api import expect, sync_playwright

from demo.load import PASSWORD

ROOT = Path(__file__).resolve().parents[2]
BIN = Path(sys.executable).parent
FLAGS = [
    "--no-sandbox",
    "--disable-gpu",
    "--disable-background-networking",
    "--disable-component-update",
    "--disable-sync",
    "--no-first-run",
]
WIDE, PHONE = {"width": 1280, "height": 800}, {"width": 390, "height": 844}
expect.set_options(timeout=15_000)


def wait_until(true, *, seconds=20, what="it to happen"):
    deadline = monotonic() + seconds
    while monotonic() < deadline:
        found = true()
        if found:
            return found
        sleep(0.02)
    raise AssertionError(f"Waited {seconds} s in vain for {what}.")


class Workshop:
    """A running installation with the demo data in it."""

    def __init__(self, folder):
        base = os.environ["DATABASE_URL"]
        with psycopg.connect(base, autocommit=True) as connection:
            connection.execute("DROP DATABASE IF EXISTS story WITH (FORCE)")
            connection.execute("CREATE DATABASE story")
        with socket.socket() as probe:
            probe.bind(("127.0.0.1", 0))
            port = probe.getsockname()[1]
        self.url = f"http://127.0.0.1:{port}"
        self.folder = folder
        self.database = base.rsplit("/", 1)[0] + "/story"
        self.environment = os.environ | {
            "DATABASE_URL": self.database,
            "FILES_ROOT": str(folder / "files"),
            "STATIC_ROOT": str(folder / "static"),
            "SITE_ADDRESS": self.url,
            "STATIC_STORAGE": "whitenoise.storage.CompressedManifestStaticFilesStorage",
            "PRACTICE_SILENCE_SECONDS": "2",
            "SETTLE_AFTER_SECONDS": "1",
            "WORKER_SILENCE_SECONDS": "3",
            "UPLOADS_A_MINUTE": "1000",
        }
        self.processes = []
        for command in (
            ["manage.py", "migrate", "-v0"],
            ["manage.py", "collectstatic", "-v0", "--noinput"],
            ["-m", "demo.load"],
        ):
            subprocess.run([sys.executable, *command], cwd=ROOT, env=self.environment, check=True, capture_output=True)
        self.start(
            "web",
            BIN / "gunicorn",
            "--worker-class",
            "gthread",
            "--workers",
            "1",
            "--threads",
            "4",
            "--bind",
            f"127.0.0.1:{port}",
            "--no-control-socket",
            "yenzo.config.wsgi",
        )
        wait_until(self._answers, what="the web process")

    def start(self, name, *command):
        log = (self.folder / f"{name}.log").open("ab")
        process = subprocess.Popen(
            [str(part) for part in command],
            cwd=ROOT,
            env=self.environment,
            stdout=log,
            stderr=log,
            start_new_session=True,
        )
        log.close()
        self.processes.append(process)
        return process

    def start_worker(self):
        return self.start("worker", sys.executable, "manage.py", "procrastinate", "worker", "--concurrency", "1")

    def kill(self, process):
        os.killpg(process.pid, signal.SIGKILL)
        process.wait()
        self.processes.remove(process)

    def stop(self):
        for process in self.processes:
            os.killpg(process.pid, signal.SIGTERM)
        for process in self.processes:
            process.wait(20)

    def rows(self, query, *values):
        with psycopg.connect(self.database) as connection:
            return connection.execute(query, values).fetchall()

    def read(self, sha256):
        """Serve as the core's assets, out of the store."""
        return (self.folder / "files" / "content" / sha256[:2] / sha256).read_bytes()

    def document(self, key):
        rows = self.rows(
            "SELECT r.document FROM catalogue_product p JOIN catalogue_revision r ON r.id = p.live_id WHERE p.key = %s",
            key,
        )
        return rows[0][0]

    def _answers(self):
        try:
            with urllib.request.urlopen(self.url, timeout=5) as answer:
                return answer.status == 200
        except OSError:
            return False


@pytest.fixture(scope="session")
def quiet_workshop(tmp_path_factory):
    """The installation without a worker."""
    workshop = Workshop(tmp_path_factory.mktemp("workshop"))
    yield workshop
    workshop.stop()


@pytest.fixture(scope="session")
def workshop(quiet_workshop):
    quiet_workshop.start_worker()
    return quiet_workshop


@pytest.fixture(scope="session")
def chromium():
    with sync_playwright() as playwright:
        browser = playwright.chromium.launch(executable_path="/usr/bin/chromium", args=FLAGS)
        yield browser
        browser.close()


@pytest.fixture(scope="session")
def signed_in(chromium, quiet_workshop):
    """What a browser keeps of somebody who signed in, asked for once each."""
    kept = {None: None}

    def state_of(person):
        if person not in kept:
            context = chromium.new_context(base_url=quiet_workshop.url)
            page = context.new_page()
            page.goto("/workshop/sign-in/")
            page.fill("[name=username]", person)
            page.fill("[name=password]", PASSWORD)
            page.get_by_role("button", name="Sign in").click()
            page.wait_for_url(lambda url: "sign-in" not in url)
            kept[person] = context.storage_state()
            context.close()
        return kept[person]

    return state_of


@pytest.fixture
def open_page(chromium, quiet_workshop, signed_in):
    """Open a page as somebody: a browser of its own whose console must stay empty."""
    contexts, said = [], []

    def opened(address="/", *, size=WIDE, person=None, bypass_csp=False):
        context = chromium.new_context(
            viewport=size, base_url=quiet_workshop.url, bypass_csp=bypass_csp, storage_state=signed_in(person)
        )
        context.set_default_timeout(15_000)
        contexts.append(context)
        page = context.new_page()
        page.on("console", lambda message: said.append(f"{page.url}: {message.text}"))
        page.on("pageerror", lambda error: said.append(f"{page.url}: {error}"))
        page.goto(address)
        return page

    opened.said = said
    yield opened
    for context in contexts:
        context.close()
    # A refused entry answers with 422, which Chromium notes on the console; nothing else may be said there.
    assert [line for line in said if "status of 422" not in line] == []


def sha256_of(data):
    return hashlib.sha256(data).hexdigest()


def facts(workshop):
    """Return the addresses of all main pages into the demo data."""
    command = [sys.executable, "-c", "import json; from demo.load import pages; print(json.dumps(pages('')))"]
    done = subprocess.run(command, cwd=ROOT, env=workshop.environment, check=True, capture_output=True)
    return json.loads(done.stdout)
