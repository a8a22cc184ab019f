"""How much room is left: the disk and the workshop's own bound come in; whether more may be taken goes out."""

import shutil
from dataclasses import dataclass

from django.conf import settings
from django.core.cache import cache
from django.db.models import Sum

from yenzo.apps.files.models import StoredFile

LOOKED_AT_SECONDS = 30


@dataclass(frozen=True)
class DiskSpace:
    """Bytes that are kept, that may be kept in all, and that are free on the disk."""

    kept_bytes: int
    most_bytes: int
    free_bytes: int
    disk_bytes: int

    @property
    def is_low(self) -> bool:
        """Whether staff should do something about it soon."""
        return self.free_bytes < settings.LOW_DISK_BYTES or self.kept_bytes > 0.9 * self.most_bytes

    @property
    def takes_more(self) -> bool:
        """Whether customers' files can still be taken: orders and packs need what is left."""
        return self.free_bytes >= settings.LEAST_DISK_BYTES and self.kept_bytes < self.most_bytes


def disk_space() -> DiskSpace:
    """Return how much room there is, as it was some seconds ago at most."""
    found: DiskSpace | None = cache.get("files-disk-space")
    if found is None:
        disk = shutil.disk_usage(settings.FILES_ROOT)
        kept = StoredFile.objects.aggregate(bytes=Sum("size_bytes"))["bytes"] or 0
        found = DiskSpace(kept, settings.MOST_STORED_BYTES, disk.free, disk.total)
        cache.set("files-disk-space", found, LOOKED_AT_SECONDS)
    return found
