"""Plates: an area and its decoration method come in; the pages that production gets, each with a name, go out."""

from collections.abc import Iterable, Sequence
from dataclasses import dataclass, replace

from yenzo.core.documents.areas import Area
from yenzo.core.documents.materials import Method
from yenzo.core.errors import RenderError
from yenzo.core.render.page import Page, PlacedArea, area_page
from yenzo.core.scene.inking import Inked, drawn, made_of, painted, separated, whole_of
from yenzo.core.scene.nodes import AreaScene
from yenzo.core.scene.paints import Fill, Layer, Paint, PlateNames
from yenzo.core.shapes.areas import arc_outline
from yenzo.core.shapes.booleans import difference, union
from yenzo.core.shapes.box import Box
from yenzo.core.shapes.matrix import Matrix
from yenzo.core.shapes.necks import choked
from yenzo.core.shapes.outline import Outline
from yenzo.core.shapes.polygons import grown

ONE_COLOR = Paint("#000000", "Black")
UNDERBASE = Paint("#e8e8e8", "Underbase white")
REGISTRATION = Paint("#000000", "All", is_registration=True)
# What registration marks need around the bleed, and how they are drawn, in mm.
MARKS_MM, MARK_RADIUS_MM, MARK_LINE_MM = 8.0, 2.0, 0.15


@dataclass(frozen=True)
class Plate:
    """One page for production; `name` is empty for the page that shows all, `paint` the color of a separation."""

    name: str
    page: Page
    paint: Paint | None = None


def margin_mm(method: Method) -> float:
    """Return what lies around the bleed on every page of a method."""
    return MARKS_MM if method.registration else 0.0


def plates_of(area: AreaScene, method: Method) -> tuple[Plate, ...]:
    """Return all pages of an area; raises RenderError when pictures or gradients are to become plates."""
    whole = _recolored(area, ONE_COLOR) if method.one_color else area
    scenes: list[tuple[str, AreaScene, Paint | None]] = [("", whole, None)]
    if method.underbase_mm is not None:
        white = Layer(_underbase(area, method.underbase_mm), UNDERBASE, "ink")
        scenes.append(("underbase", _of_layers(area, [white]), UNDERBASE))
    if method.separations:
        separated = _separated(area)
        names = plate_names([paint for paint, _ in separated])
        scenes += [(names[paint], _of_layers(area, [layer]), paint) for paint, layer in separated]
    return tuple(Plate(name, _finished(area_page(scene), method), paint) for name, scene, paint in scenes)


def spot_names(area: AreaScene, method: Method) -> dict[Paint, str]:
    """Return what the spot colors of an area are called in its PDFs, by color; none where a method has none."""
    if not method.spot_colors:
        return {}
    paints = [ONE_COLOR] if method.one_color else [one.layer.paint for one in painted(area)]
    named = PlateNames()
    return {paint: named.of(paint) for paint in paints if isinstance(paint, Paint) and paint.name}


def plate_names(paints: Sequence[Paint]) -> dict[Paint, str]:
    """Return what the plates of colors are called, no two alike: by name, and where two share that by reference too."""
    named: dict[Paint, str] = {}
    for paint in paints:
        short = Paint(paint.screen, paint.name).plate
        shares = sum(other.name == paint.name for other in paints) > 1
        name = paint.plate if shares else short
        named[paint] = name if name not in named.values() else f"{name} {paint.screen}"
    return named


def _finished(page: Page, method: Method) -> Page:
    if method.registration:
        page = _with_marks(page)
    if method.mirrored:
        over = Matrix(-1, 0, 0, 1, page.width_mm, 0)
        turned = Box(page.width_mm - page.trim.right, page.trim.top, page.width_mm - page.trim.left, page.trim.bottom)
        areas = tuple(replace(placed, place=placed.place.then(over)) for placed in page.areas)
        page = replace(page, areas=areas, trim=turned)
    return page


def _layers(area: AreaScene) -> list[Inked]:
    for picture in area.pictures:
        message = f"“{picture.name}” is a picture, and “{area.name}” is to be made in plates of one color each."
        raise RenderError("no_plates", area.key, message)
    layers = painted(area)
    if any(not isinstance(one.layer.paint, Paint) for one in layers):
        message = f"A color on “{area.name}” goes over into another one, which plates of one color can't have."
        raise RenderError("no_plates", area.key, message)
    return layers


def _recolored(area: AreaScene, paint: Paint) -> AreaScene:
    """Return all that is made of an area in one color."""
    return _of_layers(area, [Layer(whole_of(made_of(area, _layers(area))), paint, "ink")])


def _separated(area: AreaScene) -> list[tuple[Paint, Layer]]:
    """Return each color with what shows of it: what lies over it is cut out."""
    layers = _layers(area)
    # By their topmost layers, the lowest first.
    paints = [paint for one in reversed(layers) if isinstance(paint := one.layer.paint, Paint)]
    shown: dict[Fill, list[Outline]] = {paint: [] for paint in paints}
    for one in separated(layers):
        shown[one.layer.paint].append(one.layer.outline)
    return [(paint, Layer(union(shown[paint]), paint, "ink")) for paint in reversed(dict.fromkeys(paints))]


def _underbase(area: AreaScene, by_mm: float) -> Outline:
    """Return what lies white under all colors, grown or (below zero) choked, no more than its strokes bear."""
    whole = whole_of(_layers(area))
    return grown(whole, by_mm) if by_mm >= 0 else choked(whole, -by_mm)


def _of_layers(area: AreaScene, layers: Iterable[Layer]) -> AreaScene:
    nodes = tuple(map(drawn, layers))
    return AreaScene(area.side, area.area, nodes)


def _with_marks(page: Page) -> Page:
    wide, high = page.width_mm + 2 * MARKS_MM, page.height_mm + 2 * MARKS_MM
    areas = tuple(replace(p, place=p.place.then(Matrix.shift(MARKS_MM, MARKS_MM))) for p in page.areas)
    middles = [(x, y) for x in (MARKS_MM / 2, wide - MARKS_MM / 2) for y in (MARKS_MM / 2, high - MARKS_MM / 2)]
    marks = Outline.joined(_mark().shifted(x, y) for x, y in middles)
    sheet = Area(key="marks", name="Marks", x_mm=0, y_mm=0, width_mm=wide, height_mm=high, method="registration")
    scene = AreaScene("marks", sheet, (drawn(Layer(marks, REGISTRATION, "ink")),))
    trim = Box(*(edge + MARKS_MM for edge in page.trim))
    bleed = Box(MARKS_MM, MARKS_MM, wide - MARKS_MM, high - MARKS_MM)
    return Page(wide, high, trim, (*areas, PlacedArea(scene, Matrix(), Outline.empty())), bleed=bleed)


def _mark() -> Outline:
    """Return a ring with a cross, about the origin."""
    line, reach = MARK_LINE_MM / 2, MARK_RADIUS_MM * 1.6
    radius = Matrix(MARK_RADIUS_MM, 0, 0, MARK_RADIUS_MM, 0, 0)
    inner = Matrix(MARK_RADIUS_MM - 2 * line, 0, 0, MARK_RADIUS_MM - 2 * line, 0, 0)
    ring = difference(arc_outline(0, 360, radius), arc_outline(0, 360, inner))
    return union(
        [ring, Outline.rectangle(Box(-reach, -line, reach, line)), Outline.rectangle(Box(-line, -reach, line, reach))]
    )
