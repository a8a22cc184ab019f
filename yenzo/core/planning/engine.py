"""Which engine made a file: the core's version and the libraries that decide geometry and bytes."""

import hashlib
from functools import lru_cache
from importlib.metadata import version

from yenzo.core import CORE_VERSION

LIBRARIES = (
    "uharfbuzz",
    "pyicu-wheels",
    "numpy",
    "pikepdf",
    "pypdfium2",
    "pillow",
    "segno",
    "babel",
    "pydantic",
)


@lru_cache(maxsize=1)
def engine_id() -> str:
    """Return a short hash of everything that can change the bytes of a pack."""
    parts = [f"core {CORE_VERSION}", *(f"{name} {version(name)}" for name in LIBRARIES)]
    return hashlib.sha256("\n".join(parts).encode()).hexdigest()[:16]
