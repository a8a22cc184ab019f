"""Artwork in documents: what an outside file may be, what becomes of it, and how it gets one color."""

from typing import Literal

from pydantic import Field

from yenzo.core.documents.values import Frozen, Sha256, Text

ArtworkKind = Literal["png", "jpeg", "webp", "tiff", "heic", "svg", "pdf"]
# A picture of pixels, or a drawing of outlines.
Form = Literal["picture", "drawing"]


class OneColor(Frozen):
    """How a file becomes outlines of one color: how dark is ink (0 to 100), and how smooth its edges get, in pixels."""

    threshold: float = Field(default=50, gt=0, lt=100)
    smoothness: float = Field(default=1, ge=0, le=20)


class UploadedFile(Frozen):
    """An upload after inspection: the file as received and what the core prepared from it.

    That is a picture (PNG or JPEG, sRGB, upright) or a drawing (SVG of plain outlines), perhaps in one color.
    """

    name: Text
    original: Sha256
    prepared: Sha256
    kind: Text
    form: Form = "picture"
    one_color: bool = False
    see_through: bool = Field(default=False, description="whether a picture has parts that aren't opaque")
    width_px: int = Field(gt=0, le=100_000, description="of the prepared picture; units of its own in a drawing")
    height_px: int = Field(gt=0, le=100_000, description="of the prepared picture; units of its own in a drawing")
    size_bytes: int = Field(default=0, ge=0, description="of the file as received; 0 when it isn't known")
