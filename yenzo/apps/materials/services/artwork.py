"""Artwork of the workshop's own."""

from pathlib import Path
from typing import Any

from yenzo.apps.accounts.rights import SELLERS, Actor, service
from yenzo.apps.files.store import store_file
from yenzo.core.artwork.facts import ArtworkLimits, Preparation
from yenzo.core.artwork.inspect import inspect_artwork
from yenzo.core.documents.artwork import OneColor, UploadedFile
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
