"""Paints: how a shape is colored, and the layers of a text."""

from dataclasses import dataclass, replace
from typing import Literal

from yenzo.core.shapes.matrix import Matrix
from yenzo.core.shapes.outline import Outline

Role = Literal["plate", "shadow", "stroke", "ink", "pattern"]


@dataclass(frozen=True)
class Paint:
    """A color: how it shows, what the workshop calls it, and how it is printed in process colors, in percent."""

    screen: str
    name: str = ""
    reference: str = ""
    tool: str = ""
    cmyk: tuple[float, float, float, float] | None = None

    def mapped(self, _matrix: Matrix) -> "Paint":
        """Return the paint under an affine map: it stays as it is."""
        return self

    @property
    def colors(self) -> tuple["Paint", ...]:
        """The colors that are needed."""
        return (self,)


@dataclass(frozen=True)
class GradientPaint:
    """A color that goes over into another one between two points in mm, in equal steps of sRGB."""

    start: Paint
    end: Paint
    first_mm: tuple[float, float]
    last_mm: tuple[float, float]

    def mapped(self, matrix: Matrix) -> "GradientPaint":
        """Return the gradient under an affine map that keeps its shape."""
        return replace(self, first_mm=matrix.apply(*self.first_mm), last_mm=matrix.apply(*self.last_mm))

    @property
    def colors(self) -> tuple[Paint, ...]:
        """The colors that are needed."""
        return (self.start, self.end)


Fill = Paint | GradientPaint


@dataclass(frozen=True)
class Layer:
    """One painted shape of a text."""

    outline: Outline
    paint: Fill
    role: Role

    def mapped(self, matrix: Matrix) -> "Layer":
        """Return the layer under an affine map."""
        return Layer(self.outline.mapped(matrix), self.paint.mapped(matrix), self.role)
