"""The typefaces of a set-up: their keys come in, fonts and what they cover go out."""

from collections.abc import Iterable

from yenzo.core.documents.assets import Assets
from yenzo.core.documents.materials import Materials
from yenzo.core.text.fonts import Font, load_font
from yenzo.core.text.shaping import shape_line
from yenzo.core.text.styles import TextStyle


class Typefaces:
    """Fonts by typeface key, loaded when first needed. Is the `Coverage` that `check` asks."""

    def __init__(self, materials: Materials, assets: Assets) -> None:
        self._typefaces = materials.typefaces
        self._assets = assets

    def font(self, key: str) -> Font | None:
        """Return the font of a typeface, or None when the set-up has no such typeface."""
        typeface = self._typefaces.get(key)
        if typeface is None:
            return None
        return load_font(self._assets, typeface.font, typeface.name, typeface.instance)

    def missing(self, typeface: str, text: str, language: str) -> tuple[str, ...]:
        """Return the characters of a text that the typeface lacks, each once, in order."""
        font = self.font(typeface)
        return shape_line(font, " ".join(text.split()), TextStyle(1, 1, language=language)).missing if font else ()

    def having(self, text: str, language: str, among: Iterable[str]) -> tuple[str, ...]:
        """Return which of the typefaces have all characters of a text."""
        return tuple(key for key in among if key in self._typefaces and not self.missing(key, text, language))
