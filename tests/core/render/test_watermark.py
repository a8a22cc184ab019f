"""A shared picture carries the workshop's mark over all of it, and stays what it shows."""

import io

import numpy as np
import pytest
from PIL import Image

from yenzo.core.render.watermark import watermarked


def png(size, color, mode="RGB"):
    written = io.BytesIO()
    Image.new(mode, size, color).save(written, "PNG")
    return written.getvalue()


def pixels(data):
    return np.asarray(Image.open(io.BytesIO(data)).convert("RGB"), dtype=int)


@pytest.mark.parametrize("color", ["white", "black", "#7a5230"])
@pytest.mark.parametrize("size", [(720, 500), (300, 720), (60, 40)])
def test_mark_is_seen_on_every_part_of_any_goods(color, size):
    before, after = pixels(png(size, color)), pixels(watermarked(png(size, color), "Gull & Gaff"))
    assert before.shape == after.shape
    changed = np.abs(after - before).sum(axis=2) > 20
    thirds = [part for row in np.array_split(changed, 3) for part in np.array_split(row, 2, axis=1)]
    assert all(part.any() for part in thirds)
    # Most of what it shows stays to be seen.
    assert changed.mean() < 0.35


def test_see_through_parts_become_white():
    after = pixels(watermarked(png((400, 300), (0, 0, 0, 0), "RGBA"), "Gull & Gaff"))
    assert np.median(after) == 255


def test_workshop_with_a_long_name_or_none_is_no_trouble():
    for words in ("", "Gull " * 60, "نسيم البحر"):
        assert watermarked(png((200, 150), "white"), words).startswith(b"\x89PNG")
