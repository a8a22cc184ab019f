"""Pages: an area (with its bleed) or a whole side comes in; what a back-end draws, in order, goes out."""

from collections.abc import Iterable, Iterator
from dataclasses import dataclass
from typing import Protocol, runtime_checkable

import numpy as np

from yenzo.core.caching import cached_on
from yenzo.core.scene.nodes import AreaScene, Lettering, Node, PlacedDrawing, PlacedPicture, SideScene
from yenzo.core.scene.paints import Fill
from yenzo.core.shapes.bending import bend
from yenzo.core.shapes.booleans import intersection
from yenzo.core.shapes.box import Box
from yenzo.core.shapes.matrix import Matrix
from yenzo.core.shapes.outline import Outline
from yenzo.core.shapes.surfaces import SurfaceWarp

# A twentieth of a pixel where a side shows five pixels a mm.
SHOWN_TOLERANCE_MM = 0.01
CELL_LAP_MM = 0.2
RECTANGLE_VERBS = 5


class Canvas(Protocol):
    """What a back-end must be able to draw, in mm of the page, y down."""

    # Drawings of more points are drawn as the file that the core keeps of them: it shows the same and is sent once.
    most_drawn_points: float

    def fill(self, outline: Outline, paint: Fill, clip: Outline | None = None) -> None:
        """Fill an outline by the nonzero rule; nothing shows outside `clip`."""
        ...

    def picture(self, asset: str, matrix: Matrix, clip: Outline) -> None:
        """Draw a picture: `matrix` takes the unit square to mm; nothing shows outside `clip`."""
        ...


@runtime_checkable
class LineCanvas(Protocol):
    """What a back-end can draw whose readers are tools: the lines that they follow."""

    def follow(self, line: Outline, paint: Fill) -> None:
        """Draw the line that a tool follows (open paths), instead of what the tool makes of it."""
        ...


@dataclass(frozen=True)
class PlacedArea:
    """An area on a page: the map from its mm to the page's, and where its pictures are cut off, in the area's mm.

    `warp` bends what lies in the area before it is placed, as its surface does.
    """

    scene: AreaScene
    place: Matrix
    clip: Outline
    warp: SurfaceWarp | None = None

    def shown(self, outline: Outline) -> Outline:
        """Return an outline of the area as it shows on the page; where it last did is known to it."""
        if self.warp is not None:
            return bend(outline, self.warp, SHOWN_TOLERANCE_MM).mapped(self.place)
        return cached_on(outline, "shown", self.place, lambda: outline.mapped(self.place))


@dataclass(frozen=True)
class Page:
    """A page of known size; `trim` is where the goods end when the page has bleed around it.

    `bleed` is where that ends, the whole page if nothing lies beyond it, as marks do.
    """

    width_mm: float
    height_mm: float
    trim: Box
    areas: tuple[PlacedArea, ...]
    goods: str | None = None
    overlays: tuple[str, ...] = ()
    bleed: Box | None = None


def area_page(area: AreaScene) -> Page:
    """Return the production page of an area: exactly its bleed box, never turned."""
    bleed = area.bleed
    placed = PlacedArea(area, Matrix.shift(-bleed.left, -bleed.top), area.bleed_outline)
    trim = Box(-bleed.left, -bleed.top, area.trim.right - bleed.left, area.trim.bottom - bleed.top)
    return Page(bleed.width, bleed.height, trim, (placed,))


def side_page(side: SideScene, *, with_goods: bool, under: bool | None = None) -> Page:
    """Return a side as the customer sees it: every area in its place, pictures cut off at the area's edge.

    `under` picks only the areas that lie under the goods' picture, or only those on it.
    """
    areas = tuple(
        PlacedArea(area, area.place, area.trim_outline, area.warp)
        for area in side.areas
        if under is None or area.area.under is under
    )
    whole = Box(0, 0, side.width_mm, side.height_mm)
    if not with_goods:
        return Page(side.width_mm, side.height_mm, whole, areas)
    return Page(side.width_mm, side.height_mm, whole, areas, side.picture, side.overlays)


class Watcher(Protocol):
    """Who is told what is painted next."""

    def begin_area(self, placed: PlacedArea) -> None:
        """Hear of an area, before anything in it."""
        ...

    def begin_node(self, node: Node) -> bool:
        """Hear of what lies in the area, before it is painted; tell whether it is to be painted with the others."""
        ...


def paint_page(page: Page, canvas: Canvas, watcher: Watcher | None = None) -> None:
    """Draw a page on a canvas in painting order."""
    under = [placed for placed in page.areas if page.goods is not None and placed.scene.area.under]
    _paint_areas(under, canvas, watcher)
    if page.goods is not None:
        whole = Box(0, 0, page.width_mm, page.height_mm)
        to_page = Matrix(page.width_mm, 0, 0, page.height_mm, 0, 0)
        for asset in (page.goods, *page.overlays):
            canvas.picture(asset, to_page, Outline.rectangle(whole))
    _paint_areas([placed for placed in page.areas if placed not in under], canvas, watcher)


def _paint_areas(areas: Iterable[PlacedArea], canvas: Canvas, watcher: Watcher | None) -> None:
    for placed in areas:
        if watcher:
            watcher.begin_area(placed)
        for node in placed.scene.nodes:
            if watcher is None or watcher.begin_node(node):
                paint_node(node, placed, canvas)


def paint_node(node: Node, placed: PlacedArea, canvas: Canvas) -> None:
    """Draw on a canvas what lies in an area."""
    if isinstance(node, Lettering) and node.line is not None and isinstance(canvas, LineCanvas):
        canvas.follow(node.line.mapped(placed.place), node.paint)
    elif isinstance(node, Lettering):
        for layer in node.layers:
            canvas.fill(placed.shown(layer.outline), layer.paint.mapped(placed.place))
    elif isinstance(node, PlacedPicture):
        _paint_picture(node.asset, node.matrix, placed, canvas)
    elif is_drawn_as_file(node, canvas.most_drawn_points):
        _paint_picture(node.asset, node.whole, placed, canvas)
    else:
        clip = placed.shown(placed.clip)
        for layer in node.layers:
            canvas.fill(placed.shown(layer.outline), layer.paint.mapped(placed.place), clip)


def is_drawn_as_file(node: Node, most_drawn_points: float) -> bool:
    """Tell whether something is drawn as the file that the core keeps of it, as pictures are."""
    if isinstance(node, PlacedDrawing):
        return node.drawing.point_count > most_drawn_points and node.paint is None
    return isinstance(node, PlacedPicture)


def _paint_picture(asset: str, matrix: Matrix, placed: PlacedArea, canvas: Canvas) -> None:
    """Draw a picture whose unit square `matrix` takes to mm of its area, cell by cell where the area is bent."""
    if placed.warp is None:
        canvas.picture(asset, matrix.then(placed.place), placed.clip.mapped(placed.place))
        return
    for cell_matrix, cell in _bent_cells(matrix, placed.clip, placed.warp):
        canvas.picture(asset, cell_matrix.then(placed.place), placed.shown(cell))


def _bent_cells(matrix: Matrix, clip: Outline, warp: SurfaceWarp) -> Iterator[tuple[Matrix, Outline]]:
    """Yield a picture cut into cells, each with the affine map that is the surface's own in its middle."""
    bounds, whole = clip.bounds, Outline.rectangle(Box(0, 0, 1, 1)).mapped(matrix).bounds
    if bounds is None or whole is None:
        return
    box = bounds.within(whole)
    across, down = warp.cells
    wide, high = box.width / across, box.height / down
    is_box = len(clip.verbs) == RECTANGLE_VERBS
    for row in range(down if box.height > 0 else 0):
        for column in range(across if box.width > 0 else 0):
            left, top = box.left + column * wide, box.top + row * high
            # Each cell reaches a little under the next one, so that no gap shows between them.
            cell_box = Box(left, top, left + wide + CELL_LAP_MM, top + high + CELL_LAP_MM).within(box)
            cell = Outline.rectangle(cell_box)
            shown = cell if is_box else intersection(cell, clip)
            if shown:
                yield matrix.then(_affine_at(warp, *cell_box.middle)), shown


def _affine_at(warp: SurfaceWarp, x: float, y: float) -> Matrix:
    points, vectors = np.array([[x, y]] * 2), np.array([[1.0, 0.0], [0.0, 1.0]])
    shown, pushed = warp.carry(points, vectors)
    (a, b), (c, d) = pushed.tolist()
    at_x, at_y = shown[0].tolist()
    return Matrix(a, b, c, d, at_x - a * x - c * y, at_y - b * x - d * y)
