"""Whether a PDF may be opened: bytes come in, one of its pages as a file of its own, or a refusal in words."""

import io
from collections.abc import Iterator
from dataclasses import dataclass

import pikepdf

from yenzo.core.artwork.drawing import LONGER_SIDE
from yenzo.core.artwork.identify import damaged, no_such_page, unsafe
from yenzo.core.artwork.svg_safety import AS_OUTLINES
from yenzo.core.errors import ArtworkError
from yenzo.core.measure import plain_number
from yenzo.core.translation import translate, translate_noop

REMEDY = translate_noop("Please print it into a new PDF, or save it as a PNG.")
MOST_PAGES, MOST_OBJECTS = 2000, 500_000
END_WITHIN = 4096
# Colorants that are none of their own.
NO_SPOTS = frozenset({"/All", "/None", "/Cyan", "/Magenta", "/Yellow", "/Black"})
FONT_FILES = ("/FontFile", "/FontFile2", "/FontFile3")


@dataclass(frozen=True)
class PdfPage:
    """One page as a PDF file whose longer side is `LONGER_SIDE` points, how many pages there were, its spot colors."""

    data: bytes
    pages: int
    spots: tuple[str, ...] = ()


def safe_page(data: bytes, name: str, page: int) -> PdfPage:
    """Return a page of a PDF (1 is the first); raises ArtworkError for one that can't be opened safely."""
    if b"%%EOF" not in data[-END_WITHIN:]:
        raise damaged(name)
    try:
        with pikepdf.open(io.BytesIO(data)) as pdf:
            if len(pdf.objects) > MOST_OBJECTS:
                raise ArtworkError(
                    "too_heavy",
                    name,
                    translate(
                        "“{name}” has more than {most} parts. {remedy}",
                        name=name,
                        most=MOST_OBJECTS,
                        remedy=translate(REMEDY),
                    ),
                )
            _refuse_actions(pdf, name)
            count = _page_count(pdf, name)
            if page > count:
                raise no_such_page(name, count)
            spots = tuple(dict.fromkeys(_spot_names(pdf.pages[page - 1].obj)))
            return PdfPage(_single(pdf, page - 1, name), count, spots)
    except pikepdf.PasswordError as error:
        message = translate("“{name}” is locked by a password. Please save it without one.", name=name)
        raise ArtworkError("locked", name, message) from error
    except (pikepdf.PdfError, ValueError, TypeError, KeyError, AttributeError, RecursionError) as error:
        raise damaged(name) from error


def _spot_names(page: pikepdf.Object) -> Iterator[str]:
    """Yield the spot colors (ISO 32000-2, 8.6.6.4 and 8.6.6.5) that a page or a form within it has."""
    # Forms share resources, and may hold each other: each is looked at once.
    seen: set[tuple[int, int]] = set()
    waiting = [page]
    while waiting:
        resources = waiting.pop().get("/Resources")
        if not isinstance(resources, pikepdf.Dictionary):
            continue
        for space in _values(resources.get("/ColorSpace")):
            if isinstance(space, pikepdf.Array) and len(space) > 1 and str(space[0]) in {"/Separation", "/DeviceN"}:
                names = [space[1]] if str(space[0]) == "/Separation" else list(space[1])
                yield from (str(name).removeprefix("/") for name in names if str(name) not in NO_SPOTS)
        for form in _values(resources.get("/XObject")):
            if isinstance(form, pikepdf.Stream) and form.objgen not in seen:
                seen.add(form.objgen)
                waiting.append(form)


def _values(named: pikepdf.Object | None) -> list[pikepdf.Object]:
    return [value for _, value in named.items()] if isinstance(named, pikepdf.Dictionary) else []


def _page_count(pdf: pikepdf.Pdf, name: str) -> int:
    count = len(pdf.pages)
    if count > MOST_PAGES:
        raise ArtworkError(
            "too_many_pages",
            name,
            translate(
                "“{name}” has {count} pages; at most {most} can be opened.",
                name=name,
                count=count,
                most=MOST_PAGES,
            ),
        )
    if not count:
        raise damaged(name)
    return count


def _refuse_actions(pdf: pikepdf.Pdf, name: str) -> None:
    for found in pdf.objects:
        for item in _dictionaries(found):
            action = item.get("/S")
            if "/JS" in item or action == pikepdf.Name.JavaScript:
                raise unsafe(name, translate("it has a script inside"), translate(REMEDY))
            if action == pikepdf.Name.Launch:
                raise unsafe(name, translate("it starts other programs"), translate(REMEDY))


def _dictionaries(item: pikepdf.Object) -> Iterator[pikepdf.Dictionary]:
    """Yield an object and all that is written inside it, dictionaries only; what it refers to is listed itself."""
    if isinstance(item, pikepdf.Dictionary):
        yield item
        inside = [value for _, value in item.items()]
    else:
        inside = list(item) if isinstance(item, pikepdf.Array) else []
    for value in inside:
        if isinstance(value, pikepdf.Dictionary | pikepdf.Array) and not value.is_indirect:
            yield from _dictionaries(value)


def _single(pdf: pikepdf.Pdf, index: int, name: str) -> bytes:
    alone = pikepdf.new()
    alone.pages.append(pdf.pages[index])
    page = alone.pages[0]
    left, bottom, right, top = (float(edge) for edge in page.cropbox)
    width, height = right - left, top - bottom
    if not (width > 0 and height > 0):
        raise damaged(name)
    for key in ("/Annots", "/AA", "/Group", "/Thumb"):
        if key in page:
            del page[key]
    # Made large: converters count in parts of a point.
    by = LONGER_SIDE / max(width, height)
    numbers = " ".join(plain_number(value, 8) for value in (by, 0, 0, by, -left * by, -bottom * by))
    page.contents_add(f"q {numbers} cm\n".encode(), prepend=True)
    page.contents_add(b"\nQ")
    box = pikepdf.Array([0, 0, width * by, height * by])
    for key in ("/MediaBox", "/CropBox"):
        page[key] = box
    for key in ("/TrimBox", "/BleedBox", "/ArtBox", "/UserUnit"):
        if key in page:
            del page[key]
    alone.remove_unreferenced_resources()
    output = io.BytesIO()
    alone.save(output)
    _refuse_absent_fonts(output, name)
    return output.getvalue()


def _refuse_absent_fonts(output: io.BytesIO, name: str) -> None:
    with pikepdf.open(output) as pdf:
        for item in pdf.objects:
            if not isinstance(item, pikepdf.Dictionary) or item.get("/Type") != pikepdf.Name.Font:
                continue
            if item.get("/Subtype") in {pikepdf.Name.Type3, pikepdf.Name.Type0}:
                # The first draws its letters itself; the other's font is a part of its own.
                continue
            descriptor = item.get("/FontDescriptor", {})
            if not any(key in descriptor for key in FONT_FILES):
                font = str(item.get("/BaseFont", "/unnamed"))[1:].split("+")[-1]
                message = translate(
                    "“{name}” uses the typeface {font} without bringing it along. {remedy}",
                    name=name,
                    font=font,
                    remedy=translate(AS_OUTLINES),
                )
                raise ArtworkError("live_text", name, message)
