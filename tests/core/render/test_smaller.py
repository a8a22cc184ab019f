"""Pictures as small as screens need them."""

import io

import pytest
from PIL import Image

from yenzo.core.errors import AssetError
from yenzo.core.render.smaller import smaller


def png(mode, size=(400, 100), **others):
    written = io.BytesIO()
    Image.new(mode, size).save(written, "PNG", **others)
    return written.getvalue()


def opened(data):
    return Image.open(io.BytesIO(data))


@pytest.mark.parametrize(
    ("mode", "kept"), [("RGB", "RGB"), ("RGBA", "RGBA"), ("L", "RGB"), ("LA", "RGBA"), ("P", "RGB")]
)
def test_picture_of_any_mode_becomes_as_wide_as_wanted_and_stays_see_through(mode, kept):
    small = opened(smaller(png(mode), "goods", 200))
    assert (small.format, small.size, small.mode) == ("WEBP", (200, 50), kept)


def test_picture_that_is_small_already_keeps_its_size():
    assert opened(smaller(png("RGB"), "goods", 960)).size == (400, 100)
    assert opened(smaller(png("RGB", (2000, 1)), "goods", 240)).size == (240, 1)


def test_what_is_no_picture_is_told():
    with pytest.raises(AssetError):
        smaller(b"GIF89a", "goods", 240)
