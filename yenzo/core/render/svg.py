"""SVG: a page comes in; a true-size file in mm, or the ink alone for a preview, goes out.

Outlines are written in mm, to the micrometre, under no transform of their own, which browsers put together one by one
with each frame, and plain readers of files might not know. For screens edges are relative to where they begin, which is
short; in files all lies where it is said to lie, so that no reader adds anything up.
"""

import base64
import hashlib
import math
from collections.abc import Callable, Iterable
from dataclasses import dataclass
from functools import partial
from html import escape

import numpy as np

from yenzo.core.caching import cached_on
from yenzo.core.documents.assets import Assets
from yenzo.core.measure import plain_number
from yenzo.core.render.micrometres import absolute_mm, relative_mm
from yenzo.core.render.page import Page, PlacedArea, is_drawn_as_file, paint_node, paint_page
from yenzo.core.render.pictures import mime_type
from yenzo.core.scene.moved import Moved
from yenzo.core.scene.nodes import Node, PlacedPicture
from yenzo.core.scene.paints import Fill, GradientPaint, Paint
from yenzo.core.shapes.matrix import Matrix
from yenzo.core.shapes.outline import POINTS_OF_VERB, Outline

Href = Callable[[str], str]
Path = Callable[[Outline], str]
RELATIVE = str.maketrans("LCZ", "lcz")
# Into how many straight parts an edge is cut that a surface bends.
EDGE_STEPS = 8


def render_svg(page: Page, assets: Assets) -> bytes:
    """Return the page as an SVG file of its physical size, pictures inside it."""
    width, height = plain_number(page.width_mm), plain_number(page.height_mm)
    canvas = _SvgCanvas(lambda asset: _data_uri(assets.read(asset)), math.inf, path=file_path_data)
    paint_page(page, canvas, canvas)
    ink = "".join(canvas.pieces())
    return (
        f'<svg xmlns="http://www.w3.org/2000/svg" width="{width}mm" height="{height}mm" '
        f'viewBox="0 0 {width} {height}">{ink}</svg>\n'
    ).encode()


def ink_markup(page: Page, href: Href, most_drawn_points: float = math.inf) -> str:
    """Return the page's content as SVG markup in mm: one group an area, `data-area` naming it.

    Drawings of more points than told are referred to as the files that they are, for screens.
    """
    canvas = _SvgCanvas(href, most_drawn_points)
    paint_page(page, canvas, canvas)
    return "".join(canvas.pieces())


@dataclass(frozen=True)
class Ink:
    """A page's markup in pieces, so that what changed can be replaced alone: `frame[0] held[0] frame[1] ...`.

    Each `held` is one thing that hands may move, and defines all that it refers to; `frame` is what stands between.
    """

    frame: tuple[str, ...]
    movable: tuple[str, ...]


def ink_for_hands(page: Page, href: Href, most_drawn_points: float = math.inf) -> Ink:
    """Return the page's content as `ink_markup` makes it, what may be moved in groups of its own (`data-item`).

    What shows of such a thing stands in groups that can be moved (`data-moves`).
    """
    canvas = _SvgCanvas(href, most_drawn_points, for_hands=True)
    paint_page(page, canvas, canvas)
    pieces = canvas.pieces()
    return Ink(pieces[::2], pieces[1::2])


def path_data(outline: Outline) -> str:
    """Return an outline as SVG path data in mm for screens, edges from where they begin; written once."""
    written: str = outline.__dict__.get("path_data") or _written(
        outline.verbs.translate(RELATIVE), relative_mm(outline)
    ).replace(" -", "-")
    outline.__dict__["path_data"] = written
    return written


def file_path_data(outline: Outline) -> str:
    """Return an outline as SVG path data in mm for files, all from the page's corner."""
    return _written(outline.verbs, absolute_mm(outline))


def _written(letters: str, numbers: list[str]) -> str:
    at = 0
    for letter in letters:
        if letter in "Zz":
            numbers[at - 1] += letter
        else:
            numbers[at] = letter + numbers[at]
            at += 2 * POINTS_OF_VERB[letter.upper()]
    return " ".join(numbers)


class _SvgCanvas:
    def __init__(
        self,
        href: Href,
        most_drawn_points: float,
        *,
        for_hands: bool = False,
        is_item: bool = False,
        path: Path = path_data,
    ) -> None:
        self._href, self._path = href, path
        self.most_drawn_points = most_drawn_points
        # In turn what stands between things that may be moved, and one of those.
        self._pieces: list[list[str]] = [[]]
        self._defined: set[str] = set()
        self._open_area = False
        self._for_hands, self._is_item = for_hands, is_item
        self._placed: PlacedArea | None = None

    def begin_area(self, placed: PlacedArea) -> None:
        """Open the group of an area, after closing that of the one before."""
        self._close_area()
        self._placed = placed
        movable = _area_for_hands(placed) if self._for_hands and any(node.moved for node in placed.scene.nodes) else ""
        self._put(f'<g data-area="{escape(placed.scene.key)}"{movable}>')
        self._open_area = True

    def begin_node(self, node: Node) -> bool:
        """Draw what may be moved in a group of its own; what stays where it lies, as most do, is written once."""
        if not self._for_hands or not node.moved:
            return True
        placed = self._placed
        assert placed is not None
        write = partial(self._item, node, node.moved, placed)
        # Addresses of pictures are the canvas's own, and what is bent is bent by its area.
        is_kept = placed.warp is None and not is_drawn_as_file(node, self.most_drawn_points)
        written = cached_on(node, "for_hands", (placed.place, placed.clip), write) if is_kept else write()
        self._pieces += [[written], []]
        return False

    def _item(self, node: Node, moved: Moved, placed: PlacedArea) -> str:
        """Return the group of something that may be moved; it defines all that it refers to."""
        alone = _SvgCanvas(self._href, self.most_drawn_points, is_item=True)
        paint_node(node, placed, alone)
        opening = _item_for_hands(node.placement, moved, placed, has_grip=not isinstance(node, PlacedPicture))
        return f"{opening}{''.join(alone.pieces())}</g>"

    def _put(self, markup: str) -> None:
        self._pieces[-1].append(markup)

    def _moving(self, content: str) -> str:
        return f"<g data-moves>{content}</g>" if self._is_item else content

    def fill(self, outline: Outline, paint: Fill, clip: Outline | None = None) -> None:
        """Fill an outline with a color or gradient, in `clip` only."""
        color = paint.screen if isinstance(paint, Paint) else f"url(#{self._gradient(paint)})"
        path = self._moving(f'<path fill="{color}" d="{self._path(outline)}"/>')
        self._put(f'<g clip-path="url(#{self._clip(clip)})">{path}</g>' if clip else path)

    def picture(self, asset: str, matrix: Matrix, clip: Outline) -> None:
        """Place a picture's unit square by `matrix`, in `clip` only."""
        name = self._clip(clip)
        numbers = _numbers(matrix)
        image = (
            f'<image width="1" height="1" preserveAspectRatio="none" '
            f'transform="matrix({numbers})" href="{escape(self._href(asset))}"/>'
        )
        self._put(f'<g clip-path="url(#{name})">{self._moving(image)}</g>')

    def _clip(self, clip: Outline) -> str:
        shape = f'<path d="{self._path(clip)}"/>'
        return self._named("c", shape, lambda name: f'<clipPath id="{name}">{shape}</clipPath>')

    def _gradient(self, paint: GradientPaint) -> str:
        x1, y1, x2, y2 = (plain_number(value, 3) for value in (*paint.first_mm, *paint.last_mm))
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
            self._put(f"<defs>{definition(name)}</defs>")
        return name

    def pieces(self) -> tuple[str, ...]:
        """Return all that was drawn, its last group closed; every second piece is something that may be moved."""
        self._close_area()
        return tuple("".join(piece) for piece in self._pieces)

    def _close_area(self) -> None:
        if self._open_area:
            self._put("</g>")
            self._open_area = False


def _area_for_hands(placed: PlacedArea) -> str:
    """Return what hands need to know of an area, written once: its place on the side, its size and its safe margin."""

    def write() -> str:
        """Write it."""
        area = placed.scene.area
        frame = " ".join(plain_number(value, 3) for value in (area.width_mm, area.height_mm, area.safe_mm))
        return f' data-place="{_numbers(placed.place)}" data-frame="{frame}"'

    return cached_on(placed.scene, "for_hands", placed.place, write)


def _item_for_hands(key: str, moved: Moved, placed: PlacedArea, *, has_grip: bool) -> str:
    """Return the beginning of the group of something that may be moved; with a grip where its own ink is too thin.

    `data-at` is the map from the box that its placement gives it (`data-box`) to where it lies, in mm of its area;
    `data-shifts` is the polygon of all shifts that it could have now, `data-shift` the one that it has. Where the
    surface bends it, `data-edge` is how its box shows, in mm of the side, from corner to corner in equal steps.
    """
    free, box = moved.free, moved.start
    ways = {"move": free.move, "turn": free.turn_deg, "size": free.scale}
    can = [name for name, is_free in ways.items() if is_free]
    shifts = " ".join(f"{plain_number(x, 3)},{plain_number(y, 3)}" for x, y in moved.shifts)
    shift = " ".join(plain_number(value, 4) for value in moved.adjustment.shift_mm)
    opening = (
        f'<g data-item="{escape(key)}" data-can="{" ".join(can)}" data-box="{_numbers(box)}" '
        f'data-at="{_numbers(moved.matrix)}" data-shift="{shift}" data-shifts="{shifts}" '
        f'data-turn="{plain_number(moved.adjustment.turn_deg, 3)} {plain_number(free.turn_deg, 3)}"'
        f"{_edge(moved, placed)}>"
    )
    if not has_grip:
        return opening
    grip = Outline.rectangle(box).mapped(moved.matrix)
    return opening + _grip_markup(placed.shown(grip))


def _edge(moved: Moved, placed: PlacedArea) -> str:
    if placed.warp is None:
        return ""
    box, steps = moved.start, np.arange(EDGE_STEPS)[:, None] / EDGE_STEPS
    corners = np.array([(box.left, box.top), (box.right, box.top), (box.right, box.bottom), (box.left, box.bottom)])
    sides = zip(corners, np.roll(corners, -1, axis=0), strict=True)
    points = np.concatenate([start + (end - start) * steps for start, end in sides])
    edge = Outline("M" + "L" * (len(points) - 1), points).mapped(moved.matrix)
    shown = Outline(edge.verbs, placed.warp.map(edge.points)).mapped(placed.place)
    pairs = (f"{plain_number(x, 3)},{plain_number(y, 3)}" for x, y in shown.points.tolist())
    return f' data-edge="{" ".join(pairs)}"'


def _grip_markup(grip: Outline) -> str:
    return f'<g data-moves><path data-grip fill="none" d="{path_data(grip)}"/></g>'


def _numbers(values: Iterable[float]) -> str:
    return " ".join(plain_number(value, 6) for value in values)


def _data_uri(data: bytes) -> str:
    return f"data:{mime_type(data)};base64,{base64.b64encode(data).decode()}"
