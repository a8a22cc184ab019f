"""Process colors by an open profile: colors of a screen come in; shares of cyan, magenta, yellow and black go out.

The profile is of offset on coated paper (ISO 12647-2:2004, paper types 1 and 2), made from the measurements FOGRA39L
that Debian's icc-profiles-free ships (see coated.txt). Colors that palettes give in process colors don't pass here.
"""

from functools import lru_cache
from pathlib import Path

from PIL import Image, ImageCms

CONDITION = "FOGRA39"
PROFILE = Path(__file__).with_name("coated.icc")
BLACK, ONLY_BLACK = "#000000", (0.0, 0.0, 0.0, 1.0)


@lru_cache(maxsize=1)
def process_profile() -> bytes:
    """Return the profile (ICC.1) of the print that process colors are meant for."""
    return PROFILE.read_bytes()


def as_process(picture: Image.Image) -> Image.Image:
    """Return an sRGB picture in process colors: relative to the paper's white, its blacks as deep as the print's."""
    made = ImageCms.applyTransform(picture.convert("RGB"), _transform())
    assert made is not None
    return made


@lru_cache(maxsize=10_000)
def process_shares(screen: str) -> tuple[float, float, float, float]:
    """Return a screen color's shares from 0 to 1; black is black ink alone, so that no plate need fit another."""
    if screen.lower() == BLACK:
        return ONLY_BLACK
    cyan, magenta, yellow, black = (
        round(share / 255, 4) for share in as_process(Image.new("RGB", (1, 1), screen)).tobytes()
    )
    return cyan, magenta, yellow, black


@lru_cache(maxsize=1)
def _transform() -> ImageCms.ImageCmsTransform:
    return ImageCms.buildTransform(
        ImageCms.createProfile("sRGB"),
        str(PROFILE),
        "RGB",
        "CMYK",
        ImageCms.Intent.RELATIVE_COLORIMETRIC,
        ImageCms.Flags.BLACKPOINTCOMPENSATION,
    )
