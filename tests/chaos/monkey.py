"""What goes wrong in a chaos run: workers are killed, the database restarts, the disk fills, clocks jump, lines break."""

import contextlib
import os
import random
import resource
import signal
import socket
import subprocess
import time
from collections.abc import Callable
from typing import Any

from demo.installation import Installation

WORKERS = ("default", "default", "artwork")
FULL_BYTES = 40_000
CLOCK = "/usr/bin/faketime"


class Monkey:
    """Breaks one thing after another, and starts again what a supervisor would."""

    def __init__(self, installation: Installation, cluster: Any, seed: int) -> None:
        self._installation = installation
        self._cluster = cluster
        self._chance = random.Random(seed)
        self.done: dict[str, int] = {}

    def torment(self, until: float, pause_seconds: float) -> None:
        """Break something every now and then until the time is over; then let everything be well."""
        tricks: tuple[Callable[[], None], ...] = (
            self.kill_a_worker,
            self.pause_a_worker,
            self.restart_the_database,
            self.cut_connections,
            self.fill_the_disk,
            self.break_a_line,
            self.let_a_clock_jump,
            self.kill_a_web_process,
        )
        round_of = self._chance.sample(tricks, len(tricks))
        while time.monotonic() < until:
            trick = round_of.pop() if round_of else self._chance.choice(tricks)
            trick()
            self.done[trick.__name__] = self.done.get(trick.__name__, 0) + 1
            time.sleep(pause_seconds)
            self.supervise()
        self.supervise()

    def supervise(self) -> None:
        """Start again what ended, as the demo and the units do."""
        self._cluster.revive()
        for worker in [one for one in self._installation.workers if one.poll() is not None]:
            self._installation.workers.remove(worker)
            self._installation.processes.remove(worker)
        running = [self._queue_of(worker.args) for worker in self._installation.workers]
        for queue in WORKERS:
            if queue in running:
                running.remove(queue)
            else:
                self._installation.start_worker(queue)

    def kill_a_worker(self) -> None:
        """Kill a worker in the middle of whatever it does."""
        self._installation.kill(self._chance.choice(self._installation.workers))

    def pause_a_worker(self) -> None:
        """Stop a worker for a while; meanwhile it may be taken for dead."""
        worker = self._chance.choice(self._installation.workers)
        os.killpg(worker.pid, signal.SIGSTOP)
        # It may have been stopped in the middle of writing to its row: nobody waits for that.
        with contextlib.suppress(Exception):
            self._installation.execute("SET lock_timeout = '1s'; DELETE FROM procrastinate_workers")
        time.sleep(1)
        with contextlib.suppress(ProcessLookupError):
            os.killpg(worker.pid, signal.SIGCONT)

    def restart_the_database(self) -> None:
        """Stop PostgreSQL as an upgrade does, and start it again."""
        self._cluster.stop()
        time.sleep(self._chance.random())
        self._cluster.revive()

    def cut_connections(self) -> None:
        """End all connections to the database."""
        with contextlib.suppress(Exception):
            self._installation.execute(
                "SELECT pg_terminate_backend(pid) FROM pg_stat_activity WHERE datname = 'story' AND pid <> pg_backend_pid()"
            )

    def fill_the_disk(self) -> None:
        """Let no process write more than a part of a file, for a while."""
        pids = self._all_pids()
        for pid in pids:
            _bound(pid, FULL_BYTES)
        time.sleep(2)
        for pid in pids:
            _bound(pid, resource.RLIM_INFINITY)

    def break_a_line(self) -> None:
        """Send half a request and go away."""
        port = int(self._installation.url.rsplit(":", 1)[1])
        for begun in (b"GET / HT", b"POST /checkout/ HTTP/1.1\r\nHost: 127.0.0.1\r\nContent-Length: 900\r\n\r\nname="):
            with socket.create_connection(("127.0.0.1", port), 5) as line:
                line.sendall(begun)

    def let_a_clock_jump(self) -> None:
        """Have a worker whose clock is wrong by some minutes, either way."""
        self.kill_a_worker()
        minutes = self._chance.choice((-3, 2))
        command = (CLOCK, "-f", f"{minutes:+d}m", *self._installation.worker_command("default"))
        self._installation.workers.append(self._installation.start("worker-clock", *command))

    def kill_a_web_process(self) -> None:
        """Kill one of the web processes; gunicorn starts another."""
        web = next(process for process in self._installation.processes if "gunicorn" in str(process.args))
        done = subprocess.run(["pgrep", "-P", str(web.pid)], capture_output=True, text=True, check=False)
        if pids := done.stdout.split():
            os.kill(int(self._chance.choice(pids)), signal.SIGKILL)

    def _all_pids(self) -> list[int]:
        """Return the processes that write files, but for the front door's and the database's."""
        roots = [process.pid for process in self._installation.processes if "nginx" not in str(process.args)]
        found = []
        while roots:
            pid = roots.pop()
            found.append(pid)
            done = subprocess.run(["pgrep", "-P", str(pid)], capture_output=True, text=True, check=False)
            roots += map(int, done.stdout.split())
        return found

    def _queue_of(self, arguments: Any) -> str:
        return str(arguments[-1])


def _bound(pid: int, most_bytes: int) -> None:
    with contextlib.suppress(ProcessLookupError):
        _, hard = resource.prlimit(pid, resource.RLIMIT_FSIZE)
        resource.prlimit(pid, resource.RLIMIT_FSIZE, (most_bytes, hard))
