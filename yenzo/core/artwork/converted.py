"""Reading a converted drawing: the SVG that Debian's pdftocairo writes comes in, a drawing of outlines goes out.

Whatever is no filled outline of one color, or of one that goes over straight into another, raises `NotPlain`.
"""

import math
import re
from collections.abc import Iterator
from dataclasses import dataclass, field, replace

import numpy as np
from lxml import etree

from yenzo.core.artwork.drawing import SVG, Blend, Drawing, DrawnPart, closed_outline, outline_of_data
from yenzo.core.errors import ShapeError
from yenzo.core.shapes.booleans import Pen, even_odd, intersection, stroked
from yenzo.core.shapes.box import Box
from yenzo.core.shapes.matrix import Matrix
from yenzo.core.shapes.outline import Outline
from yenzo.core.translation import translate_noop

HREF = "{http://www.w3.org/1999/xlink}href"
PERCENTS = re.compile(r"rgb\(([0-9.]+)%,\s*([0-9.]+)%,\s*([0-9.]+)%\)")
REFERENCE = re.compile(r"url\(#([^)]+)\)")
# What the style of a group hands on to its parts.
HANDED_ON = ("fill", "fill-opacity", "fill-rule")
STOP_TOLERANCE = 2.5
# Path operations count in single precision: they are right on outlines of this size, and wrong on much larger ones.
WORKING_SIDE = 100.0
SEE_THROUGH, TOO_FINE = translate_noop("see-through parts"), translate_noop("very many fine details")
NOT_PLAIN = {
    "image": translate_noop("pictures inside"),
    "mask": SEE_THROUGH,
    "pattern": translate_noop("a pattern"),
    "filter": translate_noop("blurred parts"),
    "rings": translate_noop("colors that go over in rings"),
}


class NotPlain(Exception):  # noqa: N818 - not an error: such a drawing is used as a picture
    """What a drawing has that can't be kept as outlines, in words."""


@dataclass(frozen=True)
class _Pen:
    """Where and how the next part is drawn."""

    matrix: Matrix = field(default_factory=Matrix)
    style: dict[str, str] = field(default_factory=dict)
    clips: tuple[Outline, ...] = ()


def read_converted(data: bytes, most_points: int) -> Drawing:
    """Return the drawing; raises NotPlain."""
    root = etree.fromstring(data, etree.XMLParser(resolve_entities=False, no_network=True, huge_tree=True))
    left, top, width, height = (float(number) for number in root.get("viewBox", "").split())
    by = WORKING_SIDE / max(width, height)
    try:
        parts = tuple(_Reader(root, most_points).parts(Matrix(by, 0, 0, by, -left * by, -top * by)))
    except ShapeError as error:
        raise NotPlain(TOO_FINE) from error
    return Drawing.scaled(width * by, height * by, parts)


class _Reader:
    def __init__(self, root: etree._Element, most_points: int) -> None:
        self._root = root
        self._named = {node.get("id"): node for node in root.iter(etree.Element) if node.get("id")}
        self._most_points = most_points
        self._clips: dict[tuple[str, Matrix], Outline] = {}

    def parts(self, place: Matrix) -> Iterator[DrawnPart]:
        """Yield what is drawn, in order, at `place`; raises NotPlain when it has too many points."""
        count = 0
        for part in self._walk(self._root, _Pen(place)):
            count += len(part.outline.points)
            if count > self._most_points:
                raise NotPlain(TOO_FINE)
            yield part

    def _walk(self, node: etree._Element, pen: _Pen) -> Iterator[DrawnPart]:
        for child in node:
            local = child.tag.rsplit("}", 1)[-1] if isinstance(child.tag, str) else "defs"
            if local == "defs":
                continue
            if local in NOT_PLAIN:
                raise NotPlain(NOT_PLAIN[local])
            inner = self._inner(child, pen)
            if local == "use":
                yield from self._used(child, inner)
            elif local in {"path", "rect"}:
                yield from self._painted(child, local, inner)
            else:
                yield from self._walk(child, inner)

    def _inner(self, node: etree._Element, pen: _Pen) -> _Pen:
        style = _style(node)
        for unkept in ("mask", "filter"):
            if style.get(unkept, "none") != "none":
                raise NotPlain(NOT_PLAIN[unkept])
        if float(style.get("opacity", 1)) < 1 or style.get("mix-blend-mode", "normal") != "normal":
            raise NotPlain(SEE_THROUGH)
        clips = pen.clips
        if named := REFERENCE.match(style.get("clip-path", "")):
            # A clip is measured where it is used, before the part's own transform.
            clips = (*clips, self._clip(named[1], pen.matrix))
        matrix = _matrix(node.get("transform")).then(pen.matrix)
        return _Pen(matrix, {**pen.style, **style}, clips)

    def _clip(self, name: str, matrix: Matrix) -> Outline:
        if (name, matrix) not in self._clips:
            outlines = [_outline_of(child, matrix, _style(child).get("clip-rule")) for child in self._named[name]]
            self._clips[name, matrix] = Outline.joined(outlines)
        return self._clips[name, matrix]

    def _used(self, node: etree._Element, pen: _Pen) -> Iterator[DrawnPart]:
        target = self._named.get(node.get(HREF, "")[1:])
        if target is None:
            return
        at = Matrix.shift(float(node.get("x", 0)), float(node.get("y", 0)))
        local = target.tag.rsplit("}", 1)[-1]
        if local in NOT_PLAIN:
            raise NotPlain(NOT_PLAIN[local])
        style = {name: value for name, value in pen.style.items() if name in HANDED_ON}
        yield from self._walk(target, replace(pen, matrix=at.then(pen.matrix), style=style))

    def _painted(self, node: etree._Element, local: str, pen: _Pen) -> Iterator[DrawnPart]:
        style = pen.style
        fill = style.get("fill", "rgb(0%,0%,0%)")
        if fill != "none" and not _is_clear(style, "fill"):
            yield from self._clipped(_outline_of(node, pen.matrix, style.get("fill-rule")), fill, pen)
        stroke = style.get("stroke", "none")
        if local == "path" and stroke != "none" and not _is_clear(style, "stroke"):
            yield from self._clipped(_line_of(node, pen), stroke, pen)

    def _clipped(self, outline: Outline, paint: str, pen: _Pen) -> Iterator[DrawnPart]:
        for clip in pen.clips:
            if outline and not _lies_in(outline, clip):
                outline = intersection(outline, clip)
        if not outline:
            return
        if named := REFERENCE.match(paint):
            yield self._blended(outline, self._named[named[1]], pen.matrix)
        else:
            yield DrawnPart(outline, _color(paint))

    def _blended(self, outline: Outline, node: etree._Element, matrix: Matrix) -> DrawnPart:
        if not node.tag.endswith("linearGradient") or node.get("spreadMethod", "pad") != "pad":
            raise NotPlain(NOT_PLAIN["pattern" if node.tag.endswith("pattern") else "rings"])
        stops = [(float(stop.get("offset", 0)), _style(stop)) for stop in node]
        if any(float(style.get("stop-opacity", 1)) < 1 for _, style in stops):
            raise NotPlain(SEE_THROUGH)
        colors = [_rgb(style["stop-color"]) for _, style in stops]
        first, last = colors[0], colors[-1]
        start, end = stops[0][0], stops[-1][0]
        for (offset, _), color in zip(stops, colors, strict=True):
            share = (offset - start) / (end - start) if end > start else 0
            if np.abs(first + (last - first) * share - color).max() > STOP_TOLERANCE:
                raise NotPlain(translate_noop("colors that go over into several others"))
        x1, y1, x2, y2 = (float(node.get(name, 0)) for name in ("x1", "y1", "x2", "y2"))
        along = np.array([x2 - x1, y2 - y1])
        from_, to = np.array([x1, y1]) + along * start, np.array([x1, y1]) + along * end
        whole = _matrix(node.get("gradientTransform")).then(matrix)
        # Lines of one color stay lines under the map; the new axis stands square on them.
        square = np.array(whole.apply(-along[1], along[0])) - whole.apply(0, 0)
        axis = np.array([square[1], -square[0]])
        begin, stop = np.array(whole.apply(*from_)), np.array(whole.apply(*to))
        length = float(axis @ axis)
        if not length:
            return DrawnPart(outline, _hex(last))
        stop = begin + axis * float((stop - begin) @ axis) / length
        blend = Blend(_hex(last), (float(begin[0]), float(begin[1])), (float(stop[0]), float(stop[1])))
        return DrawnPart(outline, _hex(first), blend)


def _style(node: etree._Element) -> dict[str, str]:
    style = {name: value for name, value in node.attrib.items() if name not in {"d", "transform", "id"}}
    for declaration in node.get("style", "").split(";"):
        name, _, value = declaration.partition(":")
        if value:
            style[name.strip()] = value.strip()
    return style


def _is_clear(style: dict[str, str], what: str) -> bool:
    """Tell whether a fill or stroke can't be seen at all; raises NotPlain when it can be seen through."""
    opacity = float(style.get(f"{what}-opacity", 1))
    if 0 < opacity < 1:
        raise NotPlain(SEE_THROUGH)
    return opacity == 0


def _line_of(node: etree._Element, pen: _Pen) -> Outline:
    """Return what the stroke of a path covers: drawn in its own proportions, but in the size that works."""
    matrix, style = pen.matrix, pen.style
    by = math.sqrt(abs(matrix.a * matrix.d - matrix.b * matrix.c)) or 1.0
    verbs, numbers = outline_of_data(node.get("d", ""))
    dashes = style.get("stroke-dasharray", "none")
    line = Pen(
        float(style.get("stroke-width", 1)) * by,
        style.get("stroke-linecap", "butt"),
        style.get("stroke-linejoin", "miter"),
        float(style.get("stroke-miterlimit", 4)),
        () if dashes == "none" else tuple(float(length) * by for length in re.split(r"[\s,]+", dashes.strip())),
        float(style.get("stroke-dashoffset", 0)) * by,
    )
    covered = stroked(verbs, np.array(numbers).reshape(-1, 2) * by, line)
    return covered.mapped(Matrix(1 / by, 0, 0, 1 / by, 0, 0).then(matrix))


def _outline_of(node: etree._Element, matrix: Matrix, rule: str | None) -> Outline:
    if node.tag == f"{SVG}rect":
        x, y, width, height = (float(node.get(name, 0)) for name in ("x", "y", "width", "height"))
        return Outline.rectangle(Box(x, y, x + width, y + height)).mapped(matrix)
    outline = closed_outline(*outline_of_data(node.get("d", ""))).mapped(matrix)
    return even_odd(outline) if rule == "evenodd" else outline


def _matrix(written: str | None) -> Matrix:
    if not written:
        return Matrix()
    return Matrix(*(float(number) for number in re.split(r"[\s,]+", written[len("matrix(") : -1].strip())))


def _lies_in(outline: Outline, clip: Outline) -> bool:
    """Tell whether an outline surely lies in a clip that is an upright rectangle."""
    box, ink = clip.bounds, outline.bounds
    if box is None or ink is None or clip.verbs.replace("L", "") != "MZ" or len(clip.points) not in {4, 5}:
        return False
    is_upright = np.isin(clip.points[:, 0], (box.left, box.right)) & np.isin(clip.points[:, 1], (box.top, box.bottom))
    return bool(is_upright.all()) and ink.excess_over(box) <= 0


def _rgb(written: str) -> np.ndarray:
    percents = PERCENTS.match(written)
    if not percents:
        raise NotPlain(translate_noop("colors of an unknown kind"))
    return np.array([float(share) * 2.55 for share in percents.groups()])


def _hex(color: np.ndarray) -> str:
    return "#" + "".join(f"{round(float(value)):02x}" for value in color)


def _color(written: str) -> str:
    return _hex(_rgb(written))
