"""Where pictures are served: of goods, as wide as a screen needs them, and of typefaces."""

from functools import lru_cache
from urllib.parse import urlencode

from django.urls import get_script_prefix, reverse

from yenzo.core.documents.materials import Typeface

# Pictures as screens need them, by how wide they are shown, in pixels.
SMALL, MIDDLE, LARGE = 240, 480, 960
WIDTHS_PX = (SMALL, MIDDLE, LARGE)


def picture_address(asset: str, width_px: int = LARGE) -> str:
    """Return where a picture of goods is served, at most this wide."""
    return _address(get_script_prefix(), "designs:smaller_picture", asset, width_px)


def specimen_address(typeface: Typeface) -> str:
    """Return where a typeface's name is shown set in it."""
    instance = f"?{urlencode({'instance': typeface.instance})}" if typeface.instance else ""
    return _address(get_script_prefix(), "designs:specimen", typeface.font) + instance


@lru_cache(maxsize=5000)
def _address(prefix: str, name: str, *arguments: str | int) -> str:  # noqa: ARG001 - within a frame there is another
    return reverse(name, args=arguments)
