"""A whole installation on a database of its own, with the demo in it: for stories and benchmarks."""

import json
import os
import secrets
import signal
import socket
import subprocess
import sys
import urllib.request
from collections.abc import Callable, Iterator
from contextlib import contextmanager, suppress
from pathlib import Path
from time import monotonic, sleep
from typing import Any

import psycopg

from demo.template import copied, loaded
from deploy.front_door import FrontDoor

ROOT = Path(__file__).resolve().parent.parent
BIN = Path(sys.executable).parent
# How many requests a web process answers at a time, and takes.
THREADS = "4"
# One looks at customers' files, which may take its time; the other does all else.
WORKERS = {queue: (sys.executable, "-m", "yenzo.config.worker", "--queues", queue) for queue in ("default", "artwork")}


def free_port() -> int:
    """Return a port of loopback that nobody listens on."""
    with socket.socket() as probe:
        probe.bind(("127.0.0.1", 0))
        port: int = probe.getsockname()[1]
        return port


def web_command(port: int, workers: int = 2) -> tuple[str, ...]:
    """Return the command of the web processes, which stand behind the front door."""
    shape = (
        "--worker-class",
        "gthread",
        "--workers",
        str(workers),
        "--threads",
        THREADS,
        "--limit-request-line",
        "8190",
    )
    # A process takes no more requests than it has threads, so that the others wait for whichever is free first.
    free = ("--worker-connections", THREADS, "--keep-alive", "0")
    # Loaded once and shared: the processes start in half the time, and one that is killed is there again at once.
    shared = ("--preload",)
    return (
        str(BIN / "gunicorn"),
        *shape,
        *free,
        *shared,
        "--bind",
        f"127.0.0.1:{port}",
        "--no-control-socket",
        "yenzo.config.wsgi",
    )


def album_command(port: int, secret: str, site: str) -> tuple[str, ...]:
    """Return the command of the album that stands in for one elsewhere."""
    # A secret may begin with a dash.
    options = ("--port", str(port), f"--secret={secret}", "--back", f"{site}/")
    return (sys.executable, "-m", "yenzo.gateways.album.practice_server", *options)


def wait_until(true: Callable[[], Any], *, seconds: float = 240, what: str = "it to happen") -> Any:
    """Return what `true` gives as soon as it is something; raises AssertionError when time runs out."""
    deadline = monotonic() + seconds
    while monotonic() < deadline:
        found = true()
        if found:
            return found
        sleep(0.02)
    raise AssertionError(f"Waited {seconds} s in vain for {what}.")


class Installation:
    """A running installation, on a cluster (`base`, else DATABASE_URL) where it may make a database of its name."""

    def __init__(
        self, folder: Path, *, workers: int = 1, base: str | None = None, name: str = "story", **settings: str
    ) -> None:
        base = base or os.environ["DATABASE_URL"]
        port, web_port, album_port = free_port(), free_port(), free_port()
        self.url = f"http://127.0.0.1:{port}"
        self.folder = folder
        self.database = copied(loaded(base), base, name, folder)
        self.environment = os.environ | {
            "DATABASE_URL": self.database,
            "DATABASE_POOL": "1",
            "FILES_ROOT": str(folder / "files"),
            "STATIC_ROOT": str(folder / "static"),
            "SITE_ADDRESS": self.url,
            "TRUSTED_PROXIES": "1",
            "YENZO_MODE": "practice",
            "SECRET_KEY": secrets.token_urlsafe(48),
            "STATIC_STORAGE": "yenzo.config.static_files.NamedByContent",
            "ALBUM_ADDRESS": f"http://127.0.0.1:{album_port}",
            "ALBUM_SECRET": secrets.token_urlsafe(24),
            "ALBUM_PATIENCE_SECONDS": "3",
            **settings,
        }
        self.processes: list[subprocess.Popen[bytes]] = []
        self.workers: list[subprocess.Popen[bytes]] = []
        self._groups: list[int] = []
        self._web = web_command(web_port, workers)
        self.start_web()
        door = FrontDoor(folder / "door", port, f"127.0.0.1:{web_port}", folder / "static")
        self.start("door", *door.command())
        self.start("album", *album_command(album_port, self.environment["ALBUM_SECRET"], self.url))
        wait_until(self.answers, what="the web process")

    def run(self, *arguments: str) -> str:
        """Run Python inside the installation; return what it prints."""
        done = subprocess.run(
            [sys.executable, *arguments], cwd=ROOT, env=self.environment, check=True, capture_output=True, text=True
        )
        return done.stdout

    def start(self, name: str, *command: str) -> subprocess.Popen[bytes]:
        """Start a process of the installation; its log is in the folder."""
        with (self.folder / f"{name}.log").open("ab") as log:
            process = subprocess.Popen(
                command, cwd=ROOT, env=self.environment, stdout=log, stderr=log, start_new_session=True
            )
        self.processes.append(process)
        self._groups.append(process.pid)
        return process

    def worker_command(self, queue: str) -> tuple[str, ...]:
        """Return what starts a worker of a queue."""
        return WORKERS[queue]

    def start_worker(self, queue: str = "default") -> subprocess.Popen[bytes]:
        """Start one more worker of a queue."""
        worker = self.start(f"worker-{queue}", *WORKERS[queue])
        self.workers.append(worker)
        return worker

    def kill(self, process: subprocess.Popen[bytes]) -> None:
        """Kill a process as a failing machine would."""
        os.killpg(process.pid, signal.SIGKILL)
        process.wait()
        self.processes.remove(process)
        if process in self.workers:
            self.workers.remove(process)

    def stop(self) -> None:
        """Stop everything."""
        for process in self.processes:
            with suppress(ProcessLookupError):
                os.killpg(process.pid, signal.SIGTERM)
        for process in self.processes:
            process.wait(60)
        # What one of them had started and left behind when it ended.
        for group in self._groups:
            with suppress(ProcessLookupError):
                os.killpg(group, signal.SIGKILL)

    def rows(self, query: str, *values: object) -> list[tuple[Any, ...]]:
        """Return what the database has."""
        with psycopg.connect(self.database) as connection:
            return connection.execute(query, values).fetchall()

    def execute(self, command: str) -> None:
        """Do something to the database."""
        with psycopg.connect(self.database, autocommit=True) as connection:
            connection.execute(command.encode())

    @contextmanager
    def holding(self, table: str) -> Iterator[None]:
        """Keep everybody from adding rows to a table meanwhile."""
        with psycopg.connect(self.database) as connection:
            connection.execute(f"LOCK TABLE {table} IN SHARE MODE".encode())
            yield

    def read(self, sha256: str) -> bytes:
        """Serve as the core's assets, out of the store."""
        return (self.folder / "files" / "content" / sha256[:2] / sha256).read_bytes()

    def document(self, key: str) -> dict[str, Any]:
        """Return the live set-up document of a product."""
        live = (
            "SELECT r.document FROM catalogue_product p JOIN catalogue_revision r ON r.id = p.live_id WHERE p.key = %s"
        )
        document: dict[str, Any] = self.rows(live, key)[0][0]
        return document

    def pages(self) -> dict[str, str]:
        """Return the addresses of the main pages into the demo data."""
        code = "import json; from demo.load import pages; print(json.dumps(pages('')))"
        found: dict[str, str] = json.loads(self.run("-c", code))
        return {name: self.url + address for name, address in found.items()}

    def start_web(self) -> None:
        """Start the web processes, at first or again."""
        self.start("web", *self._web)

    def answers(self) -> bool:
        """Tell whether the shop answers."""
        try:
            with urllib.request.urlopen(self.url, timeout=30) as answer:
                return bool(answer.status == 200)
        except OSError:
            return False
