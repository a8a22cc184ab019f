"""Decoding inside the bounded process: a file's bytes come in, an upright sRGB picture and its facts go out."""

import io
import warnings

from PIL import Image, ImageCms, ImageOps

from yenzo.core.artwork.facts import ArtworkFacts, ArtworkLimits, PreparedArtwork
from yenzo.core.artwork.identify import identify
from yenzo.core.errors import ArtworkError

SHOWN_EDGE_PX = 1400
NAMES = {"png": "PNG", "jpeg": "JPEG", "webp": "WEBP"}
JPEG_QUALITY = 95


def decode(data: bytes, name: str, limits: ArtworkLimits) -> PreparedArtwork:
    """Decode and prepare a file; raises ArtworkError."""
    kind = identify(data, name, limits)
    # Pillow's own limit only warns up to twice its size: ours is checked below, before a pixel is decoded.
    Image.MAX_IMAGE_PIXELS = None
    with warnings.catch_warnings():
        warnings.simplefilter("error")
        try:
            picture = Image.open(io.BytesIO(data), formats=[NAMES[kind]])
            _bounded(picture, name, limits)
            notes = ("Only the first picture of the animation is used.",) if getattr(picture, "n_frames", 1) > 1 else ()
            dpi = _own_dpi(picture)
            upright = _to_srgb(ImageOps.exif_transpose(picture))
        except ArtworkError:
            raise
        except (OSError, SyntaxError, ValueError, EOFError, Warning, ImageCms.PyCMSError) as error:
            message = f"“{name}” is damaged or cut off and can't be opened. Please save or send it again."
            raise ArtworkError("damaged", name, message) from error
    facts = ArtworkFacts(
        kind=kind,
        size_bytes=len(data),
        width_px=upright.width,
        height_px=upright.height,
        dpi=dpi,
        notes=notes,
    )
    shown = upright.copy()
    shown.thumbnail((SHOWN_EDGE_PX, SHOWN_EDGE_PX), Image.Resampling.LANCZOS)
    return PreparedArtwork(facts=facts, prepared=_saved(upright), shown=_saved(shown))


def _bounded(picture: Image.Image, name: str, limits: ArtworkLimits) -> None:
    width, height = picture.size
    if width * height > limits.most_pixels:
        message = (
            f"“{name}” has {width} × {height} pixels, more than the {limits.most_pixels // 1_000_000} million that can "
            "be opened. Please save it smaller."
        )
        raise ArtworkError("too_many_pixels", name, message)


def _own_dpi(picture: Image.Image) -> float | None:
    dpi = picture.info.get("dpi", (0, 0))[0]
    return round(float(dpi), 1) if dpi else None


def _to_srgb(picture: Image.Image) -> Image.Image:
    has_alpha = "A" in picture.getbands() or "transparency" in picture.info
    profile = picture.info.get("icc_profile")
    if profile and picture.mode in {"RGB", "CMYK", "L"}:
        source = ImageCms.ImageCmsProfile(io.BytesIO(profile))
        converted = ImageCms.profileToProfile(picture, source, ImageCms.createProfile("sRGB"), outputMode="RGB")
        picture = converted or picture
    if picture.mode.startswith("I;16"):
        # Sixteen bits a sample: keep the upper eight.
        picture = picture.convert("I").point(lambda value: value / 256).convert("L")
    return picture.convert("RGBA" if has_alpha else "RGB")


def _saved(picture: Image.Image) -> bytes:
    output = io.BytesIO()
    if picture.mode == "RGBA":
        picture.save(output, "PNG", compress_level=3)
    else:
        picture.save(output, "JPEG", quality=JPEG_QUALITY, subsampling=0)
    return output.getvalue()
