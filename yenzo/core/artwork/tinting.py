"""Parts of goods in another color: a picture of goods, a mask and a color come in, what lies over it goes out."""

import io
from collections.abc import Mapping
from dataclasses import dataclass

import numpy as np
from PIL import Image

from yenzo.core.errors import ArtworkError
from yenzo.core.translation import translate

OPAQUE = 255


@dataclass(frozen=True)
class Tints:
    """A picture of goods by its SHA-256, and the colors (#rrggbb by key) that a part of it takes."""

    goods: str
    colors: Mapping[str, str]


def tinted_part(goods: bytes, mask: bytes, color: str) -> bytes:
    """Return a PNG as large as the goods' picture: the masked part in a color (#rrggbb), all else transparent.

    A mask shows its part by being opaque there or, without transparency, by being light. Light and shade of the goods
    stay: where they are as bright as the part is in the middle, the color is just itself. Raises ArtworkError when the
    mask shows nothing of the goods. Both files are the core's own: prepared before.
    """
    with Image.open(io.BytesIO(goods), formats=("PNG", "JPEG")) as opened:
        picture = opened.convert("RGBA")
    with Image.open(io.BytesIO(mask), formats=("PNG", "JPEG")) as opened:
        shape = opened.convert("RGBA").resize(picture.size, Image.Resampling.LANCZOS)
    alpha, light = np.asarray(shape.getchannel("A"), dtype=float), np.asarray(shape.convert("L"), dtype=float)
    covered = (light if alpha.min() == OPAQUE else alpha) / OPAQUE
    pixels = np.asarray(picture, dtype=float)
    covered = covered * pixels[..., 3] / OPAQUE
    part = covered > 0.5
    if not part.any():
        message = translate(
            "The mask shows no part of the goods. Please make the part opaque, and all else transparent."
        )
        raise ArtworkError("empty_mask", "mask", message)
    # Luma by ITU-R BT.601, as pictures' gray values are.
    luma = pixels[..., :3] @ np.array([0.299, 0.587, 0.114])
    shade = luma / max(float(np.median(luma[part])), 1.0)
    wanted = np.array([int(color[at : at + 2], 16) for at in (1, 3, 5)], dtype=float)
    tinted = np.empty_like(pixels)
    # Darker goes to black, lighter to white: a highlight on dark cloth is still a highlight.
    dark, bright = np.minimum(shade, 1)[..., None], np.clip(shade - 1, 0, 1)[..., None]
    tinted[..., :3] = wanted * dark + (OPAQUE - wanted * dark) * bright
    tinted[..., 3] = covered * OPAQUE
    made = io.BytesIO()
    Image.fromarray(np.rint(np.clip(tinted, 0, OPAQUE)).astype(np.uint8), "RGBA").save(made, "PNG")
    return made.getvalue()
