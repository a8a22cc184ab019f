"""The manifest of a pack, `yenzo-manifest/1`: what is in it, for machines and for whoever opens it later."""

from typing import Any, Literal

from pydantic import Field

from yenzo.core.asking.ask import Asked
from yenzo.core.documents.values import Frozen

Kind = Literal["pdf", "svg", "png", "dxf", "ticket", "side", "original"]


class FileEntry(Frozen):
    """A file of the pack with its checksum."""

    name: str
    kind: Kind
    sha256: str
    size_bytes: int


class TextEntry(Frozen):
    """A text as produced, in its lines."""

    field: str
    label: str = Field(default="", description="what people call the field")
    text: str
    lines: tuple[str, ...] = ()
    typeface: str
    letter_height_mm: float
    color: str
    color_reference: str
    ink_mm: tuple[float, float, float, float] = Field(description="left, top, right, bottom in the area, y down")
    turn_deg: float = Field(default=0, description="clockwise, as the customer turned it by hand")


class PictureEntry(Frozen):
    """A picture as placed: the whole one, before it is cut off at the area's edge."""

    field: str
    label: str = ""
    name: str
    width_mm: float
    height_mm: float
    shown_mm: tuple[float, float] = Field(default=(0, 0), description="width and height of what shows in the area")
    dpi: float
    ink_mm: tuple[float, float, float, float] = Field(default=(0, 0, 0, 0), description="its box in the area, y down")
    turn_deg: float = Field(default=0, description="clockwise, as the customer turned it by hand")


class DrawingEntry(Frozen):
    """A drawing as placed; it is in the files as outlines."""

    field: str
    label: str = ""
    name: str
    width_mm: float
    height_mm: float
    color: str = Field(default="", description="when all of it is painted in one of a palette")
    ink_mm: tuple[float, float, float, float] = Field(default=(0, 0, 0, 0), description="its box in the area, y down")
    turn_deg: float = Field(default=0, description="clockwise, as the customer turned it by hand")
    code: str = Field(default="", description="what it says, where it is a QR code")


class PlateEntry(Frozen):
    """A color of an area and its plate: what people call it and how it is made, and what it is called in the files."""

    color: str
    reference: str = ""
    tool: str = ""
    screen: str
    cmyk: tuple[float, float, float, float] | None = Field(default=None, description="in percent")
    spot: str = Field(default="", description="its name as a spot color in PDFs")
    files: tuple[str, ...] = Field(default=(), description="those of its own, where colors have some")


class AreaEntry(Frozen):
    """An imprint area: where it lies, its size, how it is decorated, what lands in it and in which files."""

    side: str
    side_name: str = ""
    area: str
    name: str
    left_mm: float = Field(default=0, description="of its frame, before it is turned, from the left edge of the side")
    top_mm: float = Field(default=0, description="of its frame, before it is turned, from the top edge of the side")
    turn_deg: float = Field(default=0, description="clockwise, about the middle of its frame")
    width_mm: float
    height_mm: float
    bleed_mm: float
    trim_offset_mm: tuple[float, float] = Field(description="of the area in the page of its files")
    method: str
    method_name: str = ""
    dpi: int
    texts: tuple[TextEntry, ...]
    pictures: tuple[PictureEntry, ...]
    drawings: tuple[DrawingEntry, ...] = ()
    plates: tuple[PlateEntry, ...] = Field(default=(), description="where the method has spot colors or separations")
    files: tuple[str, ...]


class SideEntry(Frozen):
    """A side of the goods at its true size, and the file that shows it."""

    side: str
    name: str
    width_mm: float
    height_mm: float
    file: str


class WordedEntry(Frozen):
    """An entry in words: the field, what people call it, and what was entered."""

    field: str
    label: str
    words: str


class Manifest(Frozen):
    """What a pack holds: order, piece, product, revision, engine, entries, areas and files."""

    schema_: Literal["yenzo-manifest/1"] = Field(default="yenzo-manifest/1", alias="schema")
    order: str
    piece: int
    quantity: int
    product: str
    sku: str
    variant: str | None
    variant_name: str = ""
    wanted_by: tuple[WordedEntry, ...] = ()
    revision: str = Field(description="SHA-256 of the set-up document")
    revision_number: int = Field(default=0, description="what people call that revision; 0 where nobody counts")
    engine: str
    entries: dict[str, Any] = Field(description="what was asked, as frozen by the order")
    said: tuple[WordedEntry, ...] = Field(default=(), description="all entries in words, in the order of the form")
    sides: tuple[SideEntry, ...] = ()
    areas: tuple[AreaEntry, ...]
    files: tuple[FileEntry, ...]


def manifest_schema() -> dict[str, Any]:
    """Return the JSON Schema of the manifest."""
    return Manifest.model_json_schema(by_alias=True)


def entries_of(asked: Asked) -> dict[str, Any]:
    """Return what was asked as JSON values."""
    return asked.model_dump(mode="json")
