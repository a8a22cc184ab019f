"""Drawings: what is left of an outside vector file, outlines with plain colors, as the core keeps and reads it.

The kept form is an SVG file of filled paths only, in units of its own, so that any program can look at it.
"""

import re
from dataclasses import dataclass, replace
from functools import cached_property, reduce

import numpy as np
from lxml import etree

from yenzo.core.caching import SizedCache
from yenzo.core.documents.assets import Assets
from yenzo.core.errors import AssetError, ShapeError
from yenzo.core.measure import plain_number
from yenzo.core.shapes.booleans import difference, intersection, union
from yenzo.core.shapes.box import Box
from yenzo.core.shapes.matrix import Matrix
from yenzo.core.shapes.outline import POINTS_OF_VERB, Outline

# The longer side of a drawing, in its own units; two decimals are a seventh of a micrometre on a decimetre.
LONGER_SIDE, PLACES = 7500, 2
# Path operations are exact on outlines of about this size, and wrong on much larger ones: to it, and back.
TO_SHAPES, FROM_SHAPES = Matrix(0.01, 0, 0, 0.01, 0, 0), Matrix(100, 0, 0, 100, 0, 0)
SVG = "{http://www.w3.org/2000/svg}"
STEP = re.compile(r"[MLCZ]|-?[0-9]*\.?[0-9]+(?:e-?[0-9]+)?")
COLOR = re.compile(r"#[0-9a-f]{6}")
MOST_DRAWING_BYTES = 100_000_000
# Of 255: paler than any color that somebody means to show.
WHITE_FROM = 247


@dataclass(frozen=True)
class Blend:
    """A color that goes over into another one between two points."""

    to_color: str
    first: tuple[float, float]
    last: tuple[float, float]


@dataclass(frozen=True, eq=False)
class DrawnPart:
    """One filled outline in the drawing's units; the color is written #rrggbb."""

    outline: Outline
    color: str
    blend: Blend | None = None

    @property
    def is_paper(self) -> bool:
        """Whether it is white, as paper is."""
        return self.blend is None and all(int(self.color[at : at + 2], 16) >= WHITE_FROM for at in (1, 3, 5))

    def mapped(self, matrix: Matrix) -> "DrawnPart":
        """Return the part under an affine map."""
        blend = self.blend
        if blend is not None:
            blend = replace(blend, first=matrix.apply(*blend.first), last=matrix.apply(*blend.last))
        return DrawnPart(self.outline.mapped(matrix), self.color, blend)


@dataclass(frozen=True, eq=False)
class Drawing:
    """A drawing of a size in units, y down, and its parts in painting order."""

    width: int
    height: int
    parts: tuple[DrawnPart, ...]

    @classmethod
    def scaled(cls, width: float, height: float, parts: tuple[DrawnPart, ...]) -> "Drawing":
        """Return the drawing whose longer side is `LONGER_SIDE`, whatever it was measured in."""
        by = LONGER_SIDE / max(width, height)
        sized = Matrix(by, 0, 0, by, 0, 0)
        # Rounded up: less than a unit of empty border on the shorter side.
        high, wide = (max(1, int(np.ceil(side * by - 1e-6))) for side in (height, width))
        return cls(wide, high, tuple(part.mapped(sized) for part in parts))

    @cached_property
    def point_count(self) -> int:
        """Points of all outlines: what it costs to draw."""
        return sum(len(part.outline.points) for part in self.parts)

    @cached_property
    def ink(self) -> Outline:
        """What is drawn, in one color: white is paper, cut out of what lies below, unless all is white."""
        whole = Outline.joined(part.outline for part in self.parts)
        if not any(part.is_paper for part in self.parts):
            return whole
        inked = Outline.empty()
        try:
            for part in self.parts:
                outline = part.outline.mapped(TO_SHAPES)
                inked = difference(inked, outline) if part.is_paper else union([inked, outline])
        except ShapeError:
            # Too tangled to be worked on: preflight finds that.
            return whole
        return inked.mapped(FROM_SHAPES) if inked else whole

    @cached_property
    def bounds(self) -> Box | None:
        """The box of all ink."""
        boxes = [box for part in self.parts if (box := part.outline.bounds)]
        return reduce(Box.around, boxes) if boxes else None

    def turned(self, quarters: int) -> "Drawing":
        """Return the drawing turned clockwise by so many quarters."""
        wide, high = self.width, self.height
        ways = {1: Matrix(0, 1, -1, 0, high, 0), 2: Matrix(-1, 0, 0, -1, wide, high), 3: Matrix(0, -1, 1, 0, 0, wide)}
        if quarters not in ways:
            return self
        size = (high, wide) if quarters % 2 else (wide, high)
        return Drawing(*size, tuple(part.mapped(ways[quarters]) for part in self.parts))

    def cut(self, box: Box) -> "Drawing":
        """Return what lies in a box, cut off at its edges, as a drawing of that size."""
        frame = Outline.rectangle(box).mapped(TO_SHAPES)
        kept = []
        for part in self.parts:
            inside = intersection(part.outline.mapped(TO_SHAPES), frame)
            if inside:
                kept.append(DrawnPart(inside.mapped(FROM_SHAPES), part.color, part.blend))
        moved = Matrix.shift(-box.left, -box.top)
        return Drawing.scaled(box.width, box.height, tuple(part.mapped(moved) for part in kept))

    def cropped(self, box: Box) -> "Drawing":
        """Return what lies in a box, as a drawing of that size (nothing is cut: the box holds all ink)."""
        moved = Matrix.shift(-box.left, -box.top)
        return Drawing.scaled(box.width, box.height, tuple(part.mapped(moved) for part in self.parts))


def outline_of_data(data: str) -> tuple[str, list[float]]:
    """Return verbs and coordinates of path data that has only absolute M, L, C and Z; raises ValueError."""
    verbs: list[str] = []
    numbers: list[float] = []
    due = 0
    for step in STEP.findall(data):
        if step in POINTS_OF_VERB:
            if due:
                raise ValueError(f"“{verbs[-1]}” lacks {due} numbers")
            verbs.append(step)
            due = 2 * POINTS_OF_VERB[step]
        else:
            if not due:
                raise ValueError(f"“{step}” follows no verb")
            numbers.append(float(step))
            due -= 1
    if due or (verbs and verbs[0] != "M"):
        raise ValueError("the path doesn't begin with M or ends too early")
    return "".join(verbs), numbers


def closed_outline(verbs: str, numbers: list[float]) -> Outline:
    """Return the contours of a path as an outline: each closed, those of a single point left out."""
    points = np.array(numbers, dtype=np.float64).reshape(-1, 2)
    if not np.isfinite(points).all():
        raise ValueError("a number is out of range")
    parts: list[Outline] = []
    start = 0
    for contour in verbs.split("M")[1:]:
        drawn = contour.replace("Z", "")
        count = 1 + sum(POINTS_OF_VERB[verb] for verb in drawn)
        if drawn:
            parts.append(Outline(f"M{drawn}Z", points[start : start + count].copy()))
        start += count
    return Outline.joined(parts)


def write_drawing(drawing: Drawing) -> bytes:
    """Return a drawing as the SVG file that is kept of it."""
    definitions, paths = [], []
    for number, part in enumerate(drawing.parts):
        fill = part.color
        if part.blend is not None:
            fill = f"url(#b{number})"
            (x1, y1), (x2, y2) = part.blend.first, part.blend.last
            ends = " ".join(
                f'{name}="{plain_number(value, PLACES)}"'
                for name, value in (("x1", x1), ("y1", y1), ("x2", x2), ("y2", y2))
            )
            definitions.append(
                f'<linearGradient id="b{number}" gradientUnits="userSpaceOnUse" {ends}>'
                f'<stop stop-color="{part.color}"/><stop offset="1" stop-color="{part.blend.to_color}"/>'
                "</linearGradient>"
            )
        paths.append(f'<path fill="{fill}" d="{_data_of(part.outline)}"/>')
    defined = f"<defs>{''.join(definitions)}</defs>" if definitions else ""
    return (
        f'<svg xmlns="http://www.w3.org/2000/svg" width="{drawing.width}" height="{drawing.height}" '
        f'viewBox="0 0 {drawing.width} {drawing.height}">{defined}{"".join(paths)}</svg>\n'
    ).encode()


def _data_of(outline: Outline) -> str:
    return "".join(
        verb + " ".join(plain_number(value, PLACES) for value in numbers) for verb, numbers in outline.steps()
    )


def read_drawing(data: bytes, name: str) -> Drawing:
    """Return the drawing of a kept SVG file; raises AssetError for any other file."""
    try:
        root = etree.fromstring(data, etree.XMLParser(resolve_entities=False, no_network=True))
        if root.tag != f"{SVG}svg" or root.getroottree().docinfo.internalDTD is not None:
            raise ValueError("it is no drawing")
        blends = {found.get("id"): found for found in root.iter(f"{SVG}linearGradient")}
        parts = tuple(_read_part(path, blends) for path in root.iter(f"{SVG}path"))
        return Drawing(int(root.get("width", "")), int(root.get("height", "")), parts)
    except (etree.XMLSyntaxError, ValueError, KeyError, IndexError) as error:
        message = f"The drawing {name} can't be read; put it there again."
        raise AssetError("not_a_drawing", name, message) from error


def _read_part(path: etree._Element, blends: dict[str | None, etree._Element]) -> DrawnPart:
    outline = closed_outline(*outline_of_data(path.get("d", "")))
    fill = path.get("fill", "")
    if not fill.startswith("url(#"):
        return DrawnPart(outline, _color(fill))
    blend = blends[fill[5:-1]]
    x1, y1, x2, y2 = (float(blend.get(name, "")) for name in ("x1", "y1", "x2", "y2"))
    first, last = (_color(stop.get("stop-color", "")) for stop in blend)
    return DrawnPart(outline, first, Blend(last, (x1, y1), (x2, y2)))


def _color(written: str) -> str:
    if not COLOR.fullmatch(written):
        raise ValueError(f"“{written}” is no color")
    return written


_kept: SizedCache[Drawing] = SizedCache(MOST_DRAWING_BYTES)


def load_drawing(assets: Assets, sha256: str) -> Drawing:
    """Return the drawing with this SHA-256, kept in the process (bounded by bytes); raises AssetError."""

    def make() -> tuple[Drawing, int]:
        """Read the drawing, and return it with how many bytes it had."""
        data = assets.read(sha256)
        return read_drawing(data, sha256), len(data)

    return _kept.get(sha256, make)
