"""Outlines: closed contours of lines and cubic curves, in mm (or em, before a size is known), filled nonzero."""

from collections.abc import Iterable, Iterator, Sequence
from dataclasses import dataclass
from functools import cached_property

import numpy as np
import numpy.typing as npt

from yenzo.core.shapes.box import Box
from yenzo.core.shapes.matrix import Matrix

Points = npt.NDArray[np.float64]
POINTS_OF_VERB = {"M": 1, "L": 1, "C": 3, "Z": 0}


@dataclass(frozen=True, eq=False)
class Outline:
    """Verbs M, L, C, Z (move, line, cubic curve, close) and the points they use, shape (n, 2), read-only."""

    verbs: str
    points: Points

    def __post_init__(self) -> None:
        self.points.flags.writeable = False

    @classmethod
    def empty(cls) -> "Outline":
        """Return the outline of nothing."""
        return cls("", np.empty((0, 2)))

    @classmethod
    def rectangle(cls, box: Box) -> "Outline":
        """Return a box as an outline."""
        corners = [(box.left, box.top), (box.right, box.top), (box.right, box.bottom), (box.left, box.bottom)]
        return cls("MLLLZ", np.array(corners, dtype=np.float64))

    @classmethod
    def joined(cls, outlines: Iterable["Outline"]) -> "Outline":
        """Return one outline with all the contours."""
        parts = [outline for outline in outlines if outline.verbs]
        if not parts:
            return cls.empty()
        joined = cls("".join(part.verbs for part in parts), np.concatenate([part.points for part in parts]))
        boxes = [part.__dict__.get("bounds") for part in parts]
        if all(boxes):
            # Parts whose boxes are known make one whose box is; finding it anew costs more than the joining.
            lefts, tops, rights, bottoms = zip(*boxes, strict=True)
            joined.__dict__["bounds"] = Box(min(lefts), min(tops), max(rights), max(bottoms))
        return joined

    @classmethod
    def placed(cls, parts: Sequence[tuple["Outline", float, float]]) -> "Outline":
        """Return one outline with all the contours, each part moved by its x and y: all at once, which is quicker."""
        parts = [part for part in parts if part[0].verbs]
        if not parts:
            return cls.empty()
        outlines = [outline for outline, _, _ in parts]
        moves = np.repeat([(x, y) for _, x, y in parts], [len(outline.points) for outline in outlines], axis=0)
        points = np.concatenate([outline.points for outline in outlines]) + moves
        whole = cls("".join([outline.verbs for outline in outlines]), points)
        known = [(outline.__dict__.get("bounds"), x, y) for outline, x, y in parts]
        boxes = [(box.left + x, box.top + y, box.right + x, box.bottom + y) for box, x, y in known if box]
        if len(boxes) == len(parts):
            lefts, tops, rights, bottoms = zip(*boxes, strict=True)
            whole.__dict__["bounds"] = Box(min(lefts), min(tops), max(rights), max(bottoms))
        return whole

    def __bool__(self) -> bool:
        return bool(self.verbs)

    def shifted(self, x: float, y: float) -> "Outline":
        """Return the outline moved by (x, y)."""
        moved = Outline(self.verbs, self.points + (x, y))
        known = self.__dict__.get("bounds")
        if known is not None:
            moved.__dict__["bounds"] = Box(known.left + x, known.top + y, known.right + x, known.bottom + y)
        return moved

    def mapped(self, matrix: Matrix) -> "Outline":
        """Return the outline under an affine map."""
        linear = np.array([[matrix.a, matrix.b], [matrix.c, matrix.d]])
        mapped = Outline(self.verbs, self.points @ linear + (matrix.e, matrix.f))
        known = self.__dict__.get("bounds")
        if known is not None and matrix.b == matrix.c == 0 and matrix.a > 0 and matrix.d > 0:
            # What only moves and scales takes its box along; finding it anew costs more than the mapping.
            corners = (*matrix.apply(known.left, known.top), *matrix.apply(known.right, known.bottom))
            mapped.__dict__["bounds"] = Box(*corners)
        return mapped

    def steps(self) -> Iterator[tuple[str, list[float]]]:
        """Yield each verb with its coordinates, x and y in turn."""
        flat, start = self.points.ravel().tolist(), 0
        for verb in self.verbs:
            end = start + 2 * POINTS_OF_VERB[verb]
            yield verb, flat[start:end]
            start = end

    @cached_property
    def bounds(self) -> Box | None:
        """The exact box of the ink, curves' extremes included, or None when there is nothing."""
        if not self.verbs:
            return None
        low, high = self._on_curve_extent()
        for extreme in self._curve_extremes():
            low, high = np.minimum(low, extreme), np.maximum(high, extreme)
        return Box(float(low[0]), float(low[1]), float(high[0]), float(high[1]))

    def _on_curve_extent(self) -> tuple[Points, Points]:
        ends = self.points[self._ends]
        return ends.min(axis=0), ends.max(axis=0)

    @cached_property
    def _ends(self) -> npt.NDArray[np.intp]:
        counts = np.array([POINTS_OF_VERB[verb] for verb in self.verbs if verb != "Z"])
        return np.cumsum(counts) - 1

    def _curve_extremes(self) -> Iterator[Points]:
        """Yield points where a cubic's derivative vanishes in x or y, for curves whose controls stick out."""
        is_curve = np.array([verb == "C" for verb in self.verbs if verb != "Z"])
        ends = self._ends[is_curve]
        if not len(ends):
            return
        p0, p1, p2, p3 = (self.points[ends - back] for back in (3, 2, 1, 0))
        a, b, c = p3 - 3 * p2 + 3 * p1 - p0, 2 * (p2 - 2 * p1 + p0), p1 - p0
        with np.errstate(divide="ignore", invalid="ignore", over="ignore"):
            root = np.sqrt(b * b - 4 * a * c)
            # The straight case a = 0 and both roots of the general one, by the stable form of the quadratic.
            q = -0.5 * (b + np.copysign(root, b))
            candidates = np.stack([q / a, c / q, -c / b])
        t = np.where(np.isfinite(candidates) & (candidates > 0) & (candidates < 1), candidates, 0.0)
        u = 1 - t
        values = u**3 * p0 + 3 * u * u * t * p1 + 3 * u * t * t * p2 + t**3 * p3
        yield values.min(axis=(0, 1))
        yield values.max(axis=(0, 1))


def contours_of(outline: Outline) -> Iterator[Outline]:
    """Yield each contour as an outline of its own."""
    start = 0
    for verbs in outline.verbs.split("M")[1:]:
        count = 1 + sum(POINTS_OF_VERB[verb] for verb in verbs)
        yield Outline("M" + verbs, outline.points[start : start + count].copy())
        start += count
