"""Inspecting outside files: a path comes in; facts and prepared pictures, or a refusal in words, go out.

Every decode happens in a process of its own, bounded in bytes, pixels, memory and seconds.
"""

import base64
import json
import logging
import subprocess
import sys
import tempfile
from pathlib import Path
from typing import Any

from yenzo.core.artwork.confinement import ENVIRONMENT, PACKAGE, confined
from yenzo.core.artwork.facts import ArtworkFacts, ArtworkLimits, Preparation, PreparedArtwork
from yenzo.core.artwork.identify import identify, too_many_bytes
from yenzo.core.errors import ArtworkError
from yenzo.core.translation import current_language, translate

logger = logging.getLogger(__name__)
MOST_TOLD = 2000
# Whoever types comes first.
POLITE = ("/usr/bin/nice", "-n", "10")


def inspect_artwork(
    path: Path, name: str | None = None, limits: ArtworkLimits | None = None, wanted: Preparation | None = None
) -> PreparedArtwork:
    """Look at an outside file and prepare it; raises ArtworkError, whatever the file does to its process."""
    name, limits = name or path.name, limits or ArtworkLimits()
    refuse_at_sight(path, name, limits)
    with tempfile.TemporaryDirectory(prefix="artwork-") as folder:
        request = {
            "path": str(path.resolve()),
            "name": name,
            "limits": limits.model_dump(),
            "wanted": (wanted or Preparation()).model_dump(),
            "folder": folder,
            "language": current_language(),
        }
        return _answer(_run_child(request, name, limits), name)


def refuse_at_sight(path: Path, name: str, limits: ArtworkLimits) -> None:
    """Raise ArtworkError for a file whose size or first bytes tell that it can't be used: that needs no process."""
    try:
        size = path.stat().st_size
        if size > limits.most_bytes:
            raise too_many_bytes(name, size, limits.most_bytes)
        with path.open("rb") as stream:
            identify(stream.read(1_000_000), name, limits)
    except OSError as error:
        raise ArtworkError(
            "unreadable", name, translate("“{name}” can't be read: {strerror}.", name=name, strerror=error.strerror)
        ) from error


def _run_child(request: dict[str, Any], name: str, limits: ArtworkLimits) -> bytes:
    child = [sys.executable, "-m", "yenzo.core.artwork.child"]
    try:
        done = subprocess.run(
            [*POLITE, *confined(child, reads=Path(request["path"]), writes=Path(request["folder"]))],
            input=json.dumps(request).encode(),
            capture_output=True,
            env=ENVIRONMENT,
            cwd=PACKAGE.parent,
            # Its processor time is bounded from inside; on a busy machine that may take longer by the clock.
            timeout=4 * limits.most_seconds,
            check=False,
        )
    except subprocess.TimeoutExpired as error:
        raise _gave_up(name) from error
    if done.returncode:
        logger.warning("Opening a file ended with %s: %s", done.returncode, _told(done.stderr))
        raise _gave_up(name)
    if done.stderr:
        logger.info("Opening a file said: %s", _told(done.stderr))
    return done.stdout


def _told(written: bytes) -> str:
    return written[-MOST_TOLD:].decode(errors="replace").strip()


def _gave_up(name: str) -> ArtworkError:
    message = translate(
        "“{name}” takes too much time or memory to open. Please save it smaller or in another kind.", name=name
    )
    return ArtworkError("too_heavy", name, message)


def _answer(output: bytes, name: str) -> PreparedArtwork:
    answer = json.loads(output)
    if "message" in answer:
        raise ArtworkError(answer["code"], name, answer["message"])
    return PreparedArtwork(
        facts=ArtworkFacts.model_validate(answer["facts"]),
        prepared=base64.b64decode(answer["prepared"]),
        shown=base64.b64decode(answer["shown"]),
    )
