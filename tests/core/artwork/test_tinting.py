import io

import numpy as np
import pytest
from PIL import Image

from tests.core.conftest import board, entries, sha256_of
from yenzo.core.artwork.tinting import tinted_part
from yenzo.core.documents.reading import read_setup
from yenzo.core.errors import ArtworkError, AssetError, DocumentError
from yenzo.core.evaluation import evaluate
from yenzo.core.render.page import side_page
from yenzo.core.render.png import render_png


def png(pixels):
    stream = io.BytesIO()
    Image.fromarray(np.asarray(pixels, dtype=np.uint8)).save(stream, "PNG")
    return stream.getvalue()


def pixels_of(data):
    return np.asarray(Image.open(io.BytesIO(data)).convert("RGBA")).astype(int)


def goods(*, see_through=False):
    """Twenty by ten pixels of blue cloth, the right half in the shade."""
    pixels = np.zeros((10, 20, 4))
    pixels[..., :3], pixels[..., 3] = (27, 79, 106), 255
    pixels[:, 15:, :3] = (14, 40, 53)
    if see_through:
        pixels[:5, :, 3] = 0
    return png(pixels)


def mask(*, opaque=True):
    pixels = np.zeros((10, 20, 4))
    pixels[2:8] = 255 if not opaque else (0, 0, 0, 255)
    if not opaque:
        pixels[..., 3] = 255
    return png(pixels)


@pytest.mark.parametrize("opaque", [True, False])
def test_masked_part_takes_the_color_and_keeps_its_shade(opaque):
    made = pixels_of(tinted_part(goods(), mask(opaque=opaque), "#a63a2c"))
    assert made.shape == (10, 20, 4)
    assert made[5, 3].tolist() == pytest.approx([0xA6, 0x3A, 0x2C, 255], abs=2)
    assert made[5, 18, 0] < 0.6 * 0xA6
    assert made[0, 3, 3] == made[9, 3, 3] == 0


def test_see_through_parts_of_the_goods_stay_so_and_masks_are_scaled():
    small = png(np.full((2, 4, 4), 255))
    made = pixels_of(tinted_part(goods(see_through=True), small, "#ffffff"))
    assert made[2, 3, 3] == 0
    assert made[7, 3, 3] == 255


def test_mask_of_nothing_is_refused_in_words():
    empty = png(np.zeros((10, 20, 4)))
    with pytest.raises(ArtworkError, match="shows no part of the goods"):
        tinted_part(goods(), empty, "#ffffff")


class WithOne:
    """The tests' assets and one more."""

    def __init__(self, assets, data):
        self._assets, self._data = assets, data

    def read(self, sha256):
        return self._data if sha256 == sha256_of(self._data) else self._assets.read(sha256)


@pytest.fixture
def overlaid():
    overlay = png(np.full((44, 140, 4), (166, 58, 44, 255)))
    document = board()
    picture = {"asset": sha256_of(overlay), "width_px": 140, "height_px": 44}
    wood = next(field for field in document["fields"] if field["key"] == "wood")
    wood["options"][1]["overlays"] = {"front": picture}
    return document, overlay


def test_chosen_overlay_lies_over_the_goods_and_under_what_is_made(overlaid, assets):
    document, overlay = overlaid
    shelf = WithOne(assets, overlay)
    scenes = {
        wood: evaluate(read_setup(document), entries({"name": "Otter", "wood": wood}), shelf).scene.side("front")
        for wood in ("cedar", "oak")
    }
    assert scenes["cedar"].overlays == ()
    assert scenes["oak"].overlays == (sha256_of(overlay),)
    assert scenes["cedar"].digest != scenes["oak"].digest
    shown = pixels_of(render_png(side_page(scenes["oak"], with_goods=True), shelf, 20))
    assert shown[2, 2, :3].tolist() == [166, 58, 44]
    assert len(np.unique(shown.reshape(-1, 4), axis=0)) > 1
    # Its color is what letters are compared with.
    assert scenes["oak"].areas[0].ground == "#a63a2c"


def test_production_files_have_no_overlay(overlaid, assets):
    document, overlay = overlaid
    side = evaluate(read_setup(document), entries({"name": "A", "wood": "oak"}), WithOne(assets, overlay)).scene.sides[
        0
    ]
    assert side_page(side, with_goods=False).overlays == ()


def test_overlay_of_a_side_that_is_not_there_is_a_fault_and_a_lost_one_an_error(overlaid, assets):
    document, _ = overlaid
    wood = next(field for field in document["fields"] if field["key"] == "wood")
    evaluation = evaluate(read_setup(document), entries({"name": "A", "wood": "oak"}), assets)
    with pytest.raises(AssetError):
        render_png(side_page(evaluation.scene.sides[0], with_goods=True), assets, 20)
    wood["options"][1]["overlays"] = {"lid": wood["options"][1]["overlays"]["front"]}
    with pytest.raises(DocumentError, match="has a picture for the side “lid”"):
        read_setup(document)
