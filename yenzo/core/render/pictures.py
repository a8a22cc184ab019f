"""Pictures that the core prepared itself: their bytes come in, pixels or a MIME type go out."""

import hashlib
import io

from PIL import Image

from yenzo.core.caching import SizedCache
from yenzo.core.errors import AssetError

MOST_PIXEL_BYTES = 64_000_000
_kept: SizedCache[Image.Image] = SizedCache(MOST_PIXEL_BYTES)


def open_picture(data: bytes, name: str) -> Image.Image:
    """Open a prepared picture (PNG or JPEG, sRGB, upright), which nobody may change; raises AssetError.

    Its pixels are kept in the process (bounded by bytes): the files of a pack show the same ones again and again.
    """

    def make() -> tuple[Image.Image, int]:
        """Read the pixels, and return the picture with how many bytes they take."""
        try:
            picture = Image.open(io.BytesIO(data), formats=("PNG", "JPEG"))
            picture.load()
        except (OSError, ValueError, SyntaxError) as error:
            raise AssetError("not_a_picture", name, f"The picture {name} can't be read; put it there again.") from error
        return picture, picture.width * picture.height * len(picture.getbands())

    return _kept.get(hashlib.sha256(data).digest(), make)


def has_alpha(picture: Image.Image) -> bool:
    """Tell whether a picture can have parts that aren't opaque."""
    return "A" in picture.getbands() or "transparency" in picture.info


def mime_type(data: bytes) -> str:
    """Return the MIME type of a prepared picture or drawing."""
    if data.startswith(b"<svg"):
        return "image/svg+xml"
    if data.startswith(b"RIFF"):
        return "image/webp"
    return "image/png" if data.startswith(b"\x89PNG") else "image/jpeg"
