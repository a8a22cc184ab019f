"""Effects: the outline of a text and its effects come in; the layers that make it, in painting order, go out."""

import math
from collections.abc import Callable

import numpy as np
import shapely

from yenzo.core.documents.effects import ColorSource, Effects, Gradient, Pattern
from yenzo.core.scene.paints import Fill, GradientPaint, Layer, Paint
from yenzo.core.shapes.areas import rounded_rectangle
from yenzo.core.shapes.booleans import difference
from yenzo.core.shapes.box import Box
from yenzo.core.shapes.matrix import Matrix
from yenzo.core.shapes.outline import Outline
from yenzo.core.shapes.overlay import cut_to
from yenzo.core.shapes.polygons import edge_of, grown

MOST_TILES, MOST_STRIPES = 4000, 600
# Of a quarter of a dot: nobody sees more of them.
DOT_SEGMENTS = 8
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
        layers.append(Layer(outside, paint_of(stroke.color), "stroke", (stroke.width_mm, math.inf)))
    layers.extend(_filled(outline, ink, paint, effects, paint_of))
    if stroke and stroke.place == "centered":
        edge = edge_of(outline, stroke.width_mm)
        layers.append(Layer(edge, paint_of(stroke.color), "stroke", (stroke.width_mm, math.inf)))
    return tuple(layers)


def _filled(outline: Outline, ink: Box, paint: Paint, effects: Effects, paint_of: PaintOf) -> list[Layer]:
    match effects.fill:
        case None:
            return [Layer(outline, paint, "ink")]
        case Gradient() as gradient:
            return [Layer(outline, _gradient(ink, paint, paint_of(gradient.color), gradient.angle_deg), "ink")]
        case Pattern() as pattern:
            shown, detail = _patterned(pattern, ink, outline)
            return [Layer(outline, paint, "ink"), Layer(shown, paint_of(pattern.color), "pattern", detail)]


def _gradient(ink: Box, start: Paint, end: Paint, angle_deg: float) -> Fill:
    """Return the gradient that begins and ends where the ink does, in the direction of an angle."""
    along = np.array([math.cos(math.radians(angle_deg)), math.sin(math.radians(angle_deg))])
    corners = np.array([(x, y) for x in (ink.left, ink.right) for y in (ink.top, ink.bottom)])
    middle = np.array(ink.middle)
    reach = (corners - middle) @ along
    first, last = middle + along * reach.min(), middle + along * reach.max()
    return GradientPaint(start, end, (float(first[0]), float(first[1])), (float(last[0]), float(last[1])))


def _patterned(pattern: Pattern, ink: Box, outline: Outline) -> tuple[Outline, tuple[float, float]]:
    """Return stripes, dots or squares in letters, turned about their middle, and how wide they and their gaps are.

    Tiles are coarser if they would be too many; how fine they were wanted is told all the same.
    """
    half = math.hypot(ink.width, ink.height) / 2 + pattern.size_mm
    wanted, across = pattern.size_mm, MOST_STRIPES if pattern.kind == "stripes" else math.sqrt(MOST_TILES)
    step = max(wanted, 2 * half / across)
    places = np.arange(-math.ceil(half / step), math.ceil(half / step) + 1) * step
    x, y = (each.ravel() for each in np.meshgrid(places, places))
    detail = (wanted / 2, wanted / 2)
    if pattern.kind == "stripes":
        tiles = shapely.box(-half, places, half, places + step / 2)
    elif pattern.kind == "dots":
        tiles = shapely.buffer(shapely.points(x, y), step * 0.3, quad_segs=DOT_SEGMENTS)
        detail = (wanted * 0.6, wanted * 0.4)
    else:
        x, y = np.concatenate([x, x + step / 2]), np.concatenate([y, y + step / 2])
        tiles = shapely.box(x, y, x + step / 2, y + step / 2)
    # Straight up, tiles and letters are found in each other's boxes; letters are turned there and back.
    turned = Matrix.about(0, 0, turn_deg=pattern.angle_deg, scale=1).then(Matrix.shift(*ink.middle))
    back = Matrix.shift(-ink.middle[0], -ink.middle[1]).then(Matrix.about(0, 0, turn_deg=-pattern.angle_deg, scale=1))
    return cut_to(tiles, outline.mapped(back)).mapped(turned), detail
