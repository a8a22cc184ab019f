"""DXF: a page comes in; a drawing for cutters and engravers (AutoCAD 2010, in mm, y up) goes out.

Each contour is one closed entity: a polyline when all its edges are straight, else a cubic spline by control points,
which is the very curve. Contours of one color lie on the layer of its tool, without overlaps; holes are contours too.
"""

import io

import ezdxf
import numpy as np
from ezdxf.entities import Spline
from ezdxf.layouts import Modelspace

from yenzo.core.errors import RenderError
from yenzo.core.render.page import Page, paint_page
from yenzo.core.scene.paints import Fill, Paint
from yenzo.core.shapes.booleans import union
from yenzo.core.shapes.cubics import Cubics
from yenzo.core.shapes.matrix import Matrix
from yenzo.core.shapes.outline import Outline, Points

VERSION = "R2010"
MILLIMETRES = 4
NOT_IN_LAYER_NAMES = dict.fromkeys(map(ord, '<>/\\":;?*|=`,'), "-")
# No dates and no random ids: the same page gives the same bytes.
ezdxf.options.write_fixed_meta_data_for_testing = True


def render_dxf(page: Page) -> bytes:
    """Return the page as a DXF file; raises RenderError for what has no contours: pictures and gradients."""
    drawing = ezdxf.new(VERSION, units=MILLIMETRES)
    canvas = _DxfCanvas(drawing.modelspace(), page.height_mm)
    paint_page(page, canvas)
    output = io.StringIO()
    drawing.write(output)
    return output.getvalue().encode()


class _DxfCanvas:
    def __init__(self, space: Modelspace, height_mm: float) -> None:
        self._space = space
        self._upright = Matrix(1, 0, 0, -1, 0, height_mm)

    def fill(self, outline: Outline, paint: Fill) -> None:
        if not isinstance(paint, Paint):
            message = "A color that goes over into another one has no contour; a DXF file can't have it."
            raise RenderError("gradient", "dxf", message)
        attributes = {"layer": self._layer(paint)}
        merged = union([outline]).mapped(self._upright)
        if not merged:
            return
        cubics, verbs = Cubics.of(merged), merged.verbs.split("M")[1:]
        firsts = np.flatnonzero(np.diff(cubics.contours, prepend=-1))
        for first, curves in zip(firsts, np.split(cubics.points, firsts[1:]), strict=True):
            if "C" in verbs[cubics.contours[first]]:
                self._add_spline(curves, attributes)
            else:
                self._space.add_lwpolyline(curves[:, 0], close=True, dxfattribs=attributes)

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
        message = "A picture has no contours; a DXF file can't have it. Have it traced, or take the PDF or PNG."
        raise RenderError("picture", "dxf", message)

    def _layer(self, paint: Paint) -> str:
        name = (paint.tool or paint.name or paint.screen).translate(NOT_IN_LAYER_NAMES).strip()[:80] or "Ink"
        layers = self._space.doc.layers
        if name not in layers:
            red, green, blue = (int(paint.screen[at : at + 2], 16) for at in (1, 3, 5))
            layers.add(name, true_color=ezdxf.rgb2int((red, green, blue)))
        return name
