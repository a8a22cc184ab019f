"""Assets: the SHA-256 of a picture or font comes in, its bytes go out."""

import hashlib
from collections.abc import Iterable
from pathlib import Path
from typing import Protocol

from yenzo.core.errors import AssetError


class Assets(Protocol):
    """Where the pictures and fonts of documents come from."""

    def read(self, sha256: str) -> bytes:
        """Return the content with this SHA-256; raises AssetError when it isn't there."""
        ...


class FolderAssets:
    """Assets in folders, found by content: a file may have any name. Each folder is hashed once, when first asked."""

    def __init__(self, folders: Iterable[Path]) -> None:
        self._folders = tuple(folders)
        self._paths: dict[str, Path] | None = None

    def read(self, sha256: str) -> bytes:
        """Return the content with this SHA-256; raises AssetError when no file has it."""
        if self._paths is None:
            self._paths = {
                hashlib.sha256(path.read_bytes()).hexdigest(): path
                for folder in self._folders
                if folder.is_dir()
                for path in sorted(folder.iterdir())
                if path.is_file()
            }
        path = self._paths.get(sha256)
        if path is None:
            raise AssetError("asset_missing", sha256, f"No file with the SHA-256 {sha256} lies beside the document.")
        return path.read_bytes()
