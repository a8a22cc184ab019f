"""Content-addressed files: bytes come in, a stored file goes out; and back."""

import hashlib

from django.db import transaction
from django.utils import timezone

from yenzo.apps.files import blobs
from yenzo.apps.files.models import StoredFile
from yenzo.core.errors import AssetError


def store_file(data: bytes, *, is_public: bool = False) -> StoredFile:
    """Keep a file by its content; the same content is kept once. Raises OSError when there is no room."""
    sha256 = hashlib.sha256(data).hexdigest()
    path = f"content/{sha256[:2]}/{sha256}"
    with transaction.atomic():
        # The row first: while it is held, the clearing can't take the bytes away again.
        values = {"kept_at": timezone.now(), **({"is_public": True} if is_public else {})}
        made = {**values, "size_bytes": len(data), "path": path}
        stored, _ = StoredFile.objects.update_or_create(sha256=sha256, defaults=values, create_defaults=made)
        blobs.put(stored.path, data, sha256)
    return stored


def read_stored(stored: StoredFile) -> bytes:
    """Return a stored file's bytes; raises AssetError when they are missing or not what was kept."""
    try:
        return blobs.read(stored.path, stored.size_bytes, stored.sha256)
    except blobs.DamagedFileError as error:
        raise AssetError(
            "asset_damaged",
            stored.sha256,
            f"The file {stored}… isn't in the store as it was kept ({error}). Please restore it from the backup.",
        ) from error


class StoredAssets:
    """The core's assets out of the store. For server-side work only: it asks no rights."""

    def read(self, sha256: str) -> bytes:
        """Return the content with this SHA-256; raises AssetError when it isn't kept, or isn't whole."""
        stored = StoredFile.objects.filter(sha256=sha256).first()
        if stored is None:
            raise AssetError("asset_missing", sha256, f"The file {sha256[:12]}… isn't in the store any more.")
        return read_stored(stored)
