"""Boxes: an upright rectangle by its edges in millimetres."""

from typing import NamedTuple


class Box(NamedTuple):
    """An upright rectangle; x to the right, y down."""

    left: float
    top: float
    right: float
    bottom: float

    @property
    def width(self) -> float:
        """Width in mm."""
        return self.right - self.left

    @property
    def height(self) -> float:
        """Height in mm."""
        return self.bottom - self.top

    @property
    def middle(self) -> tuple[float, float]:
        """The point in the middle."""
        return (self.left + self.right) / 2, (self.top + self.bottom) / 2

    def grown(self, margin_mm: float) -> "Box":
        """Return the box with a margin added on every edge (taken away when negative)."""
        return Box(self.left - margin_mm, self.top - margin_mm, self.right + margin_mm, self.bottom + margin_mm)

    def around(self, other: "Box") -> "Box":
        """Return the least box that holds both."""
        return Box(
            min(self.left, other.left),
            min(self.top, other.top),
            max(self.right, other.right),
            max(self.bottom, other.bottom),
        )

    def within(self, other: "Box") -> "Box":
        """Return what both boxes cover; without width or height when they are apart."""
        left, top = max(self.left, other.left), max(self.top, other.top)
        return Box(left, top, max(left, min(self.right, other.right)), max(top, min(self.bottom, other.bottom)))

    def meets(self, other: "Box") -> bool:
        """Tell whether both boxes cover something in common."""
        common = self.within(other)
        return common.width > 0 and common.height > 0

    def excess_over(self, outer: "Box") -> float:
        """Return by how many mm this box leaves `outer` at its worst edge; 0 when it is inside."""
        return max(
            outer.left - self.left,
            outer.top - self.top,
            self.right - outer.right,
            self.bottom - outer.bottom,
            0.0,
        )
