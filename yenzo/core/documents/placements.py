"""Placements: how an entry lands in an imprint area, one model a kind, told apart by `kind`."""

from typing import Annotated, Literal, Self

from pydantic import Field, model_validator

from yenzo.core.documents.values import Frozen, Key, Length


class TypefaceSource(Frozen):
    """A typeface that is either fixed by the seller or the entry of a typeface field."""

    fixed: Key | None = None
    field: Key | None = None

    @model_validator(mode="after")
    def _exactly_one(self) -> Self:
        if (self.fixed is None) == (self.field is None):
            raise ValueError('name either "fixed" or "field"')
        return self


class ColorSource(Frozen):
    """A color that is either fixed (palette and color) or the entry of a color field."""

    palette: Key | None = None
    color: Key | None = None
    field: Key | None = None

    @model_validator(mode="after")
    def _exactly_one(self) -> Self:
        fixed = self.palette is not None and self.color is not None
        if fixed == (self.field is not None):
            raise ValueError('name either "palette" and "color", or "field"')
        return self


class PlacementBase(Frozen):
    """What every placement has: its entry's field and the area of a side where it lands."""

    key: Key
    field: Key
    side: Key
    area: Key


class LinePlacement(PlacementBase):
    """A text on a straight line, as large as fits between two letter heights, inside the safe margin."""

    kind: Literal["line"] = "line"
    least_mm: Length
    most_mm: Length
    align: Literal["left", "center", "right"] = "center"
    vertical: Literal["top", "middle", "bottom"] = "middle"
    typeface: TypefaceSource
    color: ColorSource

    @model_validator(mode="after")
    def _ordered(self) -> Self:
        if self.least_mm > self.most_mm:
            raise ValueError(f"the least letter height, {self.least_mm:g} mm, is above the most, {self.most_mm:g} mm")
        return self


class ArtworkPlacement(PlacementBase):
    """A picture that covers its area (bleed included) or fits into it (inside the safe margin)."""

    kind: Literal["artwork"] = "artwork"
    fit: Literal["cover", "contain"] = "cover"


AnyPlacement = Annotated[LinePlacement | ArtworkPlacement, Field(discriminator="kind")]
