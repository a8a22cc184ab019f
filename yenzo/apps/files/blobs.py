"""Bytes on disk or in an object store, whole or not at all: a path and bytes go in; what is read back is checked."""

import hashlib
import os
import secrets
from pathlib import Path

from django.core.files.base import ContentFile
from django.core.files.storage import FileSystemStorage, default_storage

from yenzo.apps.pages.errors import AppError

# A file that is still being written; what carries this name for long was left behind by a process that died.
PART = ".part-"


class DamagedFileError(AppError):
    """A file isn't what its row says: it is missing, cut short, or has other bytes."""


def put(path: str, data: bytes, sha256: str) -> None:
    """Keep bytes under a path, or leave that path as it was; raises OSError when there is no room for them.

    A file that lies there already counts only when its bytes are right: half of one is written anew.
    """
    if holds(path, len(data), sha256):
        return
    if isinstance(default_storage, FileSystemStorage):
        _put_in_folder(Path(default_storage.path(path)), data, sha256)
    else:
        _put_object(path, data, sha256)


def holds(path: str, size_bytes: int, sha256: str) -> bool:
    """Tell whether the right bytes lie under a path."""
    try:
        read(path, size_bytes, sha256)
    except DamagedFileError:
        return False
    return True


def read(path: str, size_bytes: int, sha256: str) -> bytes:
    """Return the bytes under a path; raises DamagedFileError when they aren't those of this size and SHA-256."""
    try:
        with default_storage.open(path) as stream:
            data = bytes(stream.read())
    except FileNotFoundError as error:
        raise DamagedFileError("missing") from error
    if len(data) != size_bytes:
        raise DamagedFileError(f"{len(data)} of {size_bytes} bytes")
    if hashlib.sha256(data).hexdigest() != sha256:
        raise DamagedFileError("other bytes")
    return data


def _put_in_folder(path: Path, data: bytes, sha256: str) -> None:
    path.parent.mkdir(parents=True, exist_ok=True)
    # On the same file system, so that the name changes in one step.
    part = path.with_name(f"{PART}{path.name[:12]}-{secrets.token_hex(6)}")
    try:
        with part.open("xb") as stream:
            stream.write(data)
            stream.flush()
            os.fsync(stream.fileno())
        written = part.read_bytes()
        if len(written) != len(data) or hashlib.sha256(written).hexdigest() != sha256:
            raise OSError(f"{len(written)} of {len(data)} bytes arrived in {part.name}")
        part.replace(path)
    finally:
        part.unlink(missing_ok=True)
    _sync_folder(path.parent)


def _sync_folder(folder: Path) -> None:
    descriptor = os.open(folder, os.O_RDONLY)
    try:
        os.fsync(descriptor)
    finally:
        os.close(descriptor)


def _put_object(path: str, data: bytes, sha256: str) -> None:
    # Object stores take an object whole or not at all; what came of it is looked at all the same.
    default_storage.delete(path)
    kept = default_storage.save(path, ContentFile(data))
    if kept != path or not holds(path, len(data), sha256):
        default_storage.delete(kept)
        raise OSError(f"The store did not keep {path} as it was sent.")
