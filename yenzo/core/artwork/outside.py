"""Debian's converters, run inside the bounded process: a command comes in, what it wrote goes out."""

import resource
import subprocess

from yenzo.core.artwork.identify import damaged
from yenzo.core.errors import ArtworkError
from yenzo.core.speaking import say

MOST_WRITTEN_BYTES = 1_000_000_000


def run_tool(command: list[str], name: str, *, data: bytes | None = None, writes_files: bool = False) -> bytes:
    """Return what a converter writes; it inherits the bounds of this process. Raises ArtworkError when it fails."""
    try:
        done = subprocess.run(
            command,
            input=data,
            capture_output=True,
            check=False,
            preexec_fn=_let_write if writes_files else None,
            env={"PATH": "/usr/bin:/bin", "LC_ALL": "C.UTF-8", "HOME": "/nonexistent"},
        )
    except FileNotFoundError as error:
        message = say(
            "“{name}” can't be opened: {command} is missing here. “make setup” installs it.",
            name=name,
            command=command[0],
        )
        raise ArtworkError("tool_missing", name, message) from error
    if done.returncode < 0:
        message = say("“{name}” takes too much time or memory to open. Please save it smaller or simpler.", name=name)
        raise ArtworkError("too_heavy", name, message)
    if done.returncode:
        raise damaged(name)
    return done.stdout


def _let_write() -> None:
    resource.setrlimit(resource.RLIMIT_FSIZE, (MOST_WRITTEN_BYTES, MOST_WRITTEN_BYTES))
