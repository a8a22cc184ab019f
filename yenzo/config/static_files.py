"""Static files as browsers get them: a page's scripts in one, all small, under names that change with their content."""

import subprocess
import tempfile
from collections.abc import Iterator
from pathlib import Path
from typing import Any

from django.core.files.storage import FileSystemStorage
from whitenoise.storage import CompressedManifestStaticFilesStorage

ESBUILD = "/usr/bin/esbuild"
# What browsers of the last years understand.
TARGET = "es2022,chrome105,firefox110,safari16"


class NamedByContent(CompressedManifestStaticFilesStorage):  # type: ignore[misc]  # whitenoise says no types
    """As whitenoise has it, and each script of ours brings along what it imports.

    A page loads one script with all that shares a state: under the name of an import it would be loaded a second time.
    """

    def post_process(self, paths: dict[str, Any], dry_run: bool = False, **options: Any) -> Iterator[Any]:
        """Make scripts and stylesheets small before they get their names."""
        with tempfile.TemporaryDirectory(prefix="static-") as folder:
            if not dry_run:
                paths = {**paths, **self._made_small(paths, Path(folder))}
            yield from super().post_process(paths, dry_run=dry_run, **options)

    def _made_small(self, paths: dict[str, Any], folder: Path) -> dict[str, Any]:
        """Return the files of ours that are scripts or stylesheets, by their names, from where they are small."""
        ours = [name for name in paths if name.startswith(("js/", "css/"))]
        sources = [Path(storage.path(path)) for storage, path in (paths[name] for name in ours)]
        if not sources:
            return {}
        # Fonts and pictures that stylesheets name get their names afterwards.
        wanted = [
            "--bundle",
            "--minify",
            "--format=esm",
            "--external:*.woff2",
            "--external:*.svg",
            f"--target={TARGET}",
        ]
        base = sources[0].parent.parent
        command = [
            ESBUILD,
            *map(str, sources),
            *wanted,
            f"--outbase={base}",
            f"--outdir={folder}",
            "--log-level=warning",
        ]
        subprocess.run(command, check=True)
        small = FileSystemStorage(location=folder)
        return {name: (small, name) for name in ours}
