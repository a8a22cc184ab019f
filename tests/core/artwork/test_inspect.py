import io

import pytest
from PIL import Image

from yenzo.core.artwork.inspect import inspect_artwork


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
    made = Image.new(mode, (40, 30))
    if "A" in mode:
        made.putpixel((20, 20), (0,) * (len(mode) - 1) + (255,))
    made.save(path, kind)
    prepared = Image.open(io.BytesIO(inspect_artwork(path).prepared))
    assert prepared.mode == ("RGBA" if "A" in mode else "RGB")


def test_shown_picture_is_bounded_and_animation_says_which_picture_is_used(tmp_path):
    path = tmp_path / "wave.webp"
    frames = [Image.new("RGB", (2000, 1000), color) for color in ("red", "blue")]
    frames[0].save(path, save_all=True, append_images=frames[1:])
    made = inspect_artwork(path)
    assert max(Image.open(io.BytesIO(made.shown)).size) == 1400
    assert made.facts.notes == ("Only the first picture of the animation is used.",)
