"""Clearing: what has been kept long enough goes, kind by kind, and at the end the files that nothing points to."""

import contextlib
from datetime import datetime, timedelta
from pathlib import Path

from django.conf import settings
from django.core.files.storage import default_storage
from django.db import IntegrityError, transaction
from django.db.models import ProtectedError

from yenzo.apps.accounts.models import Role
from yenzo.apps.accounts.rights import SYSTEM, Actor, service
from yenzo.apps.files import blobs
from yenzo.apps.files.interface import KINDS, REFERENCES, RetainedKind
from yenzo.apps.files.models import NightlyRun, StoredFile
from yenzo.apps.workshop.current import kept_days

# What a process was writing when it died, and uploads whose request never ended.
LEFT_BEHIND = (f"content/*/{blobs.PART}*", "*.upload.*")


@service(Role.OWNER, SYSTEM)
def clear_old(actor: Actor, now: datetime) -> NightlyRun:  # noqa: ARG001
    """Clear all kinds, each by its own days; return the run with the counts of what went."""
    run = NightlyRun.objects.create(kind=NightlyRun.Kind.CLEARING)
    # Files last: what was just cleared no longer points to them.
    for kind in sorted(KINDS.values(), key=lambda kind: kind.key == UNUSED_FILES.key):
        run.counts[kind.key] = kind.clear(now - timedelta(days=days_of(kind)))
        run.save(update_fields=["counts"])
    return run


def days_of(kind: RetainedKind) -> int:
    """Return for how many days a kind is kept."""
    return kept_days(kind.key)


def _unused(before: datetime) -> list[str]:
    held = {sha256 for hashes in REFERENCES.values() for sha256 in hashes()}
    old = StoredFile.objects.filter(kept_at__lt=before).values_list("pk", flat=True)
    return [sha256 for sha256 in old.iterator(2000) if sha256 not in held]


def _clear_unused(before: datetime) -> int:
    count = 0
    for sha256 in _unused(before):
        # Somebody may begin to point to it just now: then it stays.
        with contextlib.suppress(ProtectedError, IntegrityError), transaction.atomic():
            # Whoever keeps the same content meanwhile waits here, and then keeps it anew.
            row = StoredFile.objects.select_for_update().filter(pk=sha256, kept_at__lt=before).first()
            if row is not None:
                path = row.path
                row.delete()
                default_storage.delete(path)
                count += 1
    return count


def _left_behind(before: datetime) -> list[Path]:
    found = (path for pattern in LEFT_BEHIND for path in Path(settings.FILES_ROOT).glob(pattern))
    return [path for path in found if path.stat().st_mtime < before.timestamp()]


def _clear_left_behind(before: datetime) -> int:
    found = _left_behind(before)
    for path in found:
        path.unlink(missing_ok=True)
    return len(found)


UNUSED_FILES = RetainedKind(
    "unused_files", "Files that nothing points to", lambda before: len(_unused(before)), _clear_unused
)
PARTS = RetainedKind(
    "parts",
    "Parts of files whose writing was broken off",
    lambda before: len(_left_behind(before)),
    _clear_left_behind,
)
