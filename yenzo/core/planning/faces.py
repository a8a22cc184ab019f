"""The faces that tickets and sheets are lettered in: a face's name comes in, its font goes out."""

from functools import lru_cache
from pathlib import Path

from yenzo.core.text.fonts import Font

FONTS_FOLDER = Path(__file__).parent / "fonts"
# One for headings, one for words, and one that tells 0 from O and l from I for exact strings.
HEADING, TEXT, EXACT = "heading", "text", "mono"
FACES = (HEADING, TEXT, EXACT)


def face_path(face: str) -> Path:
    """Return where the font file of a face lies."""
    return FONTS_FOLDER / f"ticket-{face}.ttf"


@lru_cache(maxsize=len(FACES))
def face_font(face: str) -> Font:
    """Return the font of a face, to draw outlines with."""
    path = face_path(face)
    return Font(path.read_bytes(), path.name)
