"""Variants of goods (sizes, materials, colors), and the scale of a picture, which a variant may have of its own."""

import math
from decimal import Decimal
from typing import Annotated, Self

from pydantic import Field, model_validator

from yenzo.core.documents.areas import Frame
from yenzo.core.documents.values import Frozen, Key, Label, Length, Money, Picture, ScreenColor, Text

Properties = dict[
    Annotated[str, Field(pattern=r"^[a-z][a-z0-9_]{0,39}$")],
    Annotated[Decimal, Field(max_digits=15, decimal_places=6, allow_inf_nan=False)],
]


class Scale(Frozen):
    """What the seller marked: two points on the picture (pixels) and what lies between them (mm)."""

    start_px: tuple[float, float]
    end_px: tuple[float, float]
    length_mm: Length

    @model_validator(mode="after")
    def _apart(self) -> Self:
        if math.dist(self.start_px, self.end_px) < 1:
            raise ValueError("the two points of the scale lie on each other; mark two points that are apart")
        return self

    @property
    def px_per_mm(self) -> float:
        """Pixels of the picture to a millimetre of the goods."""
        return math.dist(self.start_px, self.end_px) / self.length_mm


class Variant(Frozen):
    """A size, material or color of the goods, with its price difference, its own pictures, scale and areas."""

    key: Key
    name: Label
    sku: Text = Field(default="", description="what its stock is counted by")
    swatch: ScreenColor | None = None
    at: dict[Key, Key] = Field(default={}, description="by axis: at which of its values it stands")
    price_difference: Money = Field(default="0", validate_default=True)
    pictures: dict[Key, Picture] = {}
    scales: dict[Key, Scale] = Field(default={}, description="by side: what its pictures show, in place of the side's")
    areas: dict[Key, dict[Key, Frame]] = Field(default={}, description="by side and area: where it lies otherwise")
    properties: Properties = Field(default={}, description="in place of the product's own")
