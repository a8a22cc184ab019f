"""Content-addressed files: bytes come in, a stored file goes out; and back."""

import hashlib

from django.core.files.base import ContentFile
from django.core.files.storage import default_storage

from yenzo.apps.catalogue.models import StoredFile
from yenzo.core.errors import AssetError


def store_file(data: bytes, *, is_public: bool = False) -> StoredFile:
    """Keep a file by its content; the same content is kept once."""
    sha256 = hashlib.sha256(data).hexdigest()
    path = f"content/{sha256[:2]}/{sha256}"
    if not default_storage.exists(path):
        # Two writers of the same content are harmless: the later one gets another name, and both hold the same.
        path = default_storage.save(path, ContentFile(data))
    stored, _ = StoredFile.objects.get_or_create(sha256=sha256, defaults={"size_bytes": len(data), "path": path})
    if is_public and not stored.is_public:
        stored.is_public = True
        stored.save(update_fields=["is_public"])
    return stored


class StoredAssets:
    """The core's assets out of the store. For server-side work only: it asks no rights."""

    def read(self, sha256: str) -> bytes:
        """Return the content with this SHA-256; raises AssetError when it isn't kept."""
        try:
            stored = StoredFile.objects.get(sha256=sha256)
            with default_storage.open(stored.path) as stream:
                return bytes(stream.read())
        except (StoredFile.DoesNotExist, FileNotFoundError) as error:
            raise AssetError(
                "asset_missing", sha256, f"The file {sha256[:12]}… isn't in the store any more."
            ) from error
