#!/usr/bin/env python3
"""Starts the demo: its PostgreSQL, web processes and a worker; prints the address; Ctrl-C stops it all.

Usage: run_demo.py [--port 8480] [--name demo]
Another name makes another installation beside it, with a cluster and a folder of its own.
"""

import argparse
import contextlib
import json
import os
import secrets
import shutil
import signal
import socket
import subprocess
import sys
import time
import urllib.request
from pathlib import Path

CHECKOUT = Path(__file__).resolve().parent.parent
sys.path.insert(0, str(CHECKOUT))
sys.path.insert(0, str(CHECKOUT / "scripts"))

from cluster import RUN_FOLDER, Cluster, ClusterError  # noqa: E402

from demo.installation import WORKER, web_command  # noqa: E402

PATIENCE_SECONDS = 180


class Children:
    """The processes that we start: each in a session of its own, gone when we are."""

    def __init__(self, folder: Path) -> None:
        self._folder = folder
        self._running: list[subprocess.Popen[bytes]] = []

    def start(self, name: str, *command: str) -> subprocess.Popen[bytes]:
        """Start a process; what it says goes to NAME.log in the folder."""
        log = (self._folder / f"{name}.log").open("ab")
        guarded = ("setpriv", "--pdeathsig", "TERM", *command)
        process = subprocess.Popen(guarded, cwd=CHECKOUT, stdout=log, stderr=log, start_new_session=True)
        self._running.append(process)
        return process

    def ended(self) -> subprocess.Popen[bytes] | None:
        """Return a process that ended by itself, if one did."""
        return next((process for process in self._running if process.poll() is not None), None)

    def stop(self) -> None:
        """Stop them all, gently first."""
        for process in self._running:
            with contextlib.suppress(ProcessLookupError):
                os.killpg(process.pid, signal.SIGTERM)
        for process in self._running:
            try:
                process.wait(20)
            except subprocess.TimeoutExpired:
                os.killpg(process.pid, signal.SIGKILL)


def main() -> int:
    """Run the demo until it is interrupted; return the exit status."""
    options = argparse.ArgumentParser(description=__doc__)
    options.add_argument("--port", type=int, default=8480)
    options.add_argument("--name", default="demo")
    given = options.parse_args()
    port, folder = given.port, RUN_FOLDER if given.name == "demo" else RUN_FOLDER / given.name
    folder.mkdir(parents=True, exist_ok=True)
    site = f"http://127.0.0.1:{port}"
    with socket.socket() as probe:
        if probe.connect_ex(("127.0.0.1", port)) == 0:
            print(f"Something answers at {site} already. If it is this demo, open it; else choose another: PORT=8481.")
            return 1
    for number in (signal.SIGINT, signal.SIGTERM):
        signal.signal(number, _interrupt)
    cluster, children = Cluster(given.name), Children(folder)
    (folder / "demo.json").unlink(missing_ok=True)
    try:
        _environment(cluster.start(), site, folder)
        _prepare()
        children.start("web", *web_command(port))
        children.start("worker", *WORKER)
        _wait_until_healthy(site, children)
        _announce(site, folder)
        while children.ended() is None:
            time.sleep(1)
        print("A process of the demo ended by itself; its log is in .run.", file=sys.stderr)
        return 1
    except KeyboardInterrupt:
        print("\nStopping.")
        return 0
    finally:
        (folder / "demo.json").unlink(missing_ok=True)
        children.stop()
        cluster.stop()


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
        SECRET_KEY=secret.read_text(),
        SITE_ADDRESS=site,
        FILES_ROOT=str(folder / "files"),
        STATIC_ROOT=str(folder / "static"),
        STATIC_STORAGE="whitenoise.storage.CompressedManifestStaticFilesStorage",
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
    while time.monotonic() < deadline and children.ended() is None:
        try:
            with urllib.request.urlopen(site, timeout=30) as answer:
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
