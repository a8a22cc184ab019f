"""Colors to pick from, each with a sample beside its name, by palette: names repeat, colors don't."""

from django.utils.html import format_html
from django.utils.safestring import SafeString

from yenzo.apps.materials.to_core import materials


def swatches() -> list[tuple[str, list[tuple[str, SafeString]]]]:
    """Return all colors of the workshop by palette, "palette/color" to a sample of it with its name."""
    return [
        (palette.name, [(f"{key}/{color.key}", _sample(color.screen, color.name)) for color in palette.colors])
        for key, palette in materials().palettes.items()
    ]


def _sample(screen: str, name: str) -> SafeString:
    return format_html(
        '<svg class="swatch" viewBox="0 0 16 16" aria-hidden="true"><circle cx="8" cy="8" r="7" fill="{}"/></svg> {}',
        screen,
        name,
    )
