"""Decoding inside the bounded process: an outside file comes in; what the core uses of it, and its facts, go out.

Each file has a process of its own, and most are pictures: what only drawings need is loaded for drawings only.
"""

import io
from pathlib import Path
from typing import TYPE_CHECKING

from PIL import Image

from yenzo.core.artwork.facts import ArtworkFacts, ArtworkLimits, Preparation, PreparedArtwork, Wish
from yenzo.core.artwork.ground import content_box, ground_of, has_empty_border, without_ground
from yenzo.core.artwork.identify import identify, refuse_two_in_one
from yenzo.core.artwork.pictures import Opened, cut_out, open_outside_picture, saved
from yenzo.core.errors import ArtworkError
from yenzo.core.shapes.box import Box
from yenzo.core.translation import translate

if TYPE_CHECKING:
    from yenzo.core.artwork.drawing import Drawing

SHOWN_EDGE_PX = 1400
DRAWINGS = frozenset({"svg", "pdf"})
TRIMMED_SHARE = 0.98
OPAQUE = 255


def decode(path: Path, name: str, limits: ArtworkLimits, wanted: Preparation, folder: Path) -> PreparedArtwork:
    """Decode a file and prepare it as wanted; converters may write into the folder. Raises ArtworkError."""
    data = path.read_bytes()
    kind = identify(data, name, limits)
    refuse_two_in_one(data, kind, name)
    if kind not in DRAWINGS:
        opened = open_outside_picture(path, kind, name, limits, wanted.page, folder)
        return _of_picture(opened, kind, len(data), name, limits, wanted)
    from yenzo.core.artwork.vectors import open_drawing

    found = open_drawing(data, kind, name, limits, wanted)
    if found.drawing is not None:
        return _of_drawing(found.drawing, found.pages, found.notes, kind, len(data), name, wanted)
    with Image.open(io.BytesIO(found.flattened), formats=["PNG"]) as picture:
        flat = Opened(picture.convert("RGBA"), None, found.pages, found.notes)
    return _of_picture(flat, kind, len(data), name, limits, wanted)


def cut_drawing(drawing: "Drawing", wanted: Preparation) -> "Drawing":
    """Return a drawing as it is wanted: turned, and cut to a part of it."""
    turned = drawing.turned(wanted.quarter_turns)
    if wanted.crop is None:
        return turned
    left, top, right, bottom = wanted.crop
    wide, high = turned.width, turned.height
    return turned.cut(Box(left * wide, top * high, right * wide, bottom * high))


def _of_picture(
    opened: Opened, kind: str, size_bytes: int, name: str, limits: ArtworkLimits, wanted: Preparation
) -> PreparedArtwork:
    picture = cut_out(opened.picture, wanted)
    ground = ground_of(picture)
    wishes: list[Wish] = ["trim"] if has_empty_border(picture) else []
    box = content_box(picture)
    if ground is not None and box is not None:
        wishes.append("no_ground")
    if box is None and picture.mode == "RGBA":
        raise ArtworkError(
            "shows_nothing", name, translate("“{name}” shows nothing: all of it is transparent.", name=name)
        )
    if wanted.no_ground and ground is not None and box is not None:
        picture = without_ground(picture, ground)
    if wanted.trim and box is not None:
        picture = picture.crop(box)
    if wanted.one_color is not None:
        from yenzo.core.artwork.tracing import trace

        drawing = trace(picture, wanted.one_color, name, limits.most_points)
        return _prepared(drawing, kind, size_bytes, opened.pages, tuple(wishes), opened.notes)
    shown = picture.copy()
    shown.thumbnail((SHOWN_EDGE_PX, SHOWN_EDGE_PX), Image.Resampling.LANCZOS)
    facts = ArtworkFacts(
        kind=kind,
        form="picture",
        size_bytes=size_bytes,
        width_px=picture.width,
        height_px=picture.height,
        dpi=opened.dpi,
        see_through=picture.mode == "RGBA" and any(picture.getchannel("A").histogram()[:OPAQUE]),
        pages=opened.pages,
        wishes=tuple(wishes),
        notes=opened.notes,
    )
    return PreparedArtwork(facts=facts, prepared=saved(picture), shown=saved(shown))


def _of_drawing(
    drawing: "Drawing", pages: int, notes: tuple[str, ...], kind: str, size_bytes: int, name: str, wanted: Preparation
) -> PreparedArtwork:
    drawing = cut_drawing(drawing, wanted)
    box = drawing.bounds
    if box is None:
        raise ArtworkError(
            "shows_nothing", name, translate("Nothing of “{name}” is left. Please cut less off.", name=name)
        )
    wishes: tuple[Wish, ...] = ()
    if box.width * box.height < TRIMMED_SHARE * drawing.width * drawing.height and min(box.width, box.height) > 0:
        wishes = ("trim",)
    if wanted.trim and wishes:
        drawing = drawing.cropped(box)
    if wanted.one_color is not None:
        from yenzo.core.artwork.tracing import darkened

        drawing = darkened(drawing, wanted.one_color, name)
    return _prepared(drawing, kind, size_bytes, pages, wishes, notes)


def _prepared(
    drawing: "Drawing", kind: str, size_bytes: int, pages: int, wishes: tuple[Wish, ...], notes: tuple[str, ...]
) -> PreparedArtwork:
    from yenzo.core.artwork.drawing import write_drawing

    written = write_drawing(drawing)
    facts = ArtworkFacts(
        kind=kind,
        form="drawing",
        size_bytes=size_bytes,
        width_px=drawing.width,
        height_px=drawing.height,
        pages=pages,
        wishes=wishes,
        notes=notes,
    )
    return PreparedArtwork(facts=facts, prepared=written, shown=written)
