"""Smaller pictures for screens: a prepared picture and a width come in, a WebP as see-through as it was goes out."""

import io

from PIL import Image

from yenzo.core.caching import SizedCache
from yenzo.core.documents.assets import Assets
from yenzo.core.render.pictures import has_alpha, open_picture

QUALITY, SEE_THROUGH_QUALITY, EFFORT = 80, 90, 4
# How pictures begin: PNG and JPEG.
PICTURES = (b"\x89PNG", b"\xff\xd8")
MOST_BYTES = 16_000_000
_kept: SizedCache[bytes] = SizedCache(MOST_BYTES)


class SmallerAssets:
    """Assets whose pictures are only as large as a small picture of them all needs; fonts and drawings as they are."""

    def __init__(self, assets: Assets, width_px: int) -> None:
        self._assets, self._width_px = assets, width_px

    def read(self, sha256: str) -> bytes:
        """Return the content, a picture of it at most this wide; raises AssetError when it isn't there."""

        def make() -> tuple[bytes, int]:
            """Read it, and return it with how many bytes it takes."""
            data = self._assets.read(sha256)
            if data.startswith(PICTURES):
                data = _resized(open_picture(data, sha256), self._width_px, "PNG", compress_level=1)
            return data, len(data)

        return _kept.get((sha256, self._width_px), make)


def smaller(data: bytes, name: str, width_px: int) -> bytes:
    """Return a picture (PNG or JPEG) as a WebP of at most this width, in pixels; raises AssetError for what is none."""
    picture = open_picture(data, name)
    return _resized(picture, width_px, "WEBP", quality=QUALITY, alpha_quality=SEE_THROUGH_QUALITY, method=EFFORT)


def _resized(picture: Image.Image, width_px: int, file_format: str, **how: int) -> bytes:
    if picture.mode not in {"RGB", "RGBA"}:
        picture = picture.convert("RGBA" if has_alpha(picture) else "RGB")
    if picture.width > width_px:
        height_px = max(1, round(picture.height * width_px / picture.width))
        picture = picture.resize((width_px, height_px), reducing_gap=3)
    written = io.BytesIO()
    picture.save(written, file_format, **how)
    return written.getvalue()
