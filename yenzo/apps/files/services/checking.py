"""The check of all files: every stored one is read and held against its row; what is wrong is told to staff."""

from datetime import datetime

from yenzo.apps.accounts.models import Role
from yenzo.apps.accounts.rights import SYSTEM, Actor, service
from yenzo.apps.files import blobs
from yenzo.apps.files.models import FileTrouble, NightlyRun, StoredFile


@service(Role.OWNER, SYSTEM)
def check_files(actor: Actor, now: datetime) -> NightlyRun:  # noqa: ARG001
    """Read every file; note what is missing or damaged, and what is whole again."""
    run = NightlyRun.objects.create(kind=NightlyRun.Kind.CHECK)
    counts = {"looked_at": 0, "wrong": 0}
    for stored in StoredFile.objects.order_by("pk").iterator(200):
        counts["looked_at"] += 1
        try:
            blobs.read(stored.path, stored.size_bytes, stored.sha256)
        except (blobs.DamagedFileError, OSError) as error:
            # It may have been cleared while we walked.
            if StoredFile.objects.filter(pk=stored.pk).exists():
                counts["wrong"] += 1
                FileTrouble.objects.get_or_create(file=stored, mended_at=None, defaults={"what": str(error)[:200]})
        else:
            stored.troubles.unresolved().update(mended_at=now)
    run.counts = counts
    run.save(update_fields=["counts"])
    return run
