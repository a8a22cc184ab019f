"""What a job was promised to do: the ids of what waits come in; those that no job will do any more go out.

A job can fail for good in a moment when nobody can write that down (the database is away). What waits for it would wait
for ever, so each app looks after what it has waiting.
"""

from collections.abc import Iterable
from datetime import datetime, timedelta

from django.utils import timezone
from procrastinate.contrib.django.models import ProcrastinateJob

# Younger ones may have a job in a transaction that isn't over yet.
PATIENCE = timedelta(seconds=45)
TO_COME = ("todo", "doing")


def grace_cutoff() -> datetime:
    """Return the moment before which something must have begun to wait to be looked after."""
    return timezone.now() - PATIENCE


def without_job(task: str, argument: str, waiting: Iterable[object]) -> set[str]:
    """Return which of the ids no job of a task has as its argument any more."""
    ids = {str(one) for one in waiting}
    if not ids:
        return set()
    jobs = ProcrastinateJob.objects.filter(task_name=task, status__in=TO_COME)
    return ids - {str(arguments.get(argument)) for arguments in jobs.values_list("args", flat=True)}
