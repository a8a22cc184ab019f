"""Jobs: what every worker does beside the apps' own jobs."""

import contextlib
from typing import Any

from django.conf import settings
from procrastinate.exceptions import ConnectorException


def on_app_ready(app: Any) -> None:
    """Add the rescue of jobs whose worker died: they run again on another worker (all our jobs are idempotent)."""

    @app.periodic(cron="* * * * * */10")
    @app.task(queueing_lock="rescue_jobs", pass_context=True)
    async def rescue_jobs(_context: Any, timestamp: int) -> None:  # noqa: ARG001 - periodic tasks get their time
        manager = app.job_manager
        stalled = await manager.get_stalled_jobs(seconds_since_heartbeat=settings.WORKER_SILENCE_SECONDS)
        for job in stalled:
            # Another worker may have been quicker, or the job may have ended just now.
            with contextlib.suppress(ConnectorException):
                await manager.retry_job(job)
