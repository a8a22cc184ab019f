"""The shape of an imprint area: a form with numbers, points or an SVG comes in, values of the set-up go out."""

from typing import Any, BinaryIO

import numpy as np
from django import forms
from django.http import QueryDict
from fontTools.svgLib import SVGPath
from lxml import etree

from yenzo.apps.editor.aspects.interface import points_in, shown_for
from yenzo.apps.pages.fields import LineField
from yenzo.core.artwork.svg_safety import parse_svg, written_svg
from yenzo.core.documents.areas import Area, Cylinder, FourCorners, FreePath, Polygon, Rectangle, Ring
from yenzo.core.errors import ArtworkError, ShapeError
from yenzo.core.measure import plain_number
from yenzo.core.shapes.areas import OutlinePen
from yenzo.core.shapes.matrix import Matrix
from yenzo.core.shapes.outline import Outline
from yenzo.core.shapes.polygons import grown

NUMBER = forms.NumberInput(attrs={"step": "any"})
MOST_SVG_BYTES = 1_000_000
MOST_VERBS = 2000
WAYS = (
    ("rectangle", "Rectangle"),
    ("ellipse", "Ellipse"),
    ("ring", "Part of a ring"),
    ("polygon", "Straight edges between points"),
    ("path", "The outline of an SVG file"),
)
SURFACES = (("flat", "flat, seen straight"), ("cylinder", "round like a cylinder"), ("corners", "seen at an angle"))
AXES = (("upright", "upright"), ("across", "across"))


class ShapeForm(forms.Form):
    """What an area looks like inside its frame, and whether the goods' picture lies over it."""

    way = forms.ChoiceField(choices=WAYS, widget=forms.RadioSelect, label="The area is")
    corner_mm = forms.FloatField(required=False, min_value=0, max_value=500, widget=NUMBER, label="Round corners, mm")
    hole = forms.FloatField(
        required=False, min_value=0, max_value=99, widget=NUMBER, label="Hole, % of the outer radius"
    )
    start_deg = forms.FloatField(
        required=False, min_value=-360, max_value=360, widget=NUMBER, label="Starts at (0 right, 90 below, 270 on top)"
    )
    spread_deg = forms.FloatField(required=False, min_value=1, max_value=360, widget=NUMBER, label="Spreads, degrees")
    points = LineField(
        required=False, max_length=4000, label="Points in mm from the frame's top left, “across down” each, with commas"
    )
    svg = forms.FileField(required=False, label="SVG file; all its shapes together become the outline")
    surface = forms.ChoiceField(choices=SURFACES, widget=forms.RadioSelect, label="The goods are there")
    axis = forms.ChoiceField(choices=AXES, required=False, label="Its axis stands")
    span_deg = forms.FloatField(
        required=False, min_value=1, max_value=178, widget=NUMBER, label="The area goes round by, degrees"
    )
    tilt_deg = forms.FloatField(
        required=False, min_value=-60, max_value=60, widget=NUMBER, label="Seen from above by, degrees"
    )
    corners = LineField(
        required=False,
        max_length=400,
        label="How far each corner shows from where it lies flat, “across down” in mm: top left, top right, "
        "bottom right, bottom left",
    )
    under = forms.BooleanField(required=False, label="The goods' picture lies over it (a window)")

    def __init__(self, area: Area, data: QueryDict | None = None, files: Any = None) -> None:
        self.area = area
        shape = area.shape
        ring = shape if isinstance(shape, Ring) else Ring()
        corners = shape.points if isinstance(shape, Polygon) else ((0.0, 0.0), (1.0, 0.5), (0.0, 1.0))
        initial = {
            "way": shape.kind,
            "corner_mm": plain_number(shape.corner_mm if isinstance(shape, Rectangle) else 0),
            "hole": plain_number(ring.hole * 100, 2),
            "start_deg": plain_number(ring.start_deg),
            "spread_deg": plain_number(ring.spread_deg),
            "points": ", ".join(
                f"{plain_number(x * area.width_mm, 2)} {plain_number(y * area.height_mm, 2)}" for x, y in corners
            ),
            "under": area.under,
            **_surface_values(area),
        }
        super().__init__(data, files, initial=initial, auto_id="shape-%s")
        shown = {"corner_mm": "rectangle", "hole": "ring", "start_deg": "ring", "spread_deg": "ring"}
        shown |= {"axis": "cylinder", "span_deg": "cylinder", "tilt_deg": "cylinder", "corners": "corners"}
        for name, way in {**shown, "points": "polygon", "svg": "path"}.items():
            shown_for(way, self.fields[name])

    def clean(self) -> dict[str, Any]:
        """Add `shape`, and `height_mm` when an SVG brings its own proportions."""
        given: dict[str, Any] = super().clean() or {}
        match given.get("way"):
            case "rectangle":
                given["shape"] = {"kind": "rectangle", "corner_mm": given.get("corner_mm") or 0}
            case "ellipse":
                given["shape"] = {"kind": "ellipse"}
            case "ring":
                given["shape"] = self._ring(given)
            case "polygon":
                given["shape"] = {"kind": "polygon", "points": self._points(given.get("points", ""))}
            case "path":
                self._add_path(given)
        given["surface"] = _surface(given)
        return given

    def _ring(self, given: dict[str, Any]) -> dict[str, Any]:
        if any(given.get(name) is None for name in ("hole", "start_deg", "spread_deg")):
            raise forms.ValidationError("Please fill in the hole, where the ring starts and how far it spreads.")
        angles = {name: given[name] for name in ("start_deg", "spread_deg")}
        return {"kind": "ring", "hole": given["hole"] / 100, **angles}

    def _points(self, text: str) -> list[list[float]]:
        message = "Write at least three points, each as two numbers inside the frame: 0 0, 80 20, 0 40."
        points = points_in(text, message)
        if len(points) < 3:
            raise forms.ValidationError(message)
        shares = [[x / self.area.width_mm, y / self.area.height_mm] for x, y in points]
        if not all(-1e-6 <= share <= 1 + 1e-6 for point in shares for share in point):
            raise forms.ValidationError(message)
        return [[min(max(share, 0.0), 1.0) for share in point] for point in shares]

    def _add_path(self, given: dict[str, Any]) -> None:
        file = given.get("svg")
        if file is None:
            if not isinstance(self.area.shape, FreePath):
                raise forms.ValidationError("Please pick the SVG file that has the outline.")
            given["shape"] = self.area.shape.model_dump()
            return
        outline = read_outline(file)
        bounds = outline.bounds
        if bounds is None or bounds.width <= 0 or bounds.height <= 0:
            raise forms.ValidationError("The SVG file has no shape that covers anything.")
        place = framed(outline)
        try:
            grown(outline, -self.area.safe_mm)
        except ShapeError as error:
            raise forms.ValidationError(f"{error.message} Please simplify the outline.") from error
        given["shape"] = place["shape"]
        given["height_mm"] = round(self.area.width_mm * bounds.height / bounds.width, 2)


def framed(outline: Outline) -> dict[str, Any]:
    """Return an outline that has a size as the place and shape of an area, as a set-up document has them."""
    bounds = outline.bounds
    assert bounds is not None
    wide, high = bounds.width, bounds.height
    unit = Matrix(1 / wide, 0, 0, 1 / high, -bounds.left / wide, -bounds.top / high)
    return {
        "x_mm": round(bounds.left, 3),
        "y_mm": round(bounds.top, 3),
        "width_mm": round(wide, 3),
        "height_mm": round(high, 3),
        "shape": {"kind": "path", "data": _shares(outline.mapped(unit))},
    }


def _surface_values(area: Area) -> dict[str, Any]:
    surface = area.surface
    cylinder = surface if isinstance(surface, Cylinder) else Cylinder(span_deg=120)
    corners = surface.corners_mm if isinstance(surface, FourCorners) else ((0.0, 0.0),) * 4
    return {
        "surface": surface.kind,
        "axis": cylinder.axis,
        "span_deg": plain_number(cylinder.span_deg),
        "tilt_deg": plain_number(cylinder.tilt_deg),
        "corners": ", ".join(f"{plain_number(x)} {plain_number(y)}" for x, y in corners),
    }


def _surface(given: dict[str, Any]) -> dict[str, Any] | None:
    match given.get("surface"):
        case "cylinder":
            if given.get("span_deg") is None:
                raise forms.ValidationError("Please say by how many degrees the area goes round.")
            tilt = given.get("tilt_deg") or 0
            return {"kind": "cylinder", "axis": given["axis"], "span_deg": given["span_deg"], "tilt_deg": tilt}
        case "corners":
            corners = points_in(
                given.get("corners", ""), "Write four corners, each as two numbers: 0 0, -4 2, -4 -2, 0 0."
            )
            if len(corners) != 4:
                raise forms.ValidationError(
                    "There must be four corners: top left, top right, bottom right, bottom left."
                )
            return {"kind": "corners", "corners_mm": corners}
        case _:
            return None


def read_outline(file: BinaryIO) -> Outline:
    """Return all shapes of an SVG file as one outline; raises ValidationError in words."""
    data = file.read(MOST_SVG_BYTES + 1)
    if len(data) > MOST_SVG_BYTES:
        raise forms.ValidationError("This SVG file has more than 1 MB. Please save only the outline.")
    pen = OutlinePen()
    try:
        SVGPath.fromstring(written_svg(parse_svg(data, "The SVG file"))).draw(pen)
        outline = pen.outline()
    except ArtworkError as error:
        raise forms.ValidationError(error.message) from error
    except (etree.XMLSyntaxError, ValueError, KeyError, NotImplementedError, IndexError, TypeError):
        raise forms.ValidationError("This is no SVG file that can be read. Please save it as plain SVG.") from None
    if len(outline.verbs) > MOST_VERBS:
        raise forms.ValidationError(f"This outline has more than {MOST_VERBS} edges. Please simplify it.")
    if not np.isfinite(outline.points).all():
        raise forms.ValidationError("This SVG file has numbers without sense. Please save it again.")
    return outline


def _shares(outline: Outline) -> str:
    """Return an outline inside the unit square as path data, to a millionth."""
    steps = ((verb, " ".join(plain_number(share, 6) for share in shares)) for verb, shares in outline.steps())
    return " ".join(f"{verb}{shares}" for verb, shares in steps)
