"""Effects: the outline of a text and its effects come in; the layers that make it, in painting order, go out."""

import math
from collections.abc import Callable

import numpy as np

from yenzo.core.documents.effects import ColorSource, Effects, Gradient, Pattern
from yenzo.core.scene.paints import Fill, GradientPaint, Layer, Paint
from yenzo.core.shapes.areas import arc_outline, rounded_rectangle
from yenzo.core.shapes.booleans import difference, intersection
from yenzo.core.shapes.box import Box
from yenzo.core.shapes.matrix import Matrix
from yenzo.core.shapes.outline import Outline
from yenzo.core.shapes.polygons import edge_of, grown

MOST_TILES = 4000
PaintOf = Callable[[ColorSource], Paint]


def layers_of(
    outline: Outline, paint: Paint, effects: Effects, paint_of: PaintOf, closing_mm: float = 0.0
) -> tuple[Layer, ...]:
    """Return what is painted for a text, first what lies lowest; empty for a text without ink.

    Gaps narrower than `closing_mm` in a line along the letters' edge are closed.
    """
    ink = outline.bounds
    if ink is None:
        return ()
    if effects.plate and effects.plate.knock_out:
        plate = rounded_rectangle(ink.grown(effects.plate.margin_mm), effects.plate.corner_mm)
        return (Layer(difference(plate, outline), paint_of(effects.plate.color), "ink"),)
    layers: list[Layer] = []
    stroke = effects.stroke
    is_outside = stroke is not None and stroke.place == "outside"
    outside = grown(outline, stroke.width_mm, closing_mm=closing_mm) if stroke and is_outside else None
    if effects.plate:
        plate = rounded_rectangle(ink.grown(effects.plate.margin_mm), effects.plate.corner_mm)
        layers.append(Layer(plate, paint_of(effects.plate.color), "plate"))
    if effects.shadow:
        moved = (outside or outline).shifted(effects.shadow.across_mm, effects.shadow.down_mm)
        layers.append(Layer(moved, paint_of(effects.shadow.color), "shadow"))
    if stroke and outside:
        layers.append(Layer(outside, paint_of(stroke.color), "stroke"))
    layers.extend(_filled(outline, ink, paint, effects, paint_of))
    if stroke and stroke.place == "centered":
        layers.append(Layer(edge_of(outline, stroke.width_mm), paint_of(stroke.color), "stroke"))
    return tuple(layers)


def _filled(outline: Outline, ink: Box, paint: Paint, effects: Effects, paint_of: PaintOf) -> list[Layer]:
    match effects.fill:
        case None:
            return [Layer(outline, paint, "ink")]
        case Gradient() as gradient:
            return [Layer(outline, _gradient(ink, paint, paint_of(gradient.color), gradient.angle_deg), "ink")]
        case Pattern() as pattern:
            tiles = intersection(_tiles(pattern, ink), outline)
            return [Layer(outline, paint, "ink"), Layer(tiles, paint_of(pattern.color), "pattern")]


def _gradient(ink: Box, start: Paint, end: Paint, angle_deg: float) -> Fill:
    """Return the gradient that begins and ends where the ink does, in the direction of an angle."""
    along = np.array([math.cos(math.radians(angle_deg)), math.sin(math.radians(angle_deg))])
    corners = np.array([(x, y) for x in (ink.left, ink.right) for y in (ink.top, ink.bottom)])
    middle = np.array(ink.middle)
    reach = (corners - middle) @ along
    first, last = middle + along * reach.min(), middle + along * reach.max()
    return GradientPaint(start, end, (float(first[0]), float(first[1])), (float(last[0]), float(last[1])))


def _tiles(pattern: Pattern, ink: Box) -> Outline:
    """Return stripes, dots or squares that cover a box, turned about its middle; coarser if they would be too many."""
    half = math.hypot(ink.width, ink.height) / 2 + pattern.size_mm
    step = pattern.size_mm
    if pattern.kind != "stripes":
        step = max(step, 2 * half / math.sqrt(MOST_TILES))
    count = math.ceil(half / step)
    places = [(index + 0.0) * step for index in range(-count, count + 1)]
    tiles: list[Outline]
    if pattern.kind == "stripes":
        tiles = [Outline.rectangle(Box(-half, at, half, at + step / 2)) for at in places]
    elif pattern.kind == "dots":
        dot = arc_outline(0, 360, Matrix(step * 0.3, 0, 0, step * 0.3, 0, 0))
        tiles = [dot.shifted(x, y) for x in places for y in places]
    else:
        square = Outline.rectangle(Box(0, 0, step / 2, step / 2))
        tiles = [square.shifted(x + shift, y + shift) for x in places for y in places for shift in (0.0, step / 2)]
    x, y = ink.middle
    turned = Matrix.about(0, 0, turn_deg=pattern.angle_deg, scale=1).then(Matrix.shift(x, y))
    return Outline.joined(tiles).mapped(turned)
