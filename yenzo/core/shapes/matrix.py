"""Affine maps: a point comes in, the mapped point goes out. x' = a x + c y + e, y' = b x + d y + f."""

import math
from typing import NamedTuple


class Matrix(NamedTuple):
    """An affine map in the order of PDF and SVG: (a b c d e f)."""

    a: float = 1.0
    b: float = 0.0
    c: float = 0.0
    d: float = 1.0
    e: float = 0.0
    f: float = 0.0

    def then(self, after: "Matrix") -> "Matrix":
        """Return the map that applies this one first and `after` next."""
        return Matrix(
            after.a * self.a + after.c * self.b,
            after.b * self.a + after.d * self.b,
            after.a * self.c + after.c * self.d,
            after.b * self.c + after.d * self.d,
            after.a * self.e + after.c * self.f + after.e,
            after.b * self.e + after.d * self.f + after.f,
        )

    def apply(self, x: float, y: float) -> tuple[float, float]:
        """Return the mapped point."""
        return self.a * x + self.c * y + self.e, self.b * x + self.d * y + self.f

    @classmethod
    def shift(cls, x: float, y: float) -> "Matrix":
        """Return the map that moves by (x, y)."""
        return cls(e=x, f=y)

    @classmethod
    def about(cls, x: float, y: float, *, turn_deg: float, scale: float) -> "Matrix":
        """Return the map that scales and turns (clockwise, as y points down) about a point."""
        cosine, sine = scale * math.cos(math.radians(turn_deg)), scale * math.sin(math.radians(turn_deg))
        turned = cls(cosine, sine, -sine, cosine, 0, 0)
        return cls.shift(-x, -y).then(turned).then(cls.shift(x, y))
