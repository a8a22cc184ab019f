"""Confinement of what opens outside files: a command and what it may see come in, a command that sees no more goes out.

By bubblewrap (user, network and process namespaces of Linux) where the kernel allows it. Programs of the system can be
read, one file can be read, one folder can be written; there is no network, no other process, no other file.
"""

import subprocess
import sys
from functools import lru_cache
from pathlib import Path

import yenzo

BWRAP = "/usr/bin/bwrap"
PACKAGE = Path(yenzo.__file__).resolve().parent
# What programs of Debian need: themselves, their libraries, and where fonts and alternatives are looked up.
SYSTEM = ("/usr", "/lib", "/lib64", "/bin", "/etc/alternatives", "/etc/fonts", "/etc/ld.so.cache")
# Secrets of the program that starts it stay out: nothing else is told.
ENVIRONMENT = {"PATH": "/usr/bin:/bin", "LC_ALL": "C.UTF-8", "HOME": "/nonexistent", "PYTHONDONTWRITEBYTECODE": "1"}
PROBE_SECONDS = 10


def confined(command: list[str], *, reads: Path, writes: Path) -> list[str]:
    """Return the command with bubblewrap before it; as it is where that doesn't work (`is_confined` tells)."""
    if not is_confined():
        return command
    return [*_walls(), "--ro-bind", str(reads), str(reads), "--bind", str(writes), str(writes), *command]


@lru_cache(maxsize=1)
def is_confined() -> bool:
    """Tell whether commands can be confined here: bubblewrap is installed and the kernel lets it work."""
    try:
        tried = subprocess.run(
            [*_walls(), sys.executable, "-c", ""],
            env=ENVIRONMENT,
            cwd=PACKAGE.parent,
            stdin=subprocess.DEVNULL,
            capture_output=True,
            timeout=PROBE_SECONDS,
            check=False,
        )
    except (OSError, subprocess.TimeoutExpired):
        return False
    return tried.returncode == 0


@lru_cache(maxsize=1)
def _walls() -> tuple[str, ...]:
    own = dict.fromkeys((*SYSTEM, sys.prefix, sys.base_prefix, str(PACKAGE)))
    seen = [part for place in own for part in ("--ro-bind-try", place, place)]
    alone = ("--unshare-all", "--die-with-parent", "--new-session")
    return (BWRAP, *alone, "--proc", "/proc", "--dev", "/dev", "--tmpfs", "/tmp", *seen, "--chdir", str(PACKAGE.parent))
