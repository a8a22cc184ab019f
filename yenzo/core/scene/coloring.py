"""Colors as chosen: a source of color and what is asked come in, the paint goes out."""

from yenzo.core.asking.ask import Asked
from yenzo.core.documents.effects import ColorSource
from yenzo.core.documents.fields import ColorField
from yenzo.core.documents.materials import Palette, PaletteColor
from yenzo.core.documents.mixing import nearest, own_color
from yenzo.core.documents.setup import Setup
from yenzo.core.scene.paints import Paint

# What is shown until a color is chosen; preflight keeps it from production.
UNCHOSEN = Paint("#16303a")


def chosen_paint(setup: Setup, source: ColorSource, asked: Asked) -> Paint | None:
    """Return the paint that a source names, or None while the customer hasn't chosen it."""
    field = setup.field(source.field or "")
    if isinstance(field, ColorField):
        palette_key, color_key = field.palette, asked.text(field.key)
    else:
        palette_key, color_key = source.palette or "", source.color or ""
    palette = setup.materials.palettes.get(palette_key)
    color: PaletteColor | None = palette.color(color_key) if palette else None
    if color is None and palette and isinstance(field, ColorField) and field.reach is not None:
        return _mixed_paint(palette, color_key)
    if color is None:
        return None
    return Paint(color.screen.lower(), color.name, color.reference, color.tool, color.cmyk)


def _mixed_paint(palette: Palette, written: str) -> Paint | None:
    """Return the paint of a color of the customer's own: named by itself, referring to the nearest of the palette."""
    own = own_color(written)
    near = nearest(palette.colors, own) if own else None
    if own is None or near is None:
        return None
    color, _ = near
    return Paint(own, own, f"mixed, near {color.reference or color.name}", color.tool)
