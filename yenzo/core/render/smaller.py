"""Smaller pictures for screens: a prepared picture and a width come in, a WebP as see-through as it was goes out."""

import io

from yenzo.core.render.pictures import has_alpha, open_picture

QUALITY, SEE_THROUGH_QUALITY, EFFORT = 80, 90, 4


def smaller(data: bytes, name: str, width_px: int) -> bytes:
    """Return a picture (PNG or JPEG) as a WebP of at most this width, in pixels; raises AssetError for what is none."""
    picture = open_picture(data, name)
    if picture.mode not in {"RGB", "RGBA"}:
        picture = picture.convert("RGBA" if has_alpha(picture) else "RGB")
    if picture.width > width_px:
        height_px = max(1, round(picture.height * width_px / picture.width))
        picture = picture.resize((width_px, height_px), reducing_gap=3)
    written = io.BytesIO()
    picture.save(written, "WEBP", quality=QUALITY, alpha_quality=SEE_THROUGH_QUALITY, method=EFFORT)
    return written.getvalue()
