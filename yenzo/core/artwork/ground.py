"""Borders and grounds: a picture comes in; what of it is empty or plain, and the picture without that, goes out."""

import numpy as np
from PIL import Image, ImageChops

# How far a color may be from the ground's and still be ground (of 255).
NEAR = 24
PLAIN_SHARE = 0.97
SOFT_PIXELS = 2
# An empty border that is a smaller part of the picture isn't worth a question.
LEAST_SHARE = 0.02


def ground_of(picture: Image.Image) -> tuple[int, int, int] | None:
    """Return the color of a plain ground all around an opaque picture, or None."""
    if picture.mode != "RGB":
        return None
    edges = np.concatenate(
        [
            np.asarray(picture.crop(box)).reshape(-1, 3)
            for box in (
                (0, 0, picture.width, 1),
                (0, picture.height - 1, picture.width, picture.height),
                (0, 0, 1, picture.height),
                (picture.width - 1, 0, picture.width, picture.height),
            )
        ]
    ).astype(np.int16)
    color = np.median(edges, axis=0)
    is_near = np.abs(edges - color).max(axis=1) <= NEAR
    if is_near.mean() < PLAIN_SHARE:
        return None
    red, green, blue = (int(value) for value in color)
    return red, green, blue


def content_box(picture: Image.Image) -> tuple[int, int, int, int] | None:
    """Return the box of what is neither transparent nor plain ground, in pixels; None when there is nothing."""
    if picture.mode == "RGBA":
        return picture.getchannel("A").point(lambda value: 255 if value > 2 else 0).getbbox()
    ground = ground_of(picture)
    if ground is None:
        return 0, 0, picture.width, picture.height
    return _distance(picture, ground).point(lambda value: 255 if value > NEAR else 0).getbbox()


def has_empty_border(picture: Image.Image) -> bool:
    """Tell whether trimming would take away a noticeable part of a picture."""
    box = content_box(picture)
    if box is None:
        return False
    kept = (box[2] - box[0]) * (box[3] - box[1])
    return kept < (1 - LEAST_SHARE) * picture.width * picture.height


def without_ground(picture: Image.Image, ground: tuple[int, int, int]) -> Image.Image:
    """Return a picture whose plain ground is transparent; only what hangs together with the border is ground.

    Along its edge pixels that are partly ground become partly transparent, and the ground's color is taken out of them.
    """
    from scipy import ndimage  # A quarter of a second that only this preparation is worth.

    distance = np.asarray(_distance(picture, ground))
    regions, _ = ndimage.label(distance <= NEAR)
    around = np.concatenate([regions[0], regions[-1], regions[:, 0], regions[:, -1]])
    is_ground = np.isin(regions, np.unique(around[around > 0]))
    del regions
    alpha = np.where(is_ground, 0, 255).astype(np.uint8)
    soft = ndimage.binary_dilation(is_ground, iterations=SOFT_PIXELS) & ~is_ground
    # How much of a pixel is no ground: its distance beside the largest one around, where all is ink.
    whole = ndimage.maximum_filter(distance, size=2 * SOFT_PIXELS + 3)[soft].astype(np.float32)
    share = np.clip(distance[soft] / whole, 0.02, 1)
    alpha[soft] = np.rint(share * 255)
    pixels = np.asarray(picture).copy()
    under = np.array(ground, dtype=np.float32)
    pixels[soft] = np.clip((pixels[soft] - (1 - share[:, None]) * under) / share[:, None], 0, 255)
    result = Image.fromarray(pixels, "RGB")
    result.putalpha(Image.fromarray(alpha, "L"))
    return result


def _distance(picture: Image.Image, ground: tuple[int, int, int]) -> Image.Image:
    red, green, blue = ImageChops.difference(picture, Image.new("RGB", picture.size, ground)).split()
    return ImageChops.lighter(ImageChops.lighter(red, green), blue)
