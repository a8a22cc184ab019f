"""Imprint areas: their place on a side in mm, their shape, and what the decorator needs to know of them.

A shape fills the frame that the area's place and size give; points are shares of the frame's width and height, so that
resizing the frame resizes the shape. Angles in degrees: 0 right, 90 below, 270 on top.
"""

from typing import Annotated, Literal, Self

from pydantic import Field, model_validator

from yenzo.core.documents.values import Angle, Frozen, Key, Label, Length, Margin, Offset

Share = Annotated[float, Field(ge=0, le=1)]
NUMBER = r"-?\d+(?:\.\d+)?(?:e-?\d+)?"
POINT = rf"\s*{NUMBER}[ ,]+{NUMBER}\s*"
PATH_DATA = rf"^(?:M{POINT}(?:L{POINT}|C{POINT}[ ,]*{POINT}[ ,]*{POINT})+Z\s*)+$"


class Rectangle(Frozen):
    """The whole frame, its corners rounded when they have a radius."""

    kind: Literal["rectangle"] = "rectangle"
    corner_mm: Margin = 0


class Ellipse(Frozen):
    """The ellipse that touches all edges of the frame."""

    kind: Literal["ellipse"] = "ellipse"


class Ring(Frozen):
    """A part of a ring about the middle of the frame; its hole is a share of the outer radius."""

    kind: Literal["ring"] = "ring"
    hole: float = Field(default=0.6, ge=0, lt=1)
    start_deg: Angle = 180
    spread_deg: float = Field(default=180, gt=0, le=360)


class Polygon(Frozen):
    """Straight edges between points, in order."""

    kind: Literal["polygon"] = "polygon"
    points: tuple[tuple[Share, Share], ...] = Field(min_length=3, max_length=200)


class FreePath(Frozen):
    """A free outline as path data of SVG: M, L, C and Z with absolute shares of the frame, every contour closed."""

    kind: Literal["path"] = "path"
    data: str = Field(pattern=PATH_DATA, max_length=60_000)


Shape = Annotated[Rectangle | Ellipse | Ring | Polygon | FreePath, Field(discriminator="kind")]


class Area(Frozen):
    """An imprint area on a side, with its decoration method, bleed, safe margin and resolution.

    (x_mm, y_mm) is the top left corner of its frame before the frame is turned about its middle. `under` means that the
    goods' picture lies over what is printed, as artwork behind a window.
    """

    key: Key
    name: Label
    x_mm: Offset
    y_mm: Offset
    width_mm: Length
    height_mm: Length
    method: Key
    shape: Shape = Rectangle()
    turn_deg: Angle = 0
    under: bool = False
    bleed_mm: Margin = 0
    safe_mm: Margin = 0
    dpi: int = Field(default=300, ge=36, le=2400)

    @property
    def is_frame(self) -> bool:
        """Whether the area is its whole frame, with sharp corners."""
        return isinstance(self.shape, Rectangle) and not self.shape.corner_mm

    @model_validator(mode="after")
    def _room_inside(self) -> Self:
        if 2 * self.safe_mm >= min(self.width_mm, self.height_mm):
            raise ValueError(f"a safe margin of {self.safe_mm:g} mm leaves nothing of the area “{self.name}”")
        if isinstance(self.shape, Rectangle) and 2 * self.shape.corner_mm > min(self.width_mm, self.height_mm):
            raise ValueError(f"corners of {self.shape.corner_mm:g} mm are too round for the area “{self.name}”")
        return self
