"""Pages: an area (with its bleed) or a whole side comes in; what a back-end draws, in order, goes out."""

from collections.abc import Callable, Iterable
from dataclasses import dataclass
from typing import Protocol

from yenzo.core.scene.nodes import AreaScene, Lettering, SideScene
from yenzo.core.scene.paints import Fill
from yenzo.core.shapes.box import Box
from yenzo.core.shapes.matrix import Matrix
from yenzo.core.shapes.outline import Outline


class Canvas(Protocol):
    """What a back-end must be able to draw, in mm of the page, y down."""

    def fill(self, outline: Outline, paint: Fill) -> None:
        """Fill an outline by the nonzero rule."""
        ...

    def picture(self, asset: str, matrix: Matrix, clip: Outline) -> None:
        """Draw a picture: `matrix` takes the unit square to mm; nothing shows outside `clip`."""
        ...


@dataclass(frozen=True)
class PlacedArea:
    """An area on a page: the map from its mm to the page's, and where its pictures are cut off, in the area's mm."""

    scene: AreaScene
    place: Matrix
    clip: Outline


@dataclass(frozen=True)
class Page:
    """A page of known size; `trim` is where the goods end when the page has bleed around it."""

    width_mm: float
    height_mm: float
    trim: Box
    areas: tuple[PlacedArea, ...]
    goods: str | None = None


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
        PlacedArea(area, area.place, area.trim_outline)
        for area in side.areas
        if under is None or area.area.under is under
    )
    whole = Box(0, 0, side.width_mm, side.height_mm)
    return Page(side.width_mm, side.height_mm, whole, areas, side.picture if with_goods else None)


def paint_page(page: Page, canvas: Canvas, on_area: Callable[[PlacedArea], None] | None = None) -> None:
    """Draw a page on a canvas in painting order; `on_area` is told before each area."""
    under = [placed for placed in page.areas if page.goods is not None and placed.scene.area.under]
    _paint_areas(under, canvas, on_area)
    if page.goods is not None:
        whole = Box(0, 0, page.width_mm, page.height_mm)
        to_page = Matrix(page.width_mm, 0, 0, page.height_mm, 0, 0)
        canvas.picture(page.goods, to_page, Outline.rectangle(whole))
    _paint_areas([placed for placed in page.areas if placed not in under], canvas, on_area)


def _paint_areas(areas: Iterable[PlacedArea], canvas: Canvas, on_area: Callable[[PlacedArea], None] | None) -> None:
    for placed in areas:
        if on_area:
            on_area(placed)
        for node in placed.scene.nodes:
            if isinstance(node, Lettering):
                for layer in node.layers:
                    moved = layer.mapped(placed.place)
                    canvas.fill(moved.outline, moved.paint)
            else:
                canvas.picture(node.asset, node.matrix.then(placed.place), placed.clip.mapped(placed.place))
