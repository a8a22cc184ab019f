import io
import struct
import zlib

import pytest
from PIL import Image

from tests.core.conftest import picture_bytes
from yenzo.core.artwork.facts import ArtworkLimits
from yenzo.core.artwork.inspect import inspect_artwork
from yenzo.core.errors import ArtworkError

UNSAFE_SVG = (
    b'<svg xmlns="http://www.w3.org/2000/svg"><script>alert(1)</script><image href="http://x.example/a.png"/></svg>'
)


def png_bomb(width, height):
    def chunk(kind, data):
        return struct.pack(">I", len(data)) + kind + data + struct.pack(">I", zlib.crc32(kind + data))

    header = struct.pack(">IIBBBBB", width, height, 8, 0, 0, 0, 0)
    return (
        b"\x89PNG\r\n\x1a\n" + chunk(b"IHDR", header) + chunk(b"IDAT", zlib.compress(bytes(1000))) + chunk(b"IEND", b"")
    )


REFUSED = {
    "empty": (b"", "empty", "0 bytes"),
    "cut off": (picture_bytes((400, 300), kind="JPEG")[:900], "damaged", "damaged or cut off"),
    "cut off png": (picture_bytes((400, 300))[:300], "damaged", "damaged or cut off"),
    "lying": (b"PK\x03\x04 not a picture", "wrong_kind", "is a ZIP file"),
    "text": (b"hello", "wrong_kind", "not a picture"),
    "bomb": (png_bomb(50_000, 50_000), "too_many_pixels", "50000 × 50000 pixels"),
    "script": (UNSAFE_SVG, "unsafe", "a script inside and it points to files elsewhere"),
    "drawing": (b'<svg xmlns="http://www.w3.org/2000/svg"/>', "wrong_kind", "can't be taken yet"),
    "pdf": (b"%PDF-1.7", "wrong_kind", "is a PDF file"),
}


@pytest.mark.parametrize("case", REFUSED)
def test_bad_file_is_refused_in_plain_words(tmp_path, case):
    data, code, words = REFUSED[case]
    path = tmp_path / "photo.jpg"
    path.write_bytes(data)
    with pytest.raises(ArtworkError) as caught:
        inspect_artwork(path)
    assert caught.value.code == code
    assert words in caught.value.message
    assert "“photo.jpg”" in caught.value.message


def test_file_that_is_too_large_is_refused_unread(tmp_path):
    path = tmp_path / "large.png"
    with path.open("wb") as stream:
        stream.truncate(60_000_000)
    with pytest.raises(ArtworkError, match=r"60\.0 MB; at most 50 MB"):
        inspect_artwork(path)


def test_decode_that_takes_too_much_memory_harms_nobody(tmp_path):
    path = tmp_path / "photo.png"
    path.write_bytes(png_bomb(9_000, 9_000))
    with pytest.raises(ArtworkError) as caught:
        inspect_artwork(path, limits=ArtworkLimits(most_memory_bytes=300_000_000))
    assert caught.value.code in {"too_heavy", "damaged"}


def test_photo_is_turned_upright_and_measured_as_seen(tmp_path):
    exif = Image.Exif()
    exif[0x0112] = 6
    path = tmp_path / "turned.jpg"
    Image.new("RGB", (300, 200), "red").save(path, exif=exif, dpi=(240, 240))
    made = inspect_artwork(path)
    assert (made.facts.width_px, made.facts.height_px, made.facts.dpi) == (200, 300, 240)
    assert Image.open(io.BytesIO(made.prepared)).size == (200, 300)


@pytest.mark.parametrize("mode", ["1", "L", "LA", "P", "RGB", "RGBA", "I;16", "CMYK"])
def test_picture_of_any_mode_becomes_srgb_and_keeps_transparency(tmp_path, mode):
    kind = "JPEG" if mode == "CMYK" else "PNG"
    path = tmp_path / f"picture.{kind.lower()}"
    Image.new(mode, (40, 30)).save(path, kind)
    prepared = Image.open(io.BytesIO(inspect_artwork(path).prepared))
    assert prepared.mode == ("RGBA" if "A" in mode else "RGB")


def test_shown_picture_is_bounded_and_animation_says_which_picture_is_used(tmp_path):
    path = tmp_path / "wave.webp"
    frames = [Image.new("RGB", (2000, 1000), color) for color in ("red", "blue")]
    frames[0].save(path, save_all=True, append_images=frames[1:])
    made = inspect_artwork(path)
    assert max(Image.open(io.BytesIO(made.shown)).size) == 1400
    assert made.facts.notes == ("Only the first picture of the animation is used.",)
