"""The kind of an outside file by its first bytes, never by its name: bytes come in, a kind or a refusal goes out."""

import re

from yenzo.core.artwork.facts import ArtworkLimits
from yenzo.core.errors import ArtworkError
from yenzo.core.translation import decimal, translate, translate_noop, translate_plural

TAKEN = translate_noop("PNG, JPEG, WebP, TIFF and HEIC pictures and SVG and PDF drawings can be used")
SIGNATURES: tuple[tuple[bytes, str], ...] = (
    (b"\x89PNG\r\n\x1a\n", "png"),
    (b"\xff\xd8\xff", "jpeg"),
    (b"II*\x00", "tiff"),
    (b"MM\x00*", "tiff"),
    (b"%PDF-", "pdf"),
    (b"GIF8", "GIF"),
    (b"BM", "BMP"),
    (b"PK\x03\x04", "ZIP"),
    (b"8BPS", translate_noop("layered picture")),
    (b"%!PS", "PostScript"),
    (b"\x1f\x8b", translate_noop("compressed (SVGZ)")),
    (b"\x00\x01\x00\x00", translate_noop("font")),
    (b"OTTO", translate_noop("font")),
    (b"ttcf", translate_noop("font")),
    (b"wOFF", translate_noop("font")),
    (b"wOF2", translate_noop("font")),
)
USED = frozenset({"png", "jpeg", "tiff", "pdf"})
# The brands of ISO 23008-12 that photos come in; AVIF (ISO 23000-22) is another coding.
HEIC_BRANDS = frozenset({b"heic", b"heix", b"heim", b"heis", b"mif1"})
XML_STARTS = ("<?xml", "<svg", "<!--", "<!doctype svg")
# What a second file hides behind in a picture: a PDF's first bytes, the end of a ZIP, a web page's script.
PDF_START, ZIP_END, ZIP_TAIL = b"%PDF-", b"PK\x05\x06", 65_557
WEB_PAGE = re.compile(rb"<script\b|<\?php|<!doctype html|<html\b", re.I)


def identify(data: bytes, name: str, limits: ArtworkLimits) -> str:
    """Return "png", "jpeg", "webp", "tiff", "heic", "svg" or "pdf" by a file's beginning; raises ArtworkError."""
    kind = _kind(data, name, limits)
    if limits.kinds and kind not in limits.kinds:
        raise _wrong_kind(name, translate("is a {kind} file", kind=kind.upper()), limits)
    return kind


def _kind(data: bytes, name: str, limits: ArtworkLimits) -> str:
    if not data:
        raise ArtworkError(
            "empty", name, translate("“{name}” is empty (0 bytes). Please pick the file again.", name=name)
        )
    if len(data) > limits.most_bytes:
        raise too_many_bytes(name, len(data), limits.most_bytes)
    for signature, kind in SIGNATURES:
        if data.startswith(signature):
            if kind in USED:
                return kind
            raise _wrong_kind(name, translate("is a {kind} file", kind=translate(kind)), limits)
    if data[:4] == b"RIFF" and data[8:12] == b"WEBP":
        return "webp"
    if data[4:8] == b"ftyp":
        if data[8:12] in HEIC_BRANDS:
            return "heic"
        what = translate("is an AVIF picture") if data[8:12] == b"avif" else translate("is a film")
        raise _wrong_kind(name, what, limits)
    if _looks_like_svg(data[:4096]):
        return "svg"
    raise _wrong_kind(name, translate("is not a picture, whatever its name says"), limits)


def _looks_like_svg(start: bytes) -> bool:
    encoding = "utf-16" if start[:2] in {b"\xff\xfe", b"\xfe\xff"} else "utf-8-sig"
    text = start.decode(encoding, errors="replace").lstrip().lower()
    return text.startswith(XML_STARTS) and "<svg" in text


def refuse_two_in_one(data: bytes, kind: str, name: str) -> None:
    """Raise ArtworkError for a picture that is another kind of file as well: originals are handed on."""
    if kind in {"svg", "pdf"}:
        return
    found = None
    if PDF_START in data[:1024]:
        found = translate("a PDF file")
    elif WEB_PAGE.search(data):
        found = translate("a web page")
    else:
        at = data.rfind(ZIP_END, max(0, len(data) - ZIP_TAIL))
        # The end record is 22 bytes and a comment whose length it tells (APPNOTE, 4.3.16).
        if at >= 0 and at + 22 + int.from_bytes(data[at + 20 : at + 22], "little") == len(data):
            found = translate("a ZIP file")
    if found:
        message = translate(
            "“{name}” is a picture and {found} in one. Please open it and save it anew as a picture.",
            name=name,
            found=found,
        )
        raise ArtworkError("two_in_one", name, message)


def too_many_bytes(name: str, size: int, most: int) -> ArtworkError:
    """Return the refusal of a file that is too large."""
    message = translate(
        "“{name}” has {size} MB; at most {most} MB can be taken. Please save it smaller, for example as a JPEG.",
        name=name,
        size=decimal(size / 1000000.0, 1),
        most=decimal(most / 1000000.0),
    )
    return ArtworkError("too_many_bytes", name, message)


def no_such_page(name: str, pages: int) -> ArtworkError:
    """Return the refusal of a page that a file hasn't."""
    message = translate_plural(
        "“{name}” has only one page. Please choose another one.",
        "“{name}” has only {count} pages. Please choose another one.",
        pages,
        name=name,
    )
    return ArtworkError("no_such_page", name, message)


def damaged(name: str) -> ArtworkError:
    """Return the refusal of a file that ends too early or contradicts itself."""
    message = translate("“{name}” is damaged or cut off and can't be opened. Please save or send it again.", name=name)
    return ArtworkError("damaged", name, message)


def unsafe(name: str, what: str, remedy: str) -> ArtworkError:
    """Return the refusal of a drawing that does more than draw."""
    return ArtworkError(
        "unsafe",
        name,
        translate("“{name}” can't be opened safely: {what}. {remedy}", name=name, what=what, remedy=remedy),
    )


def too_much_work(name: str) -> ArtworkError:
    """Return the refusal of a drawing that would take too long to be drawn."""
    message = translate(
        "“{name}” has effects (blurs, filters, patterns) that take too long to draw. "
        "Please turn them into a picture in your drawing program, or leave them out.",
        name=name,
    )
    return ArtworkError("too_heavy", name, message)


def _wrong_kind(name: str, what: str, limits: ArtworkLimits) -> ArtworkError:
    wanted = ", ".join(kind.upper() for kind in limits.kinds)
    taken = translate("Here, {kinds} can be used", kinds=wanted) if wanted else translate(TAKEN)
    return ArtworkError(
        "wrong_kind",
        name,
        translate("“{name}” {what}. {taken}; please save it as one of these.", name=name, what=what, taken=taken),
    )
