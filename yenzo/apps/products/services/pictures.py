"""Files of the workshop's own: pictures of goods, and their parts in other colors."""

import io
from pathlib import Path
from typing import Any

from PIL import Image

from yenzo.apps.accounts.rights import SELLERS, Actor, service
from yenzo.apps.files.store import StoredAssets, store_file
from yenzo.core.artwork.facts import Preparation
from yenzo.core.artwork.inspect import inspect_artwork
from yenzo.core.artwork.pictures import saved
from yenzo.core.artwork.tinting import Tints, tinted_part


@service(*SELLERS)
def add_goods_picture(actor: Actor, path: Path, name: str) -> dict[str, Any]:  # noqa: ARG001
    """Keep a picture of goods; return it as a set-up document names it. Raises ArtworkError."""
    made = inspect_artwork(path, name, wanted=Preparation(as_picture=True))
    stored = store_file(made.prepared, is_public=True)
    return {"asset": stored.sha256, "width_px": made.facts.width_px, "height_px": made.facts.height_px}


@service(*SELLERS)
def split_goods_picture(actor: Actor, asset: str, *, at: float, across: bool) -> list[dict[str, Any]]:  # noqa: ARG001
    """Keep the two parts of a picture of goods that shows two sides; return them as a set-up document names them.

    `at` is the share of its width (`across`) or height at which the second part begins.
    """
    with Image.open(io.BytesIO(StoredAssets().read(asset))) as picture:
        wide, high = picture.size
        cut = round((wide if across else high) * at)
        boxes = ((0, 0, cut, high), (cut, 0, wide, high)) if across else ((0, 0, wide, cut), (0, cut, wide, high))
        parts = [picture.crop(box) for box in boxes]
    kept = ((store_file(saved(part), is_public=True), part.size) for part in parts)
    return [{"asset": stored.sha256, "width_px": width, "height_px": height} for stored, (width, height) in kept]


@service(*SELLERS)
def add_tints(actor: Actor, path: Path, name: str, tints: Tints) -> dict[str, dict[str, Any]]:  # noqa: ARG001
    """Make pictures of a part of goods in colors, from a mask; return them by the colors' keys. Raises ArtworkError."""
    mask = inspect_artwork(path, name, wanted=Preparation(as_picture=True)).prepared
    picture = StoredAssets().read(tints.goods)
    found = {}
    for key, color in tints.colors.items():
        made = tinted_part(picture, mask, color)
        with Image.open(io.BytesIO(made)) as tinted:
            width, height = tinted.size
        stored = store_file(made, is_public=True)
        found[key] = {"asset": stored.sha256, "width_px": width, "height_px": height}
    return found
