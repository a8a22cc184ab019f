"""Artwork in documents: what an outside file may be, what becomes of it, and how it gets one color."""

from typing import Literal

from pydantic import Field

from yenzo.core.documents.values import Frozen

ArtworkKind = Literal["png", "jpeg", "webp", "tiff", "heic", "svg", "pdf"]
# A picture of pixels, or a drawing of outlines.
Form = Literal["picture", "drawing"]


class OneColor(Frozen):
    """How a file becomes outlines of one color: how dark is ink (0 to 100), and how smooth its edges get, in pixels."""

    threshold: float = Field(default=50, gt=0, lt=100)
    smoothness: float = Field(default=1, ge=0, le=20)
