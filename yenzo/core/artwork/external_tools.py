"""Debian's converters, run inside the bounded process: a command comes in, what it wrote goes out."""

import math
import resource
import subprocess
import sys

from yenzo.core.artwork.confinement import ENVIRONMENT
from yenzo.core.artwork.identify import damaged
from yenzo.core.errors import ArtworkError
from yenzo.core.translation import translate

MOST_WRITTEN_BYTES, MOST_TOLD = 1_000_000_000, 1000
SELF, CHILDREN = resource.RUSAGE_SELF, resource.RUSAGE_CHILDREN


def run_tool(command: list[str], name: str, *, data: bytes | None = None, writes_files: bool = False) -> bytes:
    """Return what a converter writes; it inherits the bounds of this process. Raises ArtworkError when it fails."""
    try:
        done = subprocess.run(
            command,
            input=data,
            capture_output=True,
            check=False,
            preexec_fn=lambda: _bound(writes_files=writes_files),
            env=ENVIRONMENT,
        )
    except FileNotFoundError as error:
        message = translate(
            "“{name}” can't be opened: {command} is missing here. “make setup” installs it.",
            name=name,
            command=command[0],
        )
        raise ArtworkError("tool_missing", name, message) from error
    if done.returncode < 0:
        message = translate(
            "“{name}” takes too much time or memory to open. Please save it smaller or simpler.", name=name
        )
        raise ArtworkError("too_heavy", name, message)
    if done.returncode:
        sys.stderr.write(f"{command[0]}: {done.stderr[-MOST_TOLD:].decode(errors='replace')}\n")
        raise damaged(name)
    return done.stdout


def _bound(*, writes_files: bool) -> None:
    if writes_files:
        resource.setrlimit(resource.RLIMIT_FSIZE, (MOST_WRITTEN_BYTES, MOST_WRITTEN_BYTES))
    # The bound is for a file, whatever opens it: each program gets what those before it have left.
    _, most = resource.getrlimit(resource.RLIMIT_CPU)
    if most != resource.RLIM_INFINITY:
        used = sum(resource.getrusage(who)[0] + resource.getrusage(who)[1] for who in (SELF, CHILDREN))
        left = max(1, most - math.ceil(used))
        resource.setrlimit(resource.RLIMIT_CPU, (left, left))
