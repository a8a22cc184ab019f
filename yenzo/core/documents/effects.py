"""Effects of a text: a stroke, a shadow, a plate, a second color; each is geometry, so that every file has it alike."""

from collections.abc import Container
from typing import Annotated, Literal, Self

from pydantic import Field, model_validator

from yenzo.core.documents.values import Angle, Frozen, Key, Length, Margin, Offset


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


class Stroke(Frozen):
    """A line along the edge of the letters: outside it (its whole width shows) or centered on it (above the fill)."""

    width_mm: Length
    color: ColorSource
    place: Literal["outside", "centered"] = "outside"


class Shadow(Frozen):
    """The letters once more, moved, under everything else of the text."""

    across_mm: Offset
    down_mm: Offset
    color: ColorSource


class Plate(Frozen):
    """A plate that grows with its text; `knock_out` cuts the letters out of it instead of printing them on it."""

    margin_mm: Margin
    corner_mm: Margin = 0
    color: ColorSource
    knock_out: bool = False


class Gradient(Frozen):
    """The fill goes over into a second color, in the direction of an angle (0 to the right, 90 down)."""

    kind: Literal["gradient"] = "gradient"
    color: ColorSource
    angle_deg: Angle = 90


class Pattern(Frozen):
    """The fill carries a pattern in a second color; `size_mm` is from one stripe, dot or square to the next."""

    kind: Literal["stripes", "dots", "checks"]
    color: ColorSource
    size_mm: Length
    angle_deg: Angle = 0


SecondFill = Annotated[Gradient | Pattern, Field(discriminator="kind")]


class Effects(Frozen):
    """All effects of a text; None is none."""

    stroke: Stroke | None = None
    shadow: Shadow | None = None
    plate: Plate | None = None
    fill: SecondFill | None = None

    @property
    def names(self) -> tuple[Literal["stroke", "shadow", "plate", "fill"], ...]:
        """The effects that there are."""
        names: tuple[Literal["stroke", "shadow", "plate", "fill"], ...] = ("stroke", "shadow", "plate", "fill")
        return tuple(name for name in names if getattr(self, name) is not None)

    def only(self, names: Container[str]) -> "Effects":
        """Return those of the effects that are named."""
        return Effects(**{name: getattr(self, name) for name in self.names if name in names})

    @property
    def colors(self) -> tuple[ColorSource, ...]:
        """The sources of all colors that the effects use."""
        return tuple(effect.color for effect in (self.stroke, self.shadow, self.plate, self.fill) if effect)
