"""A worker that outlives its database: jobs come in; it ends when it is told to, and for no other reason.

Usage: python -m yenzo.config.worker [--queues NAME,NAME]
When the database restarts, or has forgotten a worker that was paused for long, it connects and registers anew. Jobs
that were under way then are rescued by whoever looks first (`yenzo/config/jobs.py`): each may run twice.
"""

import argparse
import asyncio
import logging
import os
import signal
from collections.abc import Callable
from typing import Any

import django
from django.conf import settings
from django.db import close_old_connections, connections

from yenzo.core.artwork.confinement import is_confined

logger = logging.getLogger(__name__)
FIRST_WAIT_SECONDS, LONGEST_WAIT_SECONDS = 0.5, 10.0
# A worker that ran for so long was well: what ended it is no reason to wait longer than the first time.
WELL_SECONDS = 30.0


def main() -> None:
    """Work until SIGTERM or SIGINT; the job under way is finished first."""
    options = argparse.ArgumentParser(description=__doc__)
    options.add_argument("--queues", default="")
    queues = [name for name in options.parse_args().queues.split(",") if name]
    os.environ.setdefault("DJANGO_SETTINGS_MODULE", "yenzo.config.settings")
    django.setup()
    # Whoever types comes first: packs are drawn with what processor time pages leave.
    os.nice(settings.WORKER_NICENESS)
    if not is_confined():
        logger.warning("Customers' files can't be confined here (bubblewrap or the kernel): only bounds remain.")
    asyncio.run(_work(queues or None))


async def _work(queues: list[str] | None) -> None:
    loop, asked = asyncio.get_running_loop(), asyncio.Event()
    for number in (signal.SIGTERM, signal.SIGINT):
        loop.add_signal_handler(number, asked.set)
    wait = FIRST_WAIT_SECONDS
    while not asked.is_set():
        began = loop.time()
        try:
            await _work_once(queues, asked)
        except Exception:
            logger.exception("The worker lost its footing and begins anew")
        if loop.time() - began > WELL_SECONDS:
            wait = FIRST_WAIT_SECONDS
        if not asked.is_set():
            _, waiting = await asyncio.wait([asyncio.create_task(asked.wait())], timeout=wait)
            for task in waiting:
                task.cancel()
            wait = min(2 * wait, LONGEST_WAIT_SECONDS)


async def _work_once(queues: list[str] | None, asked: asyncio.Event) -> None:
    """Be one worker, until it is asked to stop or something fails; raises whatever did."""
    # Only now: it needs the apps to be there.
    from procrastinate.contrib.django import app

    # What failed may have left connections behind: each life has its own.
    with app.replace_connector(app.connector.get_worker_connector()) as own:
        async with own.open_async():
            working = asyncio.create_task(
                own.run_worker_async(
                    queues=queues, concurrency=1, install_signal_handlers=False, task_middleware=[_with_connection]
                )
            )
            stop = asyncio.create_task(asked.wait())
            await asyncio.wait([working, stop], return_when=asyncio.FIRST_COMPLETED)
            stop.cancel()
            if asked.is_set() and not working.done():
                # It finishes the job under way, then ends.
                working.cancel()
            try:
                await working
            except asyncio.CancelledError:
                if not asked.is_set():
                    raise


def _with_connection(call_next: Callable[[], Any], context: Any, worker: Any) -> Any:  # noqa: ARG001 - its signature
    """Run a job with a connection to the database that is alive, and give it back afterwards."""
    close_old_connections()
    try:
        return call_next()
    finally:
        connections.close_all()


if __name__ == "__main__":
    main()
