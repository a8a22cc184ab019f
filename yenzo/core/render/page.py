"""Pages: an area (with its bleed) or a whole side comes in; what a back-end draws, in order, goes out."""

from collections.abc import Callable
from dataclasses import dataclass
from typing import Protocol

from yenzo.core.scene.nodes import AreaScene, Lettering, Paint, SideScene
from yenzo.core.shapes.box import Box
from yenzo.core.shapes.matrix import Matrix
from yenzo.core.shapes.outline import Outline


class Canvas(Protocol):
    """What a back-end must be able to draw, in mm of the page, y down."""

    def fill(self, outline: Outline, paint: Paint) -> None:
        """Fill an outline by the nonzero rule."""
        ...

    def picture(self, asset: str, matrix: Matrix, clip: Box) -> None:
        """Draw a picture: `matrix` takes the unit square to mm; nothing shows outside `clip`."""
        ...


@dataclass(frozen=True)
class PlacedArea:
    """An area on a page: where its origin lies and where its pictures are cut off, in the area's mm."""

    scene: AreaScene
    x_mm: float
    y_mm: float
    clip: Box


@dataclass(frozen=True)
class Page:
    """A page of known size; `trim` is where the goods end when the page has bleed around it."""

    width_mm: float
    height_mm: float
    trim: Box
    areas: tuple[PlacedArea, ...]
    goods: str | None = None


def area_page(area: AreaScene) -> Page:
    """Return the production page of an area: exactly its bleed box."""
    bleed = area.bleed
    placed = PlacedArea(area, -bleed.left, -bleed.top, bleed)
    trim = Box(-bleed.left, -bleed.top, area.width_mm - bleed.left, area.height_mm - bleed.top)
    return Page(bleed.width, bleed.height, trim, (placed,))


def side_page(side: SideScene, *, with_goods: bool) -> Page:
    """Return a side as the customer sees it: every area in its place, pictures cut off at the area's edge."""
    areas = tuple(PlacedArea(area, area.x_mm, area.y_mm, area.trim) for area in side.areas)
    whole = Box(0, 0, side.width_mm, side.height_mm)
    return Page(side.width_mm, side.height_mm, whole, areas, side.picture if with_goods else None)


def paint_page(page: Page, canvas: Canvas, on_area: Callable[[PlacedArea], None] | None = None) -> None:
    """Draw a page on a canvas in painting order; `on_area` is told before each area."""
    if page.goods is not None:
        whole = Box(0, 0, page.width_mm, page.height_mm)
        canvas.picture(page.goods, Matrix(page.width_mm, 0, 0, page.height_mm, 0, 0), whole)
    for placed in page.areas:
        if on_area:
            on_area(placed)
        shift = Matrix.shift(placed.x_mm, placed.y_mm)
        for node in placed.scene.nodes:
            if isinstance(node, Lettering):
                canvas.fill(node.outline.mapped(shift), node.paint)
            else:
                clip = placed.clip
                moved = Box(
                    clip.left + placed.x_mm,
                    clip.top + placed.y_mm,
                    clip.right + placed.x_mm,
                    clip.bottom + placed.y_mm,
                )
                canvas.picture(node.asset, node.matrix.then(shift), moved)
