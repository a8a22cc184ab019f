"""Opening drawings inside the bounded process: SVG or PDF comes in; outlines, or the picture that it must be, go out.

SVG becomes PDF by Debian's rsvg-convert, PDF becomes outlines by its pdftocairo: both know their formats.
"""

import io
from dataclasses import dataclass, replace

from PIL import Image, ImageChops, ImageFilter

from yenzo.core.artwork.converted import NOT_PLAIN, NotPlain, read_converted
from yenzo.core.artwork.drawing import LONGER_SIDE, Drawing, write_drawing
from yenzo.core.artwork.effort import PIXEL_SIDE, drawn_as_pixels
from yenzo.core.artwork.external_tools import run_tool
from yenzo.core.artwork.facts import ArtworkLimits, Preparation
from yenzo.core.artwork.identify import no_such_page
from yenzo.core.artwork.pdf_safety import safe_page
from yenzo.core.artwork.svg_safety import is_moving, safe_svg, written_svg
from yenzo.core.errors import ArtworkError
from yenzo.core.translation import translate, translate_noop

FLATTENED_EDGE_PX, COMPARED_EDGE_PX = 4000, 800
# What pdftocairo makes of black ink alone (0 0 0 1 k).
BLACK_INK, BLACK = "#231f20", "#000000"
SPOTS = translate_noop("Its spot colors ({names}) are made as they look on a screen. Tell us if they must be these.")
MOST_SPOTS_NAMED, MOST_SPOT_NAME = 5, 40
# Of 255; and how many pixels may differ as much.
DIFFERENT, MOST_DIFFERENT_PX = 40, 6


@dataclass(frozen=True)
class OpenedDrawing:
    """A drawing, or the PNG file of one that has more than plain outlines; and what a person should know of it."""

    drawing: Drawing | None
    flattened: bytes
    pages: int
    notes: tuple[str, ...]


def open_drawing(data: bytes, kind: str, name: str, limits: ArtworkLimits, wanted: Preparation) -> OpenedDrawing:
    """Open an SVG or a page of a PDF; raises ArtworkError."""
    notes, page = [], wanted.page
    if kind == "svg":
        root = safe_svg(data, name)
        if is_moving(root):
            notes.append(translate("It moves; it is used as it looks at the beginning."))
        if page > 1:
            raise no_such_page(name, 1)
        if (pixels := drawn_as_pixels(root)) is not None:
            notes.append(translate("It has {reason}, so it is used as a picture.", reason=translate(NOT_PLAIN[pixels])))
            return OpenedDrawing(None, _svg_as_png(written_svg(root), name, PIXEL_SIDE), 1, tuple(notes))
        pdf, pages = _as_pdf(written_svg(root), name), 1
    else:
        found = safe_page(data, name, page)
        pdf, pages = found.data, found.pages
        if pages > 1:
            notes.append(translate("Page {page} of {pages} is used.", page=page, pages=pages))
        if found.spots:
            names = ", ".join(name[:MOST_SPOT_NAME] for name in found.spots[:MOST_SPOTS_NAMED])
            notes.append(
                translate(
                    "Its spot colors ({names}) are made as they look on a screen. Tell us if they must be these.",
                    names=names,
                )
            )
    if wanted.as_picture:
        return OpenedDrawing(None, _as_png(pdf, name), pages, tuple(notes))
    try:
        converted = run_tool(["pdftocairo", "-svg", "-", "-"], name, data=pdf)
        drawing = read_converted(converted, limits.most_points)
        if kind == "pdf":
            drawing = _with_black_ink(drawing)
        _refuse_other_look(drawing, pdf, name)
    except NotPlain as reason:
        notes.append(translate("It has {reason}, so it is used as a picture.", reason=translate(str(reason))))
        return OpenedDrawing(None, _as_png(pdf, name), pages, tuple(notes))
    if drawing.bounds is None:
        raise ArtworkError(
            "shows_nothing", name, translate("“{name}” shows nothing. Please check what is on it.", name=name)
        )
    return OpenedDrawing(drawing, b"", pages, tuple(notes))


def _with_black_ink(drawing: Drawing) -> Drawing:
    """Return a drawing whose black ink alone is black; the conversion shows the dark grey that it prints as."""
    parts = (replace(part, color=BLACK) if part.color == BLACK_INK else part for part in drawing.parts)
    return replace(drawing, parts=tuple(parts))


def _as_pdf(svg: bytes, name: str) -> bytes:
    return run_tool(_converting("pdf", LONGER_SIDE), name, data=svg)


def _svg_as_png(svg: bytes, name: str, side: int) -> bytes:
    return run_tool(_converting("png", side), name, data=svg)


def _converting(kind: str, side: int) -> list[str]:
    return ["rsvg-convert", f"--format={kind}", "--keep-aspect-ratio", f"--width={side}", f"--height={side}"]


def _as_png(pdf: bytes, name: str, edge_px: int = FLATTENED_EDGE_PX) -> bytes:
    command = ["pdftocairo", "-png", "-transp", "-singlefile", "-scale-to", str(edge_px), "-", "-"]
    return run_tool(command, name, data=pdf)


def _refuse_other_look(drawing: Drawing, pdf: bytes, name: str) -> None:
    """Raise NotPlain for a drawing that doesn't look as its file does: conversions must not change it unsaid."""
    expected = _on_white(_as_png(pdf, name, COMPARED_EDGE_PX))
    width, height = (str(side) for side in expected.size)
    command = ["rsvg-convert", f"--width={width}", f"--height={height}", "--format=png"]
    got = _on_white(run_tool(command, name, data=write_drawing(drawing)))
    if got.size != expected.size:
        got = got.resize(expected.size)
    # Edges may differ by a part of a pixel, which the filter takes away.
    difference = ImageChops.difference(got, expected).convert("L").filter(ImageFilter.MinFilter(3))
    if sum(difference.histogram()[DIFFERENT:]) > MOST_DIFFERENT_PX:
        raise NotPlain(translate_noop("parts that can't be kept exactly"))


def _on_white(png: bytes) -> Image.Image:
    with Image.open(io.BytesIO(png), formats=["PNG"]) as picture:
        ground = Image.new("RGBA", picture.size, "#fefefe")
        return Image.alpha_composite(ground, picture.convert("RGBA")).convert("RGB")
