"""The frozen nodes of a scene. All back-ends, preview included, draw from these and decide nothing."""

import hashlib
import json
from collections.abc import Iterator
from dataclasses import dataclass
from functools import cached_property, reduce

import numpy as np

from yenzo.core.artwork.drawing import Drawing, DrawnPart
from yenzo.core.documents.areas import Area
from yenzo.core.measure import dpi_of, plain_number
from yenzo.core.scene.moved import Moved
from yenzo.core.scene.paints import Fill, GradientPaint, Layer, Paint
from yenzo.core.shapes.areas import bleed_outline, place_on_side, safe_outline, trim_outline
from yenzo.core.shapes.box import Box
from yenzo.core.shapes.matrix import Matrix
from yenzo.core.shapes.outline import Outline
from yenzo.core.shapes.surfaces import SurfaceWarp, surface_warp
from yenzo.core.text.lowest import LowLetter
from yenzo.core.text.thin import ThinPlaces


@dataclass(frozen=True)
class Lettering:
    """A text that is set: outline in mm of its area, and what a ticket says of it.

    `line` is what a tool follows where the typeface has single lines; the outline is then what the tool makes of it.
    `fields` are all whose entries make the text; `field` is the first of them that is filled. `thin` is known where the
    method has limits and no effect makes the strokes thicker, `lowest` where a letter may be lower than it can be made.
    `drops_effects` says that the text is too long for them. `is_bent` says that its base line is no straight one,
    `has_bent_letters` that letters, which join, are bent along.
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
    is_tangled: bool = False
    line_near_edge: bool = False
    may_overlap: bool = False
    drops_effects: bool = False
    is_bent: bool = False
    has_bent_letters: bool = False
    effects: tuple[Layer, ...] = ()
    thin: ThinPlaces | None = None
    lowest: LowLetter | None = None
    line: Outline | None = None
    moved: Moved | None = None

    @property
    def layers(self) -> tuple[Layer, ...]:
        """What is painted, first what lies lowest: the effects' layers, or the ink alone."""
        return self.effects or (Layer(self.outline, self.paint, "ink"),)

    @cached_property
    def bounds(self) -> Box | None:
        """The box of all that is painted."""
        boxes = [box for layer in self.layers if (box := layer.outline.bounds)]
        return reduce(Box.around, boxes) if boxes else None

    @cached_property
    def canonical(self) -> bytes:
        """What tells it from other texts in digests: colors, and outlines in micrometres, as files have them."""
        return b"".join(part for layer in self.layers for part in _canonical_layer(layer))


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
    see_through: bool = False
    moved: Moved | None = None

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

    @cached_property
    def bounds(self) -> Box:
        """The box of the whole picture as placed."""
        return _box_of_square(self.matrix)

    @property
    def canonical(self) -> bytes:
        """What tells it from other pictures in digests: its content is in its hash."""
        return json.dumps([self.asset, *_numbers(*self.matrix)]).encode()


@dataclass(frozen=True)
class CodeFacts:
    """What a code holds, how many modules wide it is, and how much of it may be lost (l, m, q, h)."""

    text: str
    modules: int
    level: str


@dataclass(frozen=True)
class PlacedDrawing:
    """A drawing that is placed: `matrix` takes its own units to mm of its area; with a paint all of it has that one."""

    placement: str
    field: str
    name: str
    asset: str
    drawing: Drawing
    matrix: Matrix
    paint: Paint | None = None
    undecided: tuple[str, ...] = ()
    moved: Moved | None = None
    code: CodeFacts | None = None

    @property
    def text(self) -> str:
        """What findings call it."""
        return self.name

    @property
    def fields(self) -> tuple[str, ...]:
        """The field whose entry it is."""
        return (self.field,)

    @cached_property
    def scale(self) -> float:
        """Millimetres of a unit of the drawing."""
        return float(np.hypot(self.matrix.a, self.matrix.b))

    @property
    def size_mm(self) -> tuple[float, float]:
        """Width and height of the whole drawing as placed, before any clipping."""
        return self.drawing.width * self.scale, self.drawing.height * self.scale

    @cached_property
    def bounds(self) -> Box:
        """The box of the whole drawing as placed."""
        return _box_of_square(self.whole)

    @property
    def whole(self) -> Matrix:
        """The map from the unit square to mm of the area, as pictures have it."""
        return Matrix(self.drawing.width, 0, 0, self.drawing.height, 0, 0).then(self.matrix)

    @cached_property
    def canonical(self) -> bytes:
        """What tells it from other drawings in digests: its content is in its hash, its many points tell no more."""
        paint = self.paint.screen if self.paint else ""
        return json.dumps([self.asset, paint, *(plain_number(value, 9) for value in self.matrix)]).encode()

    @cached_property
    def layers(self) -> tuple[Layer, ...]:
        """What is painted, in mm of the area, first what lies lowest."""
        if self.paint is not None:
            return (Layer(self.drawing.ink, self.paint, "ink").mapped(self.matrix),)
        return tuple(Layer(part.outline, _paint_of(part), "ink").mapped(self.matrix) for part in self.drawing.parts)


def _box_of_square(matrix: Matrix) -> Box:
    """Return the box of the unit square under an affine map."""
    xs, ys = zip(*(matrix.apply(x, y) for x, y in ((0, 0), (1, 0), (1, 1), (0, 1))), strict=True)
    return Box(min(xs), min(ys), max(xs), max(ys))


def _paint_of(part: DrawnPart) -> Fill:
    if part.blend is None:
        return Paint(part.color)
    return GradientPaint(Paint(part.color), Paint(part.blend.to_color), part.blend.first, part.blend.last)


Node = Lettering | PlacedPicture | PlacedDrawing
Painted = Lettering | PlacedDrawing


@dataclass(frozen=True)
class AreaScene:
    """An imprint area of a side with what lands in it, in the area's own mm; `ground` is the goods' color there."""

    side: str
    area: Area
    nodes: tuple[Node, ...]
    ground: str | None = None

    @property
    def key(self) -> str:
        """The area's key on its side."""
        return self.area.key

    @property
    def name(self) -> str:
        """What people call the area."""
        return self.area.name

    @property
    def method(self) -> str:
        """The key of its decoration method."""
        return self.area.method

    @cached_property
    def place(self) -> Matrix:
        """The map from the area's mm to its side's: turned about its middle, moved to its place."""
        return place_on_side(self.area)

    @property
    def trim(self) -> Box:
        """The area's frame."""
        return Box(0, 0, self.area.width_mm, self.area.height_mm)

    @property
    def bleed(self) -> Box:
        """The frame with its bleed: the page of every file of this area."""
        return self.trim.grown(self.area.bleed_mm)

    @property
    def safe(self) -> Box:
        """The frame without its safe margin."""
        return self.trim.grown(-self.area.safe_mm)

    def shown_size(self, artwork: PlacedPicture | PlacedDrawing) -> tuple[float, float]:
        """Return width and height in mm of what shows of an artwork: the box of what lies inside the area."""
        shown = artwork.bounds.within(self.trim)
        return shown.width, shown.height

    @cached_property
    def trim_outline(self) -> Outline:
        """The area's own shape."""
        return trim_outline(self.area)

    @cached_property
    def warp(self) -> SurfaceWarp | None:
        """How its surface bends what lies in it where it shows; None where it is flat."""
        return surface_warp(self.area)

    @property
    def bleed_outline(self) -> Outline:
        """The shape with its bleed around it: what pictures are cut off at in files."""
        return bleed_outline(self.area)

    @property
    def safe_outline(self) -> Outline:
        """The shape without its safe margin."""
        return safe_outline(self.area)

    @cached_property
    def canonical(self) -> bytes:
        """What tells it from other areas in digests, with all that lies in it."""
        head = json.dumps([self.key, *_numbers(*self.place, *self.trim)]).encode()
        is_plain = self.area.is_frame and not self.area.under and self.area.surface.kind == "flat"
        shape = b"" if is_plain else f"{self.area.shape!r}{self.area.under}{self.area.surface!r}".encode()
        return b"".join((head, shape, *(node.canonical for node in self.nodes)))

    @property
    def letterings(self) -> Iterator[Lettering]:
        """The texts that landed here."""
        return (node for node in self.nodes if isinstance(node, Lettering))

    @property
    def drawings(self) -> Iterator[PlacedDrawing]:
        """The drawings that landed here."""
        return (node for node in self.nodes if isinstance(node, PlacedDrawing))

    @property
    def painted(self) -> Iterator[Painted]:
        """All that landed here as outlines, in painting order."""
        return (node for node in self.nodes if not isinstance(node, PlacedPicture))

    @property
    def pictures(self) -> Iterator[PlacedPicture]:
        """The pictures that landed here."""
        return (node for node in self.nodes if isinstance(node, PlacedPicture))


@dataclass(frozen=True)
class SideScene:
    """A side of the goods: its picture, what lies over it, its size in mm, and its areas in painting order."""

    key: str
    name: str
    picture: str
    width_mm: float
    height_mm: float
    areas: tuple[AreaScene, ...]
    overlays: tuple[str, ...] = ()

    @cached_property
    def digest(self) -> str:
        """A digest of all that shows on this side: equal digests, equal pictures."""
        digest = hashlib.sha256()
        for part in self._canonical():
            digest.update(part)
        return digest.hexdigest()[:20]

    def _canonical(self) -> Iterator[bytes]:
        yield json.dumps([self.key, self.picture, *_numbers(self.width_mm, self.height_mm)]).encode()
        yield "".join(self.overlays).encode()
        for area in self.areas:
            yield area.canonical


def _canonical_layer(layer: Layer) -> Iterator[bytes]:
    gradient = layer.paint if isinstance(layer.paint, GradientPaint) else None
    colors = " ".join(paint.screen for paint in layer.paint.colors)
    ends = [*gradient.first_mm, *gradient.last_mm] if gradient else []
    yield f"{colors}{_numbers(*ends)}{layer.outline.verbs}".encode()
    # Micrometres, as the back-ends write them.
    yield np.rint(layer.outline.points * 1000).astype("<i8").tobytes()


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
