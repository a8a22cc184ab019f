"""The demo loaded once and kept: the code as it is comes in; a folder that installations begin with a copy of goes out.

Usage: python -m demo.template      (with DATABASE_URL; stories, the chaos run and benchmarks also do it by themselves)
It holds the files, the static files, and a dump of the database after the worker has made what was ordered.
"""

import fcntl
import hashlib
import os
import shutil
import subprocess
import sys
from collections.abc import Iterator
from pathlib import Path
from time import sleep

import psycopg

ROOT = Path(__file__).resolve().parent.parent
FOLDER = ROOT / ".run" / "template"
# What the loaded demo follows from.
SOURCES = ("yenzo", "demo", "requirements/app.txt")
PATIENCE_SECONDS = 240
UNDER_WAY = "SELECT 1 FROM procrastinate_jobs WHERE status = 'doing' OR (status = 'todo' AND scheduled_at IS NULL)"


def loaded(base: str) -> Path:
    """Return the folder of the template, made first (in a database of its own beside `base`) when the code is new."""
    FOLDER.mkdir(parents=True, exist_ok=True)
    with (FOLDER / "lock").open("w") as lock:
        fcntl.flock(lock, fcntl.LOCK_EX)
        place = FOLDER / _digest()
        if not (place / "demo.dump").exists():
            for old in FOLDER.iterdir():
                if old.is_dir():
                    shutil.rmtree(old)
            place.mkdir()
            _make(base, place)
    return place


def new_database(base: str, name: str) -> str:
    """Make an empty database on the cluster of `base`, in the place of any other of that name; return its address."""
    with psycopg.connect(base, autocommit=True) as connection:
        connection.execute(f"DROP DATABASE IF EXISTS {name} WITH (FORCE)".encode())
        connection.execute(f"CREATE DATABASE {name}".encode())
    return base.rsplit("/", 1)[0] + f"/{name}"


def copied(template: Path, base: str, name: str, folder: Path) -> str:
    """Copy the template into a new database and a folder; return the database's address."""
    address = new_database(base, name)
    for part in ("files", "static"):
        shutil.copytree(template / part, folder / part)
    restore(template, address)
    return address


def restore(template: Path, address: str) -> None:
    """Fill an empty database with what the template holds."""
    command = [program("pg_restore"), "--dbname", address, "--no-owner", "--exit-on-error"]
    subprocess.run([*command, str(template / "demo.dump")], check=True, capture_output=True)


def _make(base: str, place: Path) -> None:
    address = new_database(base, "demo_template")
    settings = {
        "DATABASE_URL": address,
        "FILES_ROOT": str(place / "files"),
        "STATIC_ROOT": str(place / "static"),
        "STATIC_STORAGE": "yenzo.config.static_files.NamedByContent",
        "SITE_ADDRESS": "http://127.0.0.1:8480",
        "YENZO_MODE": "practice",
        "SETTLE_AFTER_SECONDS": "1",
    }
    environment = os.environ | settings
    commands = (
        ("manage.py", "migrate", "-v0"),
        ("manage.py", "collectstatic", "-v0", "--noinput"),
        ("-m", "demo.load", "--without-history"),
    )
    for command in commands:
        subprocess.run([sys.executable, *command], cwd=ROOT, env=environment, check=True, capture_output=True)
    with (place / "worker.log").open("wb") as log:
        worker = subprocess.Popen(
            [sys.executable, "-m", "yenzo.config.worker"],
            cwd=ROOT,
            env=environment,
            stdout=log,
            stderr=log,
        )
        try:
            _wait_until_done(address, worker)
        finally:
            worker.terminate()
            worker.wait(60)
    unfinished = place / "unfinished.dump"
    dump = [
        program("pg_dump"),
        "--dbname",
        address,
        "--format",
        "custom",
        "--compress",
        "1",
        "--file",
        str(unfinished),
    ]
    subprocess.run(dump, check=True, capture_output=True)
    # What `make demo` loads besides; no story needs it, but it must come about.
    history = [sys.executable, "-m", "demo.load", "--history"]
    subprocess.run(history, cwd=ROOT, env=environment, check=True, capture_output=True)
    with psycopg.connect(base, autocommit=True) as connection:
        connection.execute("DROP DATABASE demo_template WITH (FORCE)")
    # Its name says that it is whole.
    unfinished.rename(place / "demo.dump")


def _wait_until_done(address: str, worker: subprocess.Popen[bytes]) -> None:
    with psycopg.connect(address, autocommit=True) as connection:
        for _ in range(PATIENCE_SECONDS * 10):
            if connection.execute(UNDER_WAY).fetchone() is None:
                return
            if worker.poll() is not None:
                break
            sleep(0.1)
    raise AssertionError("The worker did not finish what the demo orders; see worker.log.")


def _digest() -> str:
    digest = hashlib.sha256()
    for path in sorted(_sources()):
        digest.update(str(path.relative_to(ROOT)).encode())
        digest.update(path.read_bytes())
    return digest.hexdigest()[:16]


def _sources() -> Iterator[Path]:
    for source in SOURCES:
        place = ROOT / source
        yield from (path for path in place.rglob("*") if path.is_file() and "__pycache__" not in path.parts)
        if place.is_file():
            yield place


def program(name: str) -> str:
    """Return where a program of the newest PostgreSQL lies."""
    found = sorted(Path("/usr/lib/postgresql").glob(f"*/bin/{name}"), key=lambda path: int(path.parts[-3]))
    return str(found[-1])


if __name__ == "__main__":
    loaded(os.environ["DATABASE_URL"])
