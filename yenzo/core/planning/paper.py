"""Paper: words, rules and codes come in with their places in mm; pages of a PDF, all words live text, go out."""

from collections.abc import Iterable
from datetime import UTC, datetime
from itertools import groupby
from pathlib import Path

import segno
from fpdf import FPDF
from fpdf.enums import MethodReturnValue
from fpdf.fonts import TTFFont

from yenzo.core.planning.faces import FACES, face_path

INK, MUTED = (22, 48, 58), (91, 106, 112)
# From line to line, in letter sizes.
PITCH = 1.35
# Any fixed date: a real one would make every file different.
NO_DATE = datetime(1980, 1, 1, tzinfo=UTC)
Color = tuple[int, int, int]


class Paper:
    """The pages of a document while they are filled; `top` is where the next words go, in mm from the page's edge."""

    def __init__(
        self, width_mm: float, height_mm: float, title: str, *, language: str = "en", fallbacks: Iterable[Path] = ()
    ) -> None:
        """Begin a document without pages; `fallbacks` are fonts for scripts that the faces lack."""
        self.pdf = FPDF("portrait", "mm", (width_mm, height_mm))
        self.pdf.set_creation_date(NO_DATE)
        self.pdf.set_auto_page_break(False)
        self.pdf.set_margin(0)
        self.pdf.c_margin = 0
        self.pdf.set_title(title)
        self.pdf.set_lang(language)
        for face in FACES:
            self.pdf.add_font(face, "", face_path(face))
        fallbacks = list(fallbacks)
        for number, path in enumerate(fallbacks):
            self.pdf.add_font(f"other-{number}", "", path)
        self.pdf.set_fallback_fonts([f"other-{number}" for number in range(len(fallbacks))])
        self.pdf.set_text_shaping(True)
        self.top = 0.0

    def finished(self) -> bytes:
        """Return the pages as a PDF file."""
        return bytes(self.pdf.output())

    def throw_away(self) -> None:
        """Close the fonts of a document that isn't finished, as one that something is only measured on."""
        for font in self.pdf.fonts.values():
            if isinstance(font, TTFFont):
                font.close()

    def face_for(self, face: str, text: str) -> str:
        """Return a face that has all letters of a text: this one, or the first fallback; this one where none has.

        Letters of one text out of two faces would be found apart by who searches the file.
        """
        letters = {ord(letter) for letter in text if not letter.isspace()}
        others = (name for name in self.pdf.fonts if name.startswith("other-"))
        return next((one for one in (face, *others) if letters <= self._letters_of(one)), face)

    def _letters_of(self, face: str) -> frozenset[int]:
        font = self.pdf.fonts[face]
        return frozenset(font.cmap) if isinstance(font, TTFFont) else frozenset()

    def broken(self, face: str, text: str, letter_mm: float, width_mm: float) -> list[str]:
        """Return a text in lines that fit a width; none for one without letters."""
        if not text.strip():
            return []
        self.pdf.set_font(face, size=letter_mm * self.pdf.k)
        lines = self.pdf.multi_cell(width_mm, text=text, align="L", dry_run=True, output=MethodReturnValue.LINES)
        assert isinstance(lines, list)
        return [line.strip() for line in lines]

    def line(self, face: str, text: str, letter_mm: float, left: float, top: float, color: Color = INK) -> None:
        """Write one line from a place to the right."""
        self.pdf.set_font(face, size=letter_mm * self.pdf.k)
        self.pdf.set_text_color(*color)
        self.pdf.set_xy(left, top)
        self.pdf.cell(self.pdf.get_string_width(text) + 1, letter_mm * PITCH, text, align="L")

    def right(self, face: str, text: str, letter_mm: float, right: float, top: float, color: Color = INK) -> None:
        """Write one line that ends at a place."""
        self.pdf.set_font(face, size=letter_mm * self.pdf.k)
        self.line(face, text, letter_mm, right - self.pdf.get_string_width(text), top, color)

    def rule(self, left: float, top: float, width: float, height: float, color: Color = MUTED) -> None:
        """Draw a filled bar."""
        self.pdf.set_fill_color(*color)
        self.pdf.rect(left, top, width, height, style="F")

    def code(self, text: str, left: float, top: float, side: float) -> None:
        """Draw a text as a QR code (ISO/IEC 18004, error correction M), its quiet zone left to the page."""
        matrix = [list(row) for row in segno.make(text, error="m", micro=False).matrix]
        module = side / len(matrix)
        for y, row in enumerate(matrix):
            x = 0
            for is_dark, run in groupby(row):
                wide = len(list(run))
                if is_dark:
                    # A hair higher, so that no line shows between rows.
                    self.rule(left + x * module, top + y * module, wide * module, module * 1.03, INK)
                x += wide
