"""Decoding pictures inside the bounded process: pixels of any coding come in, an upright sRGB picture goes out."""

import io
import math
import struct
import warnings
from collections.abc import Iterator
from contextlib import contextmanager
from dataclasses import dataclass
from pathlib import Path

from PIL import Image, ImageCms, ImageOps

from yenzo.core.artwork.external_tools import run_tool
from yenzo.core.artwork.facts import ArtworkLimits, Preparation
from yenzo.core.artwork.identify import damaged, no_such_page
from yenzo.core.errors import ArtworkError
from yenzo.core.translation import translate, translate_noop

PILLOW_NAMES = {"png": "PNG", "jpeg": "JPEG", "webp": "WEBP", "tiff": "TIFF", "heic": "PNG"}
LEAST_EDGE_PX, MOST_RATIO = 8, 60
# What Pillow raises for files that are not what they say.
FAULTS = (OSError, SyntaxError, ValueError, EOFError, KeyError, IndexError, struct.error, ImageCms.PyCMSError)
BROKEN_PROFILE = translate_noop("Its color profile is broken and was left out.")
FIRST_OF_ANIMATION = translate_noop("Only the first picture of the animation is used.")
DEEP = translate_noop("It has 16 bits a color; 8 are used.")
NO_PROFILE = translate_noop("Its process colors (CMYK) come without a profile: please look whether they are right.")
# What is drawn, not photographed: few colors, or not many with one that covers much. Losses would show in it, and cost
# its white; a photo on white has many more.
MOST_FLAT_COLORS, MOST_DRAWN_COLORS, LEAST_FLAT_SHARE, LOOKED_AT_PX = 2048, 10_000, 0.15, 512


@dataclass(frozen=True)
class Opened:
    """A picture as it is used, RGB or RGBA, with what a person should know of it."""

    picture: Image.Image
    dpi: float | None
    pages: int
    notes: tuple[str, ...]


def open_outside_picture(path: Path, kind: str, name: str, limits: ArtworkLimits, page: int, folder: Path) -> Opened:
    """Open a page of a picture file; raises ArtworkError. HEIC goes through Debian's heif-convert first."""
    if kind == "heic":
        path = _converted(path, name, folder)
    with _words_for_damage(name), Image.open(path, formats=[PILLOW_NAMES[kind]]) as picture:
        _bounded(picture, name, limits)
        # A photo may bring a second one along for depth or light, which is no animation.
        frames = 1 if kind == "jpeg" else getattr(picture, "n_frames", 1)
        pages = frames if kind == "tiff" else 1
        if page > pages:
            raise no_such_page(name, pages)
        if frames > limits.most_frames:
            message = translate(
                "“{name}” is an animation of {frames} pictures. Please save one of them as a picture.",
                name=name,
                frames=frames,
            )
            raise ArtworkError("too_many_frames", name, message)
        if pages > 1:
            picture.seek(page - 1)
            _bounded(picture, name, limits)
        notes = [translate(FIRST_OF_ANIMATION)] if frames > pages else []
        if pages > 1:
            notes.append(translate("Page {page} of {pages} is used.", page=page, pages=pages))
        picture.load()
        # heif-convert turns photos upright itself.
        upright = picture if kind == "heic" else _upright(picture)
        return Opened(_to_srgb(upright, notes), _own_dpi(picture), pages, tuple(notes))


def saved(picture: Image.Image) -> bytes:
    """Return a picture as the core keeps it: PNG where it has transparency or is flat, as logos are, else JPEG."""
    output = io.BytesIO()
    if picture.mode == "RGBA" or is_flat(picture):
        picture.save(output, "PNG", compress_level=3)
    else:
        picture.save(output, "JPEG", quality=95, subsampling=0)
    return output.getvalue()


def is_flat(picture: Image.Image) -> bool:
    """Tell whether a picture is drawn in flat colors, by every so many of its pixels."""
    step = max(1, max(picture.size) // LOOKED_AT_PX)
    looked_at = picture.resize((-(-picture.width // step), -(-picture.height // step)), Image.Resampling.NEAREST)
    colors = looked_at.getcolors(looked_at.width * looked_at.height) or []
    pixels = looked_at.width * looked_at.height
    if MOST_FLAT_COLORS < len(colors) <= MOST_DRAWN_COLORS:
        return max(count for count, _ in colors) >= LEAST_FLAT_SHARE * pixels
    return len(colors) <= MOST_FLAT_COLORS


def cut_out(picture: Image.Image, wanted: Preparation) -> Image.Image:
    """Return a picture as it is wanted: turned, and cut to a part of it."""
    turns = {1: Image.Transpose.ROTATE_270, 2: Image.Transpose.ROTATE_180, 3: Image.Transpose.ROTATE_90}
    if wanted.quarter_turns:
        picture = picture.transpose(turns[wanted.quarter_turns])
    if wanted.crop is None:
        return picture
    left, top, right, bottom = wanted.crop
    wide, high = picture.size
    x, y = min(round(left * wide), wide - 1), min(round(top * high), high - 1)
    return picture.crop((x, y, max(round(right * wide), x + 1), max(round(bottom * high), y + 1)))


@contextmanager
def _words_for_damage(name: str) -> Iterator[None]:
    # Pillow's own limit only warns up to twice its size: ours is checked before a pixel is decoded.
    Image.MAX_IMAGE_PIXELS = None
    with warnings.catch_warnings():
        # Warnings are about what surrounds the pixels (notes of cameras, heads of a format): nobody needs to hear it.
        warnings.simplefilter("ignore")
        try:
            yield
        except ArtworkError:
            raise
        except (
            OSError,
            SyntaxError,
            ValueError,
            EOFError,
            KeyError,
            IndexError,
            struct.error,
            ImageCms.PyCMSError,
        ) as error:
            raise damaged(name) from error


def _upright(picture: Image.Image) -> Image.Image:
    try:
        return ImageOps.exif_transpose(picture)
    except (OSError, SyntaxError, ValueError, KeyError, TypeError, IndexError, struct.error):
        # How it was held isn't told in a way that can be read: it is taken as it is.
        return picture


def _converted(path: Path, name: str, folder: Path) -> Path:
    run_tool(["heif-convert", str(path), str(folder / "photo.png")], name, writes_files=True)
    # A file with several pictures becomes several numbered ones.
    made = sorted(folder.glob("photo*.png"))
    if not made:
        raise damaged(name)
    return made[0]


def _bounded(picture: Image.Image, name: str, limits: ArtworkLimits) -> None:
    width, height = picture.size
    if width * height > limits.most_pixels:
        message = translate(
            "“{name}” has {width} × {height} pixels, more than the {most_pixels} million "
            "that can be opened. Please save it smaller.",
            name=name,
            width=width,
            height=height,
            most_pixels=limits.most_pixels // 1000000,
        )
        raise ArtworkError("too_many_pixels", name, message)
    if min(width, height) < LEAST_EDGE_PX or max(width, height) > MOST_RATIO * min(width, height):
        message = translate(
            "“{name}” has {width} × {height} pixels: a mere line. Please pick another picture.",
            name=name,
            width=width,
            height=height,
        )
        raise ArtworkError("too_narrow", name, message)


def _own_dpi(picture: Image.Image) -> float | None:
    try:
        dpi = float(picture.info.get("dpi", (0, 0))[0])
    except (TypeError, ValueError, IndexError, ZeroDivisionError):
        return None
    return round(dpi, 1) if math.isfinite(dpi) and dpi > 0 else None


def _to_srgb(picture: Image.Image, notes: list[str]) -> Image.Image:
    has_alpha = "A" in picture.getbands() or "transparency" in picture.info
    profile = picture.info.get("icc_profile")
    if picture.mode == "LAB":
        lab, srgb = ImageCms.createProfile("LAB"), ImageCms.createProfile("sRGB")
        picture = ImageCms.profileToProfile(picture, lab, srgb, outputMode="RGB") or picture
    elif profile and picture.mode in {"RGB", "RGBA", "CMYK", "L", "P", "LA"}:
        if picture.mode == "P":
            # A profile is of the colors that a palette names, not of their numbers.
            picture = picture.convert("RGBA" if has_alpha else "RGB")
        picture = _by_profile(picture, profile, notes)
    elif picture.mode == "CMYK":
        notes.append(translate(NO_PROFILE))
    if picture.mode.startswith("I;16"):
        # Sixteen bits a sample: keep the upper eight.
        notes.append(translate(DEEP))
        picture = picture.convert("I").point(lambda value: value / 256).convert("L")
    return picture.convert("RGBA" if has_alpha else "RGB")


def _by_profile(picture: Image.Image, profile: bytes, notes: list[str]) -> Image.Image:
    alpha = picture.getchannel("A") if picture.mode in {"RGBA", "LA"} else None
    color = picture.convert("L" if picture.mode == "LA" else "RGB") if alpha else picture
    try:
        source = ImageCms.ImageCmsProfile(io.BytesIO(profile))
        converted = ImageCms.profileToProfile(color, source, ImageCms.createProfile("sRGB"), outputMode="RGB")
    except (ImageCms.PyCMSError, OSError, ValueError):
        notes.append(translate(BROKEN_PROFILE))
        return picture
    if converted is None:
        return picture
    if alpha:
        converted.putalpha(alpha)
    return converted
