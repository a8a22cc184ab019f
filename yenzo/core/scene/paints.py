"""Paints: how a shape is colored, and the layers of a text."""

import math
from dataclasses import dataclass, replace
from typing import Literal

from yenzo.core.shapes.matrix import Matrix
from yenzo.core.shapes.outline import Outline

# Plates of these names are all of them, and none (ISO 32000-2, 8.6.6.4); a color may be called so.
RESERVED = frozenset({"All", "None"})
Role = Literal["plate", "shadow", "stroke", "ink", "pattern"]


@dataclass(frozen=True)
class Paint:
    """A color: how it shows, what the workshop calls it, and how it is printed in process colors, in percent.

    `is_registration` says that it is on every plate, as marks are.
    """

    screen: str
    name: str = ""
    reference: str = ""
    tool: str = ""
    cmyk: tuple[float, float, float, float] | None = None
    is_registration: bool = False

    @property
    def plate(self) -> str:
        """What its plate is called: name and reference, but never what has a meaning of its own."""
        name = " ".join(filter(None, (self.name, self.reference))) or self.screen
        return f"{name} (ink)" if name in RESERVED else name

    def mapped(self, _matrix: Matrix) -> "Paint":
        """Return the paint under an affine map: it stays as it is."""
        return self

    @property
    def colors(self) -> tuple["Paint", ...]:
        """The colors that are needed."""
        return (self,)


class PlateNames:
    """What the plates of a file are called: two of one name and reference that look otherwise are two plates."""

    def __init__(self) -> None:
        self._taken: dict[str, str] = {}

    def of(self, paint: Paint) -> str:
        """Return the name of a color's plate; marks are on all."""
        name = "All" if paint.is_registration else paint.plate
        taken = self._taken.setdefault(name, paint.screen)
        return name if taken == paint.screen else f"{name} {paint.screen}"


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
    """One painted shape of a text; `detail` is how wide its lines or tiles are drawn, and the gaps between them, in mm.

    A line round letters has no gaps; what isn't drawn by numbers has no detail.
    """

    outline: Outline
    paint: Fill
    role: Role
    detail: tuple[float, float] | None = None

    def mapped(self, matrix: Matrix) -> "Layer":
        """Return the layer under an affine map that keeps its shape."""
        scale = math.hypot(matrix.a, matrix.b)
        detail = (self.detail[0] * scale, self.detail[1] * scale) if self.detail else None
        return Layer(self.outline.mapped(matrix), self.paint.mapped(matrix), self.role, detail)
