"""SVG: a page comes in; a true-size file in mm, or the ink alone for a preview, goes out.

Outlines are written in whole micrometres under one scale, so that numbers are short and canonical.
"""

import base64
from collections.abc import Callable
from html import escape

import numpy as np

from yenzo.core.documents.assets import Assets
from yenzo.core.measure import plain_number
from yenzo.core.render.page import Page, PlacedArea, paint_page
from yenzo.core.render.pictures import mime_type
from yenzo.core.scene.nodes import Paint
from yenzo.core.shapes.box import Box
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


def ink_markup(page: Page, href: Href) -> str:
    """Return the page's content as SVG markup in mm: one group an area, `data-area` naming it."""
    canvas = _SvgCanvas(href)
    paint_page(page, canvas, canvas.begin_area)
    return canvas.markup()


def path_data(outline: Outline) -> str:
    """Return an outline as SVG path data in whole micrometres."""
    numbers = list(map(str, np.rint(outline.points * 1000).astype(np.int64).ravel().tolist()))
    at = 0
    for verb in outline.verbs:
        if verb == "Z":
            numbers[at - 1] += verb
        else:
            numbers[at] = verb + numbers[at]
            at += 2 * POINTS_OF_VERB[verb]
    return " ".join(numbers)


class _SvgCanvas:
    def __init__(self, href: Href) -> None:
        self._href = href
        self._parts: list[str] = []
        self._open_area = False

    def begin_area(self, placed: PlacedArea) -> None:
        self._close_area()
        self._parts.append(f'<g data-area="{escape(placed.scene.key)}">')
        self._open_area = True

    def fill(self, outline: Outline, paint: Paint) -> None:
        self._parts.append(f'<path fill="{paint.screen}" transform="scale(.001)" d="{path_data(outline)}"/>')

    def picture(self, asset: str, matrix: Matrix, clip: Box) -> None:
        x, y, width, height = (plain_number(v, 4) for v in (clip.left, clip.top, clip.width, clip.height))
        # A nested viewport cuts the picture off at the clip's edges.
        inner = matrix.then(Matrix.shift(-clip.left, -clip.top))
        numbers = " ".join(plain_number(value, 6) for value in inner)
        self._parts.append(
            f'<svg x="{x}" y="{y}" width="{width}" height="{height}"><image width="1" height="1" '
            f'preserveAspectRatio="none" transform="matrix({numbers})" href="{escape(self._href(asset))}"/></svg>'
        )

    def markup(self) -> str:
        self._close_area()
        return "".join(self._parts)

    def _close_area(self) -> None:
        if self._open_area:
            self._parts.append("</g>")
            self._open_area = False


def _data_uri(data: bytes) -> str:
    return f"data:{mime_type(data)};base64,{base64.b64encode(data).decode()}"
