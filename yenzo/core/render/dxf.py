"""DXF: a page comes in; a drawing for cutters and engravers (version R2010, in mm, y up) goes out.

Each contour is one closed entity. A smooth one is a cubic spline by control points, which is the very curve. One with
corners is a polyline whose curves are within 4 µm: programs that sample splines evenly would cut its corners off.
Contours of one color lie on the layer of its tool, without overlaps; holes are contours too, and what lies above in the
color of the ground is a hole. Letters of single lines are open polylines, which the tool follows.
"""

import io
import math
from dataclasses import replace

import ezdxf
import numpy as np
from ezdxf.entities import LWPolyline, Spline
from ezdxf.entities.lwpolyline import LWPolylinePoints
from ezdxf.layouts import Modelspace

from yenzo.core.errors import RenderError
from yenzo.core.render.page import Page, paint_page
from yenzo.core.scene.inking import as_made, tool_of
from yenzo.core.scene.paints import Fill, Paint
from yenzo.core.shapes.booleans import intersection, union
from yenzo.core.shapes.cubics import Cubics
from yenzo.core.shapes.flattening import flattened
from yenzo.core.shapes.matrix import Matrix
from yenzo.core.shapes.outline import Outline, Points

VERSION = "R2010"
MILLIMETRES = 4
# Registration marks are no tool's: they have a layer of their own.
MARKS = "Marks"
# No machine makes shorter steps, and some stumble over them.
LEAST_STEP_MM, FEWEST_POINTS = 0.02, 4
# The cosine of three degrees: what turns less is no corner.
STRAIGHT_ON = 0.9986
NOT_IN_LAYER_NAMES = dict.fromkeys(map(ord, '<>/\\":;?*|=`,'), "-")
# No dates and no random ids: the same page gives the same bytes.
ezdxf.options.write_fixed_meta_data_for_testing = True


def render_dxf(page: Page) -> bytes:
    """Return the page as a DXF file; raises RenderError for what has no contours: pictures and gradients."""
    drawing = ezdxf.new(VERSION, units=MILLIMETRES)
    canvas = _DxfCanvas(drawing.modelspace(), page.height_mm)
    areas = tuple(replace(placed, scene=as_made(placed.scene)) for placed in page.areas)
    paint_page(replace(page, areas=areas), canvas)
    canvas.draw()
    # Registered in order: by itself the library does so in the order of a set, which differs from process to process.
    for kind in sorted(drawing.entitydb.dxf_types_in_use()):
        drawing.classes.add_class(kind)
    output = io.StringIO()
    drawing.write(output)
    return output.getvalue().encode()


class _DxfCanvas:
    most_drawn_points = math.inf

    def __init__(self, space: Modelspace, height_mm: float) -> None:
        self._space = space
        self._outlines: dict[str, list[Outline]] = {}
        self._upright = Matrix(1, 0, 0, -1, 0, height_mm)

    def fill(self, outline: Outline, paint: Fill, clip: Outline | None = None) -> None:
        """Keep an outline for its tool's layer, cut to `clip`; it is drawn at the end."""
        self._outlines.setdefault(self._layer(_one(paint)), []).append(intersection(outline, clip) if clip else outline)

    def follow(self, line: Outline, paint: Fill) -> None:
        """Add a line for a tool to follow, as open polylines."""
        attributes, upright = {"layer": self._layer(_one(paint))}, line.mapped(self._upright)
        cubics = Cubics.of(upright)
        firsts = np.flatnonzero(np.diff(cubics.contours, prepend=-1))
        for run, curves in zip(flattened(upright), np.split(cubics.points, firsts[1:]), strict=True):
            self._add_polyline(np.vstack([run, curves[-1, 3]]), attributes, closed=False)

    def draw(self) -> None:
        """Draw what was filled, layer by layer: what lies on the same one has no contours inside each other."""
        for layer, outlines in self._outlines.items():
            merged = union(outlines).mapped(self._upright)
            if merged:
                self._draw(merged, {"layer": layer})

    def _draw(self, merged: Outline, attributes: dict[str, str]) -> None:
        cubics = Cubics.of(merged)
        firsts = np.flatnonzero(np.diff(cubics.contours, prepend=-1))
        contours = np.split(cubics.points, firsts[1:])
        for curves, ring in zip(contours, flattened(merged), strict=True):
            if _is_smooth(curves):
                self._add_spline(curves, attributes)
            else:
                self._add_polyline(ring, attributes, closed=True)

    def _add_polyline(self, points: Points, attributes: dict[str, str], *, closed: bool) -> None:
        points = _without_short_steps(points, closed=closed)
        polyline: LWPolyline = self._space.add_lwpolyline([], close=closed, dxfattribs=attributes)
        # All at once: place, widths at both ends and bulge of each point.
        polyline.lwpoints = LWPolylinePoints(np.hstack([points, np.zeros((len(points), 3))]).tolist())

    def _add_spline(self, curves: Points, attributes: dict[str, str]) -> None:
        points = np.concatenate([curves[:1, 0], curves[:, 1:].reshape(-1, 2)])
        # Cubics end to end are one B-spline whose inner knots count three times (Piegl, Tiller: The NURBS Book, 5.6).
        inner = np.repeat(np.arange(1, len(curves)), 3)
        knots = np.concatenate([[0.0] * 4, inner, [float(len(curves))] * 4])
        spline: Spline = self._space.add_spline(degree=3, dxfattribs=attributes)
        spline.control_points = np.column_stack([points, np.zeros(len(points))])
        spline.knots = knots
        spline.dxf.flags = Spline.PLANAR | Spline.CLOSED

    def picture(self, asset: str, matrix: Matrix, clip: Outline) -> None:  # noqa: ARG002 - the canvas's signature
        """Refuse it: always raises RenderError."""
        message = "A picture has no contours; a DXF file can't have it. Have it traced, or take the PDF or PNG."
        raise RenderError("picture", "dxf", message)

    def _layer(self, paint: Paint) -> str:
        tool = MARKS if paint.is_registration else tool_of(paint)
        name = tool.translate(NOT_IN_LAYER_NAMES).strip()[:80] or "Ink"
        layers = self._space.doc.layers
        if name not in layers:
            red, green, blue = (int(paint.screen[at : at + 2], 16) for at in (1, 3, 5))
            layers.add(name, true_color=ezdxf.rgb2int((red, green, blue)))
        return name


def _without_short_steps(points: Points, *, closed: bool) -> Points:
    """Return a polyline without steps that are shorter than any machine makes: of two points the blunter one goes."""
    while len(points) > FEWEST_POINTS:
        steps = np.hypot(*(np.roll(points, -1, axis=0) - points).T)
        if not closed:
            steps[-1] = math.inf
        short = np.flatnonzero(steps < LEAST_STEP_MM)
        if not len(short):
            break
        # Neighbours aren't dropped in one go: what is left between them may be long enough.
        apart = short[np.concatenate([[True], np.diff(short) > 2])]
        turns = _turns(points)
        first, second = turns[apart], turns[(apart + 1) % len(points)]
        drops = np.where(first <= second, apart, (apart + 1) % len(points))
        if not closed:
            # Its ends stay where they are.
            drops = np.clip(drops, 1, len(points) - 2)
        points = np.delete(points, np.unique(drops), axis=0)
    return points


def _turns(points: Points) -> Points:
    """Return by how much a polyline turns at each of its points, in radians."""
    before, after = points - np.roll(points, 1, axis=0), np.roll(points, -1, axis=0) - points
    angles = np.arctan2(after[:, 1], after[:, 0]) - np.arctan2(before[:, 1], before[:, 0])
    turned: Points = np.abs((angles + math.pi) % (2 * math.pi) - math.pi)
    return turned


def _one(paint: Fill) -> Paint:
    """Return the color, if it is one; raises RenderError."""
    if not isinstance(paint, Paint):
        message = "A color that goes over into another one has no contour; a DXF file can't have it."
        raise RenderError("gradient", "dxf", message)
    return paint


def _is_smooth(curves: Points) -> bool:
    """Tell whether a closed contour has no corner: each curve sets out as the one before it arrived."""
    arriving, leaving = _directions(curves[:, ::-1]), _directions(curves)
    return bool((-(np.roll(arriving, 1, axis=0)) * leaving).sum(axis=1).min() > STRAIGHT_ON)


def _directions(curves: Points) -> Points:
    """Return the unit directions in which curves set out: towards the first control that isn't their start."""
    ways = curves[:, 1:] - curves[:, :1]
    lengths = np.hypot(ways[..., 0], ways[..., 1])
    first = (lengths > 1e-9).argmax(axis=1)
    every = np.arange(len(curves))
    directions: Points = ways[every, first] / np.maximum(lengths[every, first], 1e-12)[:, None]
    return directions
