"""The goods' own color: a picture of goods and a part of it come in, the color that is usual there goes out."""

import io

import numpy as np
from PIL import Image

from yenzo.core.caching import SizedCache
from yenzo.core.documents.assets import Assets
from yenzo.core.errors import AssetError
from yenzo.core.shapes.box import Box

LOOKED_AT_PX = 48
OPAQUE = 128
COLOR_BYTES, PIXEL_BYTES = 250, 4
# A picture is opened once for all of its areas, and for all places that one is dragged to.
_pictures: SizedCache[Image.Image | None] = SizedCache(40_000_000)
_colors: SizedCache[str | None] = SizedCache(500_000)


def goods_color(assets: Assets, asset: str, shares: Box) -> str | None:
    """Return the middle color of a part of a picture as #rrggbb; the part is in shares of its width and height.

    None where the goods are transparent there, or the picture can't be read (whoever draws it will say so).
    """

    def find() -> tuple[str | None, int]:
        """Look at the part, once for all who ask."""
        picture = _pictures.get(asset, lambda: _opened(assets.read(asset)))
        return (_usual(picture, shares) if picture else None), COLOR_BYTES

    try:
        return _colors.get((asset, shares), find)
    except AssetError:
        # It may be there the next time.
        return None


def _opened(data: bytes) -> tuple[Image.Image | None, int]:
    """Return a picture in the form that it can be made smaller in, and its size; None where it can't be read."""
    try:
        with Image.open(io.BytesIO(data), formats=("PNG", "JPEG")) as picture:
            opened = picture.convert("RGBA").convert("RGBa")
    except (OSError, ValueError, SyntaxError):
        return None, COLOR_BYTES
    return opened, opened.width * opened.height * PIXEL_BYTES


def _usual(picture: Image.Image, shares: Box) -> str | None:
    part = shares.within(Box(0, 0, 1, 1))
    if part.width <= 0 or part.height <= 0:
        return None
    across, down = picture.size
    box = (part.left * across, part.top * down, part.right * across, part.bottom * down)
    small = picture.resize((LOOKED_AT_PX, LOOKED_AT_PX), Image.Resampling.BOX, box=box).convert("RGBA")
    pixels = np.asarray(small).reshape(-1, 4)
    seen = pixels[pixels[:, 3] >= OPAQUE, :3]
    if len(seen) * 2 < len(pixels):
        return None
    red, green, blue = (int(value) for value in np.median(seen, axis=0))
    return f"#{red:02x}{green:02x}{blue:02x}"
