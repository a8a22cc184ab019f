"""Files of the workshop's own: pictures of goods, their parts in other colors, artwork."""

import io
from pathlib import Path
from typing import Any

from PIL import Image

from yenzo.apps.accounts.rights import SELLERS, Actor, service
from yenzo.apps.files.store import StoredAssets, store_file
from yenzo.core.artwork.facts import ArtworkLimits, Preparation
from yenzo.core.artwork.inspect import inspect_artwork
from yenzo.core.artwork.tinting import Tints, tinted_part
from yenzo.core.documents.artwork import OneColor
from yenzo.core.documents.entries import UploadedFile
from yenzo.core.documents.reading import dump_part


@service(*SELLERS)
def add_made_artwork(
    actor: Actor,  # noqa: ARG001
    path: Path,
    name: str,
    *,
    kinds: tuple[str, ...] = (),
    one_color: OneColor | None = None,
) -> dict[str, Any]:
    """Keep artwork of the workshop's own, made with customers' pieces or standing in; return it as documents have it.

    Return {"artwork": the file, "picture": how screens show it}. Raises ArtworkError.
    """
    made = inspect_artwork(path, name, ArtworkLimits(kinds=kinds), Preparation(one_color=one_color))
    facts, shown = made.facts, store_file(made.shown, is_public=True)
    artwork = UploadedFile(
        name=name,
        original=store_file(path.read_bytes()).sha256,
        prepared=store_file(made.prepared, is_public=True).sha256,
        kind=facts.kind,
        form=facts.form,
        see_through=facts.see_through,
        one_color=one_color is not None,
        width_px=facts.width_px,
        height_px=facts.height_px,
        size_bytes=facts.size_bytes,
    )
    picture = {"asset": shown.sha256, "width_px": facts.width_px, "height_px": facts.height_px}
    return {"artwork": dump_part(artwork), "picture": picture}


@service(*SELLERS)
def add_goods_picture(actor: Actor, path: Path, name: str) -> dict[str, Any]:  # noqa: ARG001
    """Keep a picture of goods; return it as a set-up document names it. Raises ArtworkError."""
    made = inspect_artwork(path, name, wanted=Preparation(as_picture=True))
    stored = store_file(made.prepared, is_public=True)
    return {"asset": stored.sha256, "width_px": made.facts.width_px, "height_px": made.facts.height_px}


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
