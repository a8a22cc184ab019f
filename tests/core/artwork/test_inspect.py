import io

import pytest
from PIL import Image, ImageCms

from tests.core.artwork import samples
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


def test_flat_logo_keeps_its_colors_and_a_photo_stays_small(tmp_path):
    flat = samples.logo_picture(ground="#ffffff")
    (tmp_path / "logo.png").write_bytes(flat)
    made = inspect_artwork(tmp_path / "logo.png")
    for one in (made.prepared, made.shown):
        assert one.startswith(b"\x89PNG")
        assert Image.open(io.BytesIO(one)).convert("RGB").tobytes() == Image.open(io.BytesIO(flat)).tobytes()
    noise = Image.effect_noise((400, 300), 90).convert("RGB")
    shades = Image.merge(
        "RGB", [noise.getchannel(0), noise.getchannel(1).rotate(180), noise.getchannel(2).transpose(0)]
    )
    on_white = Image.new("RGB", (900, 700), "white")
    on_white.paste(shades, (250, 200))
    for name, photo in (("photo.png", shades), ("on-white.png", on_white)):
        photo.save(tmp_path / name)
        assert inspect_artwork(tmp_path / name).prepared.startswith(b"\xff\xd8")


def swapping_profile():
    """A profile in which red is what others call blue: whoever uses it turns one into the other."""
    profile = bytearray(ImageCms.ImageCmsProfile(ImageCms.createProfile("sRGB")).tobytes())
    count = int.from_bytes(profile[128:132], "big")
    tags = {bytes(profile[at : at + 4]): at for at in range(132, 132 + 12 * count, 12)}
    red, blue = tags[b"rXYZ"], tags[b"bXYZ"]
    profile[red + 4 : red + 12], profile[blue + 4 : blue + 12] = (
        profile[blue + 4 : blue + 12],
        profile[red + 4 : red + 12],
    )
    return bytes(profile)


@pytest.mark.parametrize("mode", ["P", "RGB", "RGBA"])
def test_profile_counts_for_palettes_too(tmp_path, mode):
    picture = Image.new("RGB", (40, 30), (250, 10, 10)).convert(mode)
    picture.save(tmp_path / "red.png", icc_profile=swapping_profile())
    made = Image.open(io.BytesIO(inspect_artwork(tmp_path / "red.png").prepared)).convert("RGB")
    red, _, blue = made.getpixel((20, 15))
    assert (red < 60, blue > 200) == (True, True)


def test_grey_with_transparency_and_a_profile_stays_grey(tmp_path):
    grey = ImageCms.ImageCmsProfile(ImageCms.createProfile("sRGB")).tobytes()
    Image.new("LA", (40, 30), (120, 200)).save(tmp_path / "grey.png", icc_profile=grey)
    made = Image.open(io.BytesIO(inspect_artwork(tmp_path / "grey.png").prepared))
    assert made.getpixel((20, 15)) == (120, 120, 120, 200)


def test_process_colors_without_a_profile_are_told(tmp_path):
    (tmp_path / "four.jpg").write_bytes(samples.picture(kind="JPEG", mode="CMYK", color=(0, 200, 200, 10)))
    assert "without a profile" in " ".join(inspect_artwork(tmp_path / "four.jpg").facts.notes)
