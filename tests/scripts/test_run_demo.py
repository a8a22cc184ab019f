"""The start command: everything comes up, is told, and goes away again."""

import json
import os
import shutil
import signal
import socket
import subprocess
import sys
import urllib.request
from contextlib import suppress
from pathlib import Path

import pytest

from demo.installation import ROOT, wait_until
from demo.template import loaded, restore
from scripts.cluster import Cluster

NAME = "trial"
FOLDER = ROOT / ".run" / NAME


@pytest.fixture
def port():
    with socket.socket() as probe:
        probe.bind(("127.0.0.1", 0))
        return probe.getsockname()[1]


@pytest.fixture
def start(port):
    """Start another demo beside whatever runs; take everything away in the end.

    It finds the demo's data as an earlier run would have left them: that they are loaded is seen where the template is.
    """
    started, cluster = [], Cluster(NAME)
    template = loaded(os.environ["DATABASE_URL"])
    FOLDER.mkdir(parents=True, exist_ok=True)
    restore(template, cluster.start())
    shutil.copytree(template / "files", FOLDER / "files", dirs_exist_ok=True)
    cluster.stop()

    def begun(at=None):
        environment = {name: value for name, value in os.environ.items() if name not in {"DATABASE_URL", "FILES_ROOT"}}
        command = [sys.executable, "scripts/run_demo.py", "--port", str(at or port), "--name", NAME]
        process = subprocess.Popen(
            command, cwd=ROOT, env=environment, stdout=subprocess.PIPE, stderr=subprocess.STDOUT, text=True
        )
        started.append(process)
        return process

    yield begun
    for process in started:
        process.terminate()
        process.wait(90)
        process.stdout.close()
    subprocess.run([sys.executable, "scripts/cluster.py", "destroy", NAME], cwd=ROOT, check=True)


def children_of(process):
    done = subprocess.run(["pgrep", "-P", str(process.pid)], capture_output=True, text=True, check=False)
    return done.stdout.split()


def kill(demo, name):
    """Kill one of the demo's processes as a failing machine would; return which it was."""
    words = {"web": "gunicorn", "worker-default": "config.worker --queues default", "door": "nginx"}[name]
    for child in children_of(demo):
        # Some are there for a moment only.
        with suppress(FileNotFoundError):
            if words in Path(f"/proc/{child}/cmdline").read_text().replace("\0", " "):
                os.kill(int(child), signal.SIGKILL)
                return child
    raise AssertionError(f"There is no {name}.")


def answers(address):
    try:
        with urllib.request.urlopen(address, timeout=10) as answer:
            return answer.status == 200
    except OSError:
        return False


def told(process):
    facts = FOLDER / "demo.json"
    wait_until(lambda: facts.exists() or process.poll() is not None, seconds=240, what="the demo to start")
    assert process.poll() is None, process.stdout.read()
    return json.loads(facts.read_text())


def test_demo_starts_tells_its_addresses_and_stops_without_a_trace(start, port):
    first = start()
    facts = told(first)
    assert facts["url"] == f"http://127.0.0.1:{port}"
    assert {person["role"] for person in facts["staff"]} == {"owner", "seller", "desk", "decorator"}
    assert all(person["sign_in"] and person["password"] for person in facts["staff"])
    for name in ("shop", "product", "product_heavy", "order"):
        with urllib.request.urlopen(facts["pages"][name]) as answer:
            assert answer.status == 200
    assert (ROOT / facts["files"]["pack"]).read_bytes()[:2] == b"PK"
    children = children_of(first)
    assert len(children) == 5
    # What ends by itself is started again.
    killed = {kill(first, name) for name in ("web", "worker-default", "door")}
    wait_until(lambda: len(children_of(first)) == 5 and not killed & set(children_of(first)), what="new processes")
    wait_until(lambda: answers(facts["pages"]["shop"]), what="the shop")
    children = children_of(first)
    # Another one, on a port of its own even, is told where the first one runs and leaves it alone.
    for second in (start(), start(port + 1)):
        assert second.wait(90) == 1
        assert f"runs already at http://127.0.0.1:{port}: open that" in second.stdout.read()
    assert told(first) == facts
    assert answers(facts["pages"]["shop"])
    first.send_signal(signal.SIGINT)
    assert first.wait(90) == 0
    assert not (FOLDER / "demo.json").exists()
    assert not any(Path(f"/proc/{child}").exists() for child in children)
    with socket.socket() as probe:
        assert probe.connect_ex(("127.0.0.1", port)) != 0
    # A second run finds what the first left, orders included.
    third, fourth = start(), start(port + 1)
    wait_until(
        lambda: None in {third.poll(), fourth.poll()} and {third.poll(), fourth.poll()} != {None},
        seconds=240,
        what="one of two to give way",
    )
    stays = third if third.poll() is None else fourth
    again = told(stays)
    assert again["pages"]["order"].partition("/order/")[2] == facts["pages"]["order"].partition("/order/")[2]
    # Whoever hangs up stops everything, too.
    children = children_of(stays)
    stays.send_signal(signal.SIGHUP)
    assert stays.wait(90) == 0
    assert not any(Path(f"/proc/{child}").exists() for child in children)
