"""Specimens: a typeface and its name come in; the name set in it, as a drawing of a known size, goes out."""

from dataclasses import dataclass
from functools import lru_cache

from yenzo.apps.files.store import StoredAssets
from yenzo.core.documents.materials import Typeface
from yenzo.core.errors import AssetError, TypefaceError
from yenzo.core.render.svg import path_data
from yenzo.core.shapes.booleans import Pen, stroked
from yenzo.core.shapes.centerlines import center_lines
from yenzo.core.shapes.matrix import Matrix
from yenzo.core.text.fonts import load_font
from yenzo.core.text.shaping import outline_of

LETTER_MM = 12.0
PEN = Pen(0.7, cap="round", join="round")
# As slips show them (see .specimen).
HEIGHT_PX, MOST_WIDTH_PX = 26, 150


@dataclass(frozen=True)
class Specimen:
    """A typeface's name set in it, as SVG, and how wide that is shown in a slip."""

    markup: str
    width_px: int


def specimen_of(typeface: Typeface) -> Specimen | None:
    """Return the specimen of a typeface; None where there is nothing to show: of a lost font its name is written."""
    try:
        return make_specimen(typeface.font, typeface.instance, typeface.name)
    except (AssetError, TypefaceError):
        return None


@lru_cache(maxsize=200)
def make_specimen(sha256: str, instance: str, name: str) -> Specimen | None:
    """Return a name set in a font at an instance; None when it shows nothing. Raises AssetError."""
    font = load_font(StoredAssets(), sha256, name, instance)
    outline, _ = outline_of(font, name)
    em_mm = LETTER_MM / font.letter_height_em
    sized = outline.mapped(Matrix(em_mm, 0, 0, em_mm, 0, 0))
    if font.is_single_line:
        line = center_lines(sized)
        sized = stroked(line.verbs, line.points, PEN)
    ink = sized.bounds
    if ink is None:
        return None
    # All specimens share a height, so that letter heights compare.
    top, height, width = -LETTER_MM * 1.3, LETTER_MM * 1.8, ink.width + 1
    markup = (
        f'<svg xmlns="http://www.w3.org/2000/svg" viewBox="{ink.left - 0.5:.2f} {top:.2f} {width:.2f} {height:.2f}" '
        f'width="{width:.1f}mm" height="{height:.1f}mm"><path fill="#16303a" '
        f'd="{path_data(sized)}"/></svg>'
    )
    return Specimen(markup, min(round(HEIGHT_PX * width / height), MOST_WIDTH_PX))
