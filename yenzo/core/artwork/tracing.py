"""One color: a picture or drawing comes in, the outlines of its dark parts go out, for engravers and cutters."""

import contourpy
import numpy as np
import shapely
from PIL import Image, ImageFilter

from yenzo.core.artwork.drawing import FROM_SHAPES, TO_SHAPES, Drawing, DrawnPart
from yenzo.core.documents.artwork import OneColor
from yenzo.core.errors import ArtworkError, ShapeError
from yenzo.core.shapes.booleans import difference, union
from yenzo.core.shapes.fitting import fit_ring
from yenzo.core.shapes.outline import Outline
from yenzo.core.translation import translate

INK = "#000000"
LONGER_EDGE_PX = 2500
LEAST_TOLERANCE_PX, SPECK_PX = 0.3, 6.0
MOST_RINGS = 2000


def trace(picture: Image.Image, wanted: OneColor, name: str, most_points: int) -> Drawing:
    """Return the dark parts of a picture as smooth outlines; what is transparent is light. Raises ArtworkError."""
    by = min(1.0, LONGER_EDGE_PX / max(picture.size))
    size = (max(1, round(picture.width * by)), max(1, round(picture.height * by)))
    gray = _on_white(picture).resize(size, Image.Resampling.LANCZOS)
    if wanted.smoothness:
        gray = gray.filter(ImageFilter.GaussianBlur(wanted.smoothness / 2))
    # A frame of light around it closes every line.
    light = np.pad(np.asarray(gray, dtype=np.float64), 1, constant_values=255)
    level = wanted.threshold / 100 * 255
    rings = [
        np.asarray(line)[:-1] - 0.5
        for line in contourpy.contour_generator(z=light).lines(level)
        if len(line) > 4 and shapely.Polygon(line).area >= SPECK_PX
    ]
    if not rings:
        raise ArtworkError(
            "shows_nothing",
            name,
            translate("“{name}” has nothing dark enough. Please choose a lighter setting.", name=name),
        )
    tolerance = max(LEAST_TOLERANCE_PX, wanted.smoothness / 2)
    outline = Outline.joined(fit_ring(ring, tolerance) for ring in rings) if len(rings) <= MOST_RINGS else None
    if outline is None or len(outline.points) > most_points:
        raise _too_detailed(name)
    return Drawing.scaled(size[0], size[1], (DrawnPart(outline, INK),))


def darkened(drawing: Drawing, wanted: OneColor, name: str) -> Drawing:
    """Return the dark parts of a drawing; light ones are cut out of what lies below. Raises ArtworkError."""
    ink = Outline.empty()
    try:
        for part in drawing.parts:
            is_dark, outline = _lightness(part.color) * 100 < wanted.threshold, part.outline.mapped(TO_SHAPES)
            ink = union([ink, outline]) if is_dark else difference(ink, outline)
    except ShapeError as error:
        raise _too_detailed(name) from error
    if not ink:
        raise ArtworkError(
            "shows_nothing",
            name,
            translate("“{name}” has nothing dark enough. Please choose a lighter setting.", name=name),
        )
    return Drawing(drawing.width, drawing.height, (DrawnPart(ink.mapped(FROM_SHAPES), INK),))


def _on_white(picture: Image.Image) -> Image.Image:
    if picture.mode != "RGBA":
        return picture.convert("L")
    white = Image.new("RGBA", picture.size, "white")
    return Image.alpha_composite(white, picture).convert("L")


def _lightness(color: str) -> float:
    """Return the luma of #rrggbb, 0 to 1, weighted as pictures are made gray (Rec. 601)."""
    red, green, blue = (int(color[at : at + 2], 16) / 255 for at in (1, 3, 5))
    return 0.299 * red + 0.587 * green + 0.114 * blue


def _too_detailed(name: str) -> ArtworkError:
    message = translate(
        "“{name}” has too many fine details to become outlines of one color. Please "
        "choose a smoother setting or pick a plainer picture.",
        name=name,
    )
    return ArtworkError("too_detailed", name, message)
