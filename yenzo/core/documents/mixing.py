"""Colors of customers' own: a color and a palette come in; how far it lies from what the palette has goes out."""

import re
from collections.abc import Iterable
from functools import lru_cache

from coloraide import Color

from yenzo.core.documents.materials import PaletteColor

OWN_COLOR = re.compile(r"#[0-9a-f]{6}")


def own_color(value: object) -> str | None:
    """Return a color that was mixed, as #rrggbb in small letters, or None for a key or anything else."""
    written = str(value).strip().lower()
    return written if OWN_COLOR.fullmatch(written) else None


def nearest(colors: Iterable[PaletteColor], own: str) -> tuple[PaletteColor, float] | None:
    """Return the color of a palette that is nearest to one's own, and how far it is (CIEDE2000); None of no colors."""
    measured = [(distance(color.screen.lower(), own), color) for color in colors]
    if not measured:
        return None
    far, color = min(measured, key=lambda one: one[0])
    return color, far


@lru_cache(maxsize=5000)
def distance(first: str, second: str) -> float:
    """Return how differently two colors written #rrggbb look (CIEDE2000, ISO/CIE 11664-6)."""
    return float(Color(first).delta_e(second, method="2000"))
