#!/usr/bin/env python3
"""Starts the demo: PostgreSQL, web processes, workers, the front door; prints the address; Ctrl-C stops it all.

Usage: run_demo.py [--port 8480] [--name demo] [--tls]
Another name makes another installation beside it, with a cluster and a folder of its own. One process owns each: a
second one is refused before it touches anything. What ends by itself is started again, PostgreSQL too.
"""

import argparse
import contextlib
import fcntl
import json
import os
import secrets
import shutil
import signal
import socket
import ssl
import subprocess
import sys
import time
import urllib.request
from pathlib import Path
from typing import IO

CHECKOUT = Path(__file__).resolve().parent.parent
sys.path.insert(0, str(CHECKOUT))
sys.path.insert(0, str(CHECKOUT / "scripts"))

from cluster import RUN_FOLDER, Cluster, ClusterError  # noqa: E402

from demo.installation import WORKERS, album_command, free_port, web_command  # noqa: E402
from deploy.front_door import FrontDoor  # noqa: E402

PATIENCE_SECONDS, REST_SECONDS = 180, 2


class Children:
    """The processes that we start: each in a session of its own, started again when it ends, gone when we are."""

    def __init__(self, folder: Path) -> None:
        self._folder = folder
        self._commands: dict[str, tuple[str, ...]] = {}
        self._running: dict[str, subprocess.Popen[bytes]] = {}
        self._began: dict[str, float] = {}

    def start(self, name: str, *command: str) -> None:
        """Start a process; what it says goes to NAME.log in the folder."""
        self._commands[name] = command
        with (self._folder / f"{name}.log").open("ab") as log:
            guarded = ("setpriv", "--pdeathsig", "TERM", *command)
            self._running[name] = subprocess.Popen(
                guarded, cwd=CHECKOUT, stdin=subprocess.DEVNULL, stdout=log, stderr=log, start_new_session=True
            )
        self._began[name] = time.monotonic()

    def revive(self) -> None:
        """Start again what ended by itself; one that won't stay up is given time between its tries."""
        for name, process in self._running.items():
            if process.poll() is not None and time.monotonic() - self._began[name] > REST_SECONDS:
                # What it had started itself would go on, and keep its port.
                with contextlib.suppress(ProcessLookupError):
                    os.killpg(process.pid, signal.SIGKILL)
                print(f"The {name} process ended by itself and is started again; see .run/{name}.log.", file=sys.stderr)
                self.start(name, *self._commands[name])

    def stop(self) -> None:
        """Stop them all, gently first."""
        for process in self._running.values():
            with contextlib.suppress(ProcessLookupError):
                os.killpg(process.pid, signal.SIGTERM)
        for process in self._running.values():
            try:
                process.wait(20)
            except subprocess.TimeoutExpired:
                os.killpg(process.pid, signal.SIGKILL)


def main() -> int:
    """Run the demo until it is interrupted; return the exit status."""
    options = argparse.ArgumentParser(description=__doc__)
    options.add_argument("--port", type=int, default=8480)
    options.add_argument("--name", default="demo")
    options.add_argument("--tls", action="store_true", help="https, with a certificate made here")
    given = options.parse_args()
    port, folder = given.port, RUN_FOLDER if given.name == "demo" else RUN_FOLDER / given.name
    folder.mkdir(parents=True, exist_ok=True)
    site = f"{'https' if given.tls else 'http'}://127.0.0.1:{port}"
    owner = _owned(folder, site)
    if owner is None:
        runs_at = (folder / "owner").read_text().strip()
        print(f"This demo runs already{f' at {runs_at}' if runs_at else ''}: open that. Its database has one owner.")
        print("For another one beside it, with data of its own: make demo NAME=second PORT=8481")
        return 1
    with socket.socket() as probe:
        if probe.connect_ex(("127.0.0.1", port)) == 0:
            print(f"Something else answers at {site} already. Choose another port: make demo PORT=8481")
            return 1
    for number in (signal.SIGINT, signal.SIGTERM, signal.SIGHUP):
        signal.signal(number, _interrupt)
    cluster, children = Cluster(given.name), Children(folder)
    (folder / "demo.json").unlink(missing_ok=True)
    try:
        album_port = free_port()
        _environment(cluster.start(), site, folder)
        os.environ.update(ALBUM_ADDRESS=f"http://127.0.0.1:{album_port}", ALBUM_SECRET=secrets.token_urlsafe(24))
        _prepare()
        web_port = free_port()
        children.start("album", *album_command(album_port, os.environ["ALBUM_SECRET"], site))
        children.start("web", *web_command(web_port))
        for queue, command in WORKERS.items():
            children.start(f"worker-{queue}", *command)
        door = FrontDoor(folder / "door", port, f"127.0.0.1:{web_port}", folder / "static", is_tls=given.tls)
        children.start("door", *door.command())
        _wait_until_healthy(site, children)
        _announce(site, folder)
        while True:
            time.sleep(1)
            cluster.revive()
            children.revive()
    except KeyboardInterrupt:
        # Whoever hung up reads nothing any more.
        with contextlib.suppress(OSError):
            print("\nStopping.", flush=True)
        return 0
    finally:
        (folder / "demo.json").unlink(missing_ok=True)
        children.stop()
        cluster.stop()
        owner.close()


def _owned(folder: Path, site: str) -> IO[str] | None:
    """Make this process the only one of its installation, as long as the file stays open; None when there is one."""
    held = (folder / "owner").open("a+")
    try:
        fcntl.flock(held, fcntl.LOCK_EX | fcntl.LOCK_NB)
    except BlockingIOError:
        held.close()
        return None
    held.truncate(0)
    held.write(f"{site}\n")
    held.flush()
    return held


def _interrupt(*_signal: object) -> None:
    raise KeyboardInterrupt


def _environment(database_url: str, site: str, folder: Path) -> None:
    secret = folder / "secret-key"
    if not secret.exists():
        secret.touch(mode=0o600)
        secret.write_text(secrets.token_urlsafe(48))
    os.environ.update(
        DATABASE_URL=database_url,
        DATABASE_POOL="1",
        YENZO_MODE="practice",
        SECRET_KEY=secret.read_text(),
        SITE_ADDRESS=site,
        TRUSTED_PROXIES="1",
        FILES_ROOT=str(folder / "files"),
        STATIC_ROOT=str(folder / "static"),
        STATIC_STORAGE="yenzo.config.static_files.NamedByContent",
        DJANGO_SETTINGS_MODULE="yenzo.config.settings",
    )


def _prepare() -> None:
    from django.core.management import call_command

    from demo.load import load

    call_command("migrate", verbosity=0)
    call_command("collectstatic", interactive=False, verbosity=0)
    load()


def _wait_until_healthy(site: str, children: Children) -> None:
    from demo.load import finished_pack

    deadline = time.monotonic() + PATIENCE_SECONDS
    # Our own certificate is nobody's yet.
    trust = ssl.create_default_context()
    trust.check_hostname, trust.verify_mode = False, ssl.CERT_NONE
    while time.monotonic() < deadline:
        children.revive()
        try:
            with urllib.request.urlopen(site, timeout=30, context=trust) as answer:
                if answer.status == 200 and finished_pack():
                    return
        except OSError:
            pass
        time.sleep(0.1)
    raise SystemExit(f"The demo did not get ready within {PATIENCE_SECONDS} seconds; see the logs in .run.")


def _announce(site: str, folder: Path) -> None:
    from django.db import connections

    from demo.load import PASSWORD, PEOPLE, finished_pack, pages

    sign_in = f"{site}/workshop/sign-in/"
    shutil.copy(folder / "files" / str(finished_pack()), folder / "pack.zip")
    facts = {
        "url": site,
        "sign_in_page": sign_in,
        "staff": [{"role": role.value, "sign_in": name, "password": PASSWORD} for name, _, role in PEOPLE],
        "pages": pages(site),
        "files": {"pack": str((folder / "pack.zip").relative_to(CHECKOUT))},
    }
    connections.close_all()
    # Renamed into place: whoever waits for it never reads half of it.
    (folder / "demo.json.part").write_text(json.dumps(facts, indent=1))
    (folder / "demo.json.part").replace(folder / "demo.json")
    print(f"\nThe shop:      {site}\nThe workshop:  {sign_in}")
    for name, _, role in PEOPLE:
        print(f"  as {role.label.lower():10} {name} / {PASSWORD}")
    print("\nCtrl-C stops everything.", flush=True)


if __name__ == "__main__":
    try:
        sys.exit(main())
    except ClusterError as error:
        sys.exit(str(error))
