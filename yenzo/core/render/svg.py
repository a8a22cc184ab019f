"""SVG: a page comes in; a true-size file in mm, or the ink alone for a preview, goes out.

Outlines are written in whole micrometres under one scale, so that numbers are short and canonical.
"""

import base64
import hashlib
import math
from collections.abc import Callable
from html import escape

from yenzo.core.documents.assets import Assets
from yenzo.core.measure import plain_number
from yenzo.core.render.micrometres import micrometres
from yenzo.core.render.page import Page, PlacedArea, paint_page
from yenzo.core.render.pictures import mime_type
from yenzo.core.scene.paints import Fill, GradientPaint, Paint
from yenzo.core.shapes.matrix import Matrix
from yenzo.core.shapes.outline import POINTS_OF_VERB, Outline

Href = Callable[[str], str]


def render_svg(page: Page, assets: Assets) -> bytes:
    """Return the page as an SVG file of its physical size, pictures inside it."""
    width, height = plain_number(page.width_mm), plain_number(page.height_mm)
    ink = ink_markup(page, lambda asset: _data_uri(assets.read(asset)))
    return (
        f'<svg xmlns="http://www.w3.org/2000/svg" width="{width}mm" height="{height}mm" '
        f'viewBox="0 0 {width} {height}">{ink}</svg>\n'
    ).encode()


def ink_markup(page: Page, href: Href, most_drawn_points: float = math.inf) -> str:
    """Return the page's content as SVG markup in mm: one group an area, `data-area` naming it.

    Drawings of more points than told are referred to as the files that they are, for screens.
    """
    canvas = _SvgCanvas(href, most_drawn_points)
    paint_page(page, canvas, canvas.begin_area)
    return canvas.markup()


def path_data(outline: Outline) -> str:
    """Return an outline as SVG path data in whole micrometres."""
    numbers, at = micrometres(outline), 0
    for verb in outline.verbs:
        if verb == "Z":
            numbers[at - 1] += verb
        else:
            numbers[at] = verb + numbers[at]
            at += 2 * POINTS_OF_VERB[verb]
    return " ".join(numbers)


class _SvgCanvas:
    def __init__(self, href: Href, most_drawn_points: float) -> None:
        self._href = href
        self.most_drawn_points = most_drawn_points
        self._parts: list[str] = []
        self._defined: set[str] = set()
        self._open_area = False

    def begin_area(self, placed: PlacedArea) -> None:
        """Open the group of an area, after closing that of the one before."""
        self._close_area()
        self._parts.append(f'<g data-area="{escape(placed.scene.key)}">')
        self._open_area = True

    def fill(self, outline: Outline, paint: Fill, clip: Outline | None = None) -> None:
        """Fill an outline with a color or gradient, in `clip` only."""
        color = paint.screen if isinstance(paint, Paint) else f"url(#{self._gradient(paint)})"
        path = f'<path fill="{color}" transform="scale(.001)" d="{path_data(outline)}"/>'
        self._parts.append(f'<g clip-path="url(#{self._clip(clip)})">{path}</g>' if clip else path)

    def picture(self, asset: str, matrix: Matrix, clip: Outline) -> None:
        """Place a picture's unit square by `matrix`, in `clip` only."""
        name = self._clip(clip)
        numbers = " ".join(plain_number(value, 6) for value in matrix)
        self._parts.append(
            f'<g clip-path="url(#{name})"><image width="1" height="1" preserveAspectRatio="none" '
            f'transform="matrix({numbers})" href="{escape(self._href(asset))}"/></g>'
        )

    def _clip(self, clip: Outline) -> str:
        shape = f'<path transform="scale(.001)" d="{path_data(clip)}"/>'
        return self._named("c", shape, lambda name: f'<clipPath id="{name}">{shape}</clipPath>')

    def _gradient(self, paint: GradientPaint) -> str:
        # In micrometres: the path that uses it is scaled, and so is what its fill refers to.
        x1, y1, x2, y2 = (str(round(value * 1000)) for value in (*paint.first_mm, *paint.last_mm))
        stops = f'<stop stop-color="{paint.start.screen}"/><stop offset="1" stop-color="{paint.end.screen}"/>'
        ends = f'gradientUnits="userSpaceOnUse" x1="{x1}" y1="{y1}" x2="{x2}" y2="{y2}"'
        return self._named(
            "g", ends + stops, lambda name: f'<linearGradient id="{name}" {ends}>{stops}</linearGradient>'
        )

    def _named(self, kind: str, content: str, definition: Callable[[str], str]) -> str:
        """Define something once; named by its content, so that the same name on one page means the same thing."""
        name = kind + hashlib.sha256(content.encode()).hexdigest()[:12]
        if name not in self._defined:
            self._defined.add(name)
            self._parts.append(f"<defs>{definition(name)}</defs>")
        return name

    def markup(self) -> str:
        """Return all that was drawn, its last group closed."""
        self._close_area()
        return "".join(self._parts)

    def _close_area(self) -> None:
        if self._open_area:
            self._parts.append("</g>")
            self._open_area = False


def _data_uri(data: bytes) -> str:
    return f"data:{mime_type(data)};base64,{base64.b64encode(data).decode()}"
