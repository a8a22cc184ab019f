"""What is kept for a while and belongs to no other app: sessions, jobs that ended, files that nothing points to."""

from datetime import datetime

from django.contrib.sessions.models import Session
from django.db import connection

from yenzo.apps.accounts.models import RateCounter
from yenzo.apps.files.interface import RetainedKind, register_retention
from yenzo.apps.files.models import NightlyRun
from yenzo.apps.files.services.clearing import PARTS, UNUSED_FILES

ENDED_JOBS = (
    "FROM procrastinate_jobs j WHERE j.status IN ('succeeded', 'cancelled', 'aborted') AND NOT EXISTS "
    "(SELECT FROM procrastinate_events e WHERE e.job_id = j.id AND e.at >= %s)"
)


def _ended_sessions(before: datetime) -> int:
    return Session.objects.filter(expire_date__lt=before).count()


def _clear_sessions(before: datetime) -> int:
    return Session.objects.filter(expire_date__lt=before).delete()[0]


def _ended_jobs(before: datetime) -> int:
    with connection.cursor() as cursor:
        cursor.execute(f"SELECT count(*) {ENDED_JOBS}", [before])
        return int(cursor.fetchone()[0])


def _clear_jobs(before: datetime) -> int:
    with connection.cursor() as cursor:
        cursor.execute(f"DELETE {ENDED_JOBS}", [before])
        return int(cursor.rowcount)


def _old_runs(before: datetime) -> int:
    return NightlyRun.objects.filter(began_at__lt=before).count()


def _clear_runs(before: datetime) -> int:
    return NightlyRun.objects.filter(began_at__lt=before).delete()[0]


def _ended_counts(before: datetime) -> int:
    return RateCounter.objects.filter(ends_at__lt=before).count()


def _clear_counts(before: datetime) -> int:
    return RateCounter.objects.filter(ends_at__lt=before).delete()[0]


def register() -> None:
    """Say what is kept for a while."""
    register_retention(
        RetainedKind("sessions", "Visitors' sessions that have expired", _ended_sessions, _clear_sessions),
        RetainedKind("counts", "Counts of what was done how often, for the limits", _ended_counts, _clear_counts),
        RetainedKind("jobs", "Jobs that ended well", _ended_jobs, _clear_jobs),
        RetainedKind("runs", "Records of checks and clearings", _old_runs, _clear_runs),
        PARTS,
        UNUSED_FILES,
    )
