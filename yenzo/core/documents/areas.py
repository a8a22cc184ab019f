"""Imprint areas: their place on a side in mm, their shape, and what the decorator needs to know of them.

A shape fills the frame that the area's place and size give; points are shares of the frame's width and height, so that
resizing the frame resizes the shape. Angles in degrees: 0 right, 90 below, 270 on top.
"""

from typing import Annotated, Literal, Self

from pydantic import Field, model_validator

from yenzo.core.documents.values import Angle, Frozen, Key, Label, Length, Margin, Offset

Point = tuple[Offset, Offset]
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


class Flat(Frozen):
    """The area lies in the plane of the picture."""

    kind: Literal["flat"] = "flat"


class Cylinder(Frozen):
    """The area is wrapped round a cylinder: its width (its height, when the axis lies across) spans an angle of it.

    A camera that looks down by `tilt_deg` sees the rounds as arcs that hang down in the middle.
    """

    kind: Literal["cylinder"] = "cylinder"
    axis: Literal["upright", "across"] = "upright"
    span_deg: float = Field(ge=1, le=178)
    tilt_deg: float = Field(default=0, ge=-60, le=60)


class FourCorners(Frozen):
    """The area was seen at an angle: how far each corner of its frame shows from where it would lie flat, in mm.

    Top left, top right, bottom right, bottom left; what lies between follows by perspective.
    """

    kind: Literal["corners"] = "corners"
    corners_mm: tuple[Point, Point, Point, Point]


Surface = Annotated[Flat | Cylinder | FourCorners, Field(discriminator="kind")]


class Frame(Frozen):
    """Where an area lies before it is turned, in mm of its side."""

    x_mm: Offset
    y_mm: Offset
    width_mm: Length
    height_mm: Length


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
    method_field: Key | None = Field(default=None, description="whose entry is the method, in place of the one named")
    shape: Shape = Rectangle()
    surface: Surface = Flat()
    turn_deg: Angle = 0
    under: bool = False
    bleed_mm: Margin = 0
    safe_mm: Margin = 0
    dpi: int = Field(default=300, ge=36, le=2400)
    locked: bool = Field(default=False, description="whether nothing in it can be changed by hand, whatever is free")
    most_items: int | None = Field(default=None, ge=1, le=200, description="of own items; none: as many as are asked")

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
        if isinstance(self.surface, FourCorners) and not _is_convex(self.shown_corners()):
            raise ValueError(f"the four corners of the area “{self.name}” don't span a surface that could be seen")
        return self

    def shown_corners(self) -> tuple[Point, ...]:
        """Return where the corners of the frame show, in mm of the area."""
        flat = ((0.0, 0.0), (self.width_mm, 0.0), (self.width_mm, self.height_mm), (0.0, self.height_mm))
        moved = self.surface.corners_mm if isinstance(self.surface, FourCorners) else ((0.0, 0.0),) * 4
        return tuple((x + dx, y + dy) for (x, y), (dx, dy) in zip(flat, moved, strict=True))


def _is_convex(corners: tuple[Point, ...]) -> bool:
    """Tell whether corners turn clockwise (as y points down) all the way round."""
    count = len(corners)
    for index in range(count):
        (ax, ay), (bx, by), (cx, cy) = (corners[(index + step) % count] for step in range(3))
        if (bx - ax) * (cy - by) - (by - ay) * (cx - bx) <= 1e-6:
            return False
    return True
