"""The frozen nodes of a scene. All back-ends, preview included, draw from these and decide nothing."""

import hashlib
import json
from collections.abc import Iterator
from dataclasses import dataclass
from functools import cached_property

import numpy as np

from yenzo.core.measure import dpi_of, plain_number
from yenzo.core.shapes.box import Box
from yenzo.core.shapes.matrix import Matrix
from yenzo.core.shapes.outline import Outline


@dataclass(frozen=True)
class Paint:
    """A color: how it shows, and what the workshop calls it."""

    screen: str
    name: str = ""
    reference: str = ""


@dataclass(frozen=True)
class Lettering:
    """A text that is set: outline in mm of its area, and what a ticket says of it.

    `fields` are all whose entries make the text; `field` is the first of them that is filled.
    """

    placement: str
    field: str
    text: str
    typeface: str
    typeface_name: str
    letter_height_mm: float
    least_mm: float
    outline: Outline
    paint: Paint
    missing: tuple[str, ...] = ()
    undecided: tuple[str, ...] = ()
    fields: tuple[str, ...] = ()
    lines: tuple[str, ...] = ()
    overflow_mm: float = 0.0
    breaks_joins: bool = False


@dataclass(frozen=True)
class PlacedPicture:
    """A picture that is placed: `matrix` takes the unit square (y down) to mm of its area."""

    placement: str
    field: str
    name: str
    asset: str
    width_px: int
    height_px: int
    matrix: Matrix

    @property
    def fields(self) -> tuple[str, ...]:
        """The field whose entry it is."""
        return (self.field,)

    @property
    def size_mm(self) -> tuple[float, float]:
        """Width and height of the whole picture as placed, before any clipping."""
        a, b, c, d, _, _ = self.matrix
        return float(np.hypot(a, b)), float(np.hypot(c, d))

    @property
    def dpi(self) -> float:
        """Resolution at the placed size (the same both ways: pictures keep their ratio)."""
        return dpi_of(self.width_px, self.size_mm[0])

    @property
    def bounds(self) -> Box:
        """The box of the whole picture as placed."""
        corners = [self.matrix.apply(x, y) for x, y in ((0, 0), (1, 0), (1, 1), (0, 1))]
        xs, ys = zip(*corners, strict=True)
        return Box(min(xs), min(ys), max(xs), max(ys))


Node = Lettering | PlacedPicture


@dataclass(frozen=True)
class AreaScene:
    """An imprint area with what lands in it, in the area's own mm; (x_mm, y_mm) is its place on the side."""

    side: str
    key: str
    name: str
    x_mm: float
    y_mm: float
    width_mm: float
    height_mm: float
    bleed_mm: float
    safe_mm: float
    method: str
    dpi: int
    nodes: tuple[Node, ...]

    @property
    def trim(self) -> Box:
        """The area itself."""
        return Box(0, 0, self.width_mm, self.height_mm)

    @property
    def bleed(self) -> Box:
        """The area with its bleed: the page of every file of this area."""
        return self.trim.grown(self.bleed_mm)

    @property
    def safe(self) -> Box:
        """The area without its safe margin."""
        return self.trim.grown(-self.safe_mm)

    @property
    def letterings(self) -> Iterator[Lettering]:
        """The texts that landed here."""
        return (node for node in self.nodes if isinstance(node, Lettering))

    @property
    def pictures(self) -> Iterator[PlacedPicture]:
        """The pictures that landed here."""
        return (node for node in self.nodes if isinstance(node, PlacedPicture))


@dataclass(frozen=True)
class SideScene:
    """A side of the goods: its picture, its size in mm, and its areas in painting order."""

    key: str
    name: str
    picture: str
    width_mm: float
    height_mm: float
    areas: tuple[AreaScene, ...]

    @cached_property
    def digest(self) -> str:
        """A digest of all that shows on this side: equal digests, equal pictures."""
        digest = hashlib.sha256()
        for part in self._canonical():
            digest.update(part)
        return digest.hexdigest()[:20]

    def _canonical(self) -> Iterator[bytes]:
        yield json.dumps([self.key, self.picture, *_numbers(self.width_mm, self.height_mm)]).encode()
        for area in self.areas:
            yield json.dumps([area.key, *_numbers(area.x_mm, area.y_mm, area.width_mm, area.height_mm)]).encode()
            for node in area.nodes:
                yield from _canonical_node(node)


def _canonical_node(node: Node) -> Iterator[bytes]:
    if isinstance(node, PlacedPicture):
        yield json.dumps([node.asset, *_numbers(*node.matrix)]).encode()
    else:
        yield f"{node.paint.screen}{node.outline.verbs}".encode()
        # Micrometres, as the back-ends write them.
        yield np.rint(node.outline.points * 1000).astype("<i8").tobytes()


def _numbers(*values: float) -> list[str]:
    return [plain_number(value, 5) for value in values]


@dataclass(frozen=True)
class Scene:
    """What one piece looks like: every side that has a scale."""

    sides: tuple[SideScene, ...]

    def side(self, key: str) -> SideScene | None:
        """Return the side with this key, if the scene has it."""
        return next((side for side in self.sides if side.key == key), None)

    @property
    def areas(self) -> Iterator[AreaScene]:
        """All areas of all sides."""
        return (area for side in self.sides for area in side.areas)
