"""The album that the settings choose."""

from functools import lru_cache
from typing import Any

from django.conf import settings
from django.utils.module_loading import import_string

from yenzo.gateways.album.interface import Album


def album() -> Album | None:
    """Return the album that customers may take pictures from, or None."""
    return _made(repr(settings.ALBUM_GATEWAY)) if settings.ALBUM_ADDRESS else None


@lru_cache(maxsize=4)
def _made(_chosen: str) -> Album:
    """Return the album of the settings, made once: it keeps its connections."""
    chosen: dict[str, Any] = settings.ALBUM_GATEWAY
    made: Album = import_string(chosen["BACKEND"])(**chosen["OPTIONS"])
    return made
