"""The goods' own color: a picture of goods and a part of it come in, the color that is usual there goes out."""

import io

import numpy as np
from PIL import Image

from yenzo.core.documents.assets import Assets
from yenzo.core.errors import AssetError
from yenzo.core.shapes.box import Box

LOOKED_AT_PX = 48
OPAQUE = 128
KEPT = 2000
_kept: dict[tuple[str, Box], str | None] = {}


def goods_color(assets: Assets, asset: str, shares: Box) -> str | None:
    """Return the middle color of a part of a picture as #rrggbb; the part is in shares of its width and height.

    None where the goods are transparent there, or the picture can't be read (whoever draws it will say so).
    """
    if (asset, shares) not in _kept:
        try:
            data = assets.read(asset)
        except AssetError:
            # It may be there the next time.
            return None
        while len(_kept) >= KEPT:
            _kept.pop(next(iter(_kept)))
        _kept[asset, shares] = _found(data, shares)
    return _kept[asset, shares]


def _found(data: bytes, shares: Box) -> str | None:
    try:
        with Image.open(io.BytesIO(data), formats=("PNG", "JPEG")) as picture:
            part = shares.within(Box(0, 0, 1, 1))
            across, down = picture.size
            box = (part.left * across, part.top * down, part.right * across, part.bottom * down)
            if part.width <= 0 or part.height <= 0:
                return None
            size = (LOOKED_AT_PX, LOOKED_AT_PX)
            small = picture.convert("RGBA").resize(size, Image.Resampling.BOX, box=box)
    except (OSError, ValueError, SyntaxError):
        return None
    pixels = np.asarray(small).reshape(-1, 4)
    seen = pixels[pixels[:, 3] >= OPAQUE, :3]
    if len(seen) * 2 < len(pixels):
        return None
    red, green, blue = (int(value) for value in np.median(seen, axis=0))
    return f"#{red:02x}{green:02x}{blue:02x}"
