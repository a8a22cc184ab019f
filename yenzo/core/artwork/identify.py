"""The kind of an outside file by its first bytes, never by its name: bytes come in, a kind or a refusal goes out."""

import re

from yenzo.core.artwork.facts import ArtworkLimits
from yenzo.core.errors import ArtworkError

TAKEN = "PNG, JPEG and WebP pictures can be used"
SIGNATURES: tuple[tuple[bytes, str], ...] = (
    (b"\x89PNG\r\n\x1a\n", "png"),
    (b"\xff\xd8\xff", "jpeg"),
    (b"%PDF-", "PDF"),
    (b"GIF8", "GIF"),
    (b"II*\x00", "TIFF"),
    (b"MM\x00*", "TIFF"),
    (b"BM", "BMP"),
    (b"PK\x03\x04", "ZIP"),
    (b"8BPS", "layered picture"),
    (b"\x00\x01\x00\x00", "font"),
    (b"OTTO", "font"),
    (b"wOFF", "font"),
    (b"wOF2", "font"),
)
# What makes a drawing unsafe to open, each with the words for it.
SVG_DANGERS: tuple[tuple[re.Pattern[bytes], str], ...] = (
    (re.compile(rb"<\s*(\w+:)?script|\bon[a-z]+\s*=", re.I), "it has a script inside"),
    (re.compile(rb"<!entity", re.I), "it defines entities"),
    (
        re.compile(rb"(href|src)\s*=\s*[\"']\s*(?!#|data:)[^\"'\s]|url\(\s*[\"']?\s*(?!#|data:)\w", re.I),
        "it points to files elsewhere",
    ),
)


def identify(data: bytes, name: str, limits: ArtworkLimits) -> str:
    """Return "png", "jpeg" or "webp"; raises ArtworkError for anything else, naming what it is."""
    if not data:
        raise ArtworkError("empty", name, f"“{name}” is empty (0 bytes). Please pick the file again.")
    if len(data) > limits.most_bytes:
        raise too_many_bytes(name, len(data), limits.most_bytes)
    for signature, kind in SIGNATURES:
        if data.startswith(signature):
            if kind in {"png", "jpeg"}:
                return kind
            raise _wrong_kind(name, f"is a {kind} file")
    if data[:4] == b"RIFF" and data[8:12] == b"WEBP":
        return "webp"
    if data[4:12] in {b"ftypheic", b"ftypheix", b"ftypmif1", b"ftypavif"}:
        raise _wrong_kind(name, "is a HEIC or AVIF photo")
    if b"<svg" in data[:4096].lower():
        raise _refuse_svg(data, name)
    raise _wrong_kind(name, "is not a picture, whatever its name says")


def too_many_bytes(name: str, size: int, most: int) -> ArtworkError:
    """Return the refusal of a file that is too large."""
    message = (
        f"“{name}” has {size / 1e6:.1f} MB; at most {most / 1e6:g} MB can be taken. "
        "Please save it smaller, for example as a JPEG."
    )
    return ArtworkError("too_many_bytes", name, message)


def _wrong_kind(name: str, what: str) -> ArtworkError:
    return ArtworkError("wrong_kind", name, f"“{name}” {what}. {TAKEN}; please save it as one of these.")


def _refuse_svg(data: bytes, name: str) -> ArtworkError:
    dangers = [words for pattern, words in SVG_DANGERS if pattern.search(data)]
    if dangers:
        said = " and ".join(dangers)
        message = f"“{name}” is an SVG drawing that can't be opened safely: {said}. {TAKEN}; please export it as a PNG."
        return ArtworkError("unsafe", name, message)
    return _wrong_kind(name, "is an SVG drawing; drawings can't be taken yet")
