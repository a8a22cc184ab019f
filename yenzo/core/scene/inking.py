"""Inking: what is painted in an area comes in; what one color or one tool makes of it goes out.

A tool has no white and no color of the ground: what is painted so above something else is cut out of it, and isn't
made itself. So white words on a black plate stay words, and a white square in a black disc stays a hole.
"""

from collections.abc import Callable, Iterator
from dataclasses import dataclass, replace
from itertools import combinations

import shapely

from yenzo.core.documents.mixing import distance
from yenzo.core.errors import ShapeError
from yenzo.core.scene.nodes import AreaScene, Lettering, Node, Painted
from yenzo.core.scene.paints import Layer, Paint
from yenzo.core.shapes.booleans import difference, intersection, union
from yenzo.core.shapes.outline import Outline
from yenzo.core.shapes.polygons import polygon_of

WHITE = "#ffffff"
# As eyes see them (CIEDE2000): a photographed ground is no exact color, a white is; two colors that look the same.
GROUND_NEAR, WHITE_NEAR, SAME = 8.0, 3.0, 2.0
# Less than this of one shape on another nobody can see, in mm2.
LEAST_MM2 = 0.01

ToolOf = Callable[[Paint], str]


@dataclass(frozen=True)
class Inked:
    """What is painted of a node, cut off where its area ends."""

    node: Painted
    layer: Layer

    @property
    def color(self) -> str:
        """The color that shows, as #rrggbb; that of its beginning where it goes over into another one."""
        return self.layer.paint.colors[0].screen


def one_tool(_paint: Paint) -> str:
    """Return the tool of a color where all is made by one."""
    return "all"


def tool_of(paint: Paint) -> str:
    """Return what makes a color: its tool, or else what the workshop or the screen calls it."""
    return paint.tool or paint.name or paint.screen


def painted(area: AreaScene) -> list[Inked]:
    """Return all that is painted in an area, first what lies lowest; drawings end where the bleed does."""
    whole = area.bleed_outline
    return [
        Inked(
            node, layer if isinstance(node, Lettering) else replace(layer, outline=intersection(layer.outline, whole))
        )
        for node in area.painted
        for layer in node.layers
    ]


def as_made(area: AreaScene) -> AreaScene:
    """Return an area as tools make it: without what is cut out; the area itself where nothing is."""
    layers = painted(area)
    made = made_of(area, layers)
    if made is layers:
        return area
    whole = {id(one) for one in made}
    nodes: list[Node] = []
    for node in area.painted:
        if all(id(one) in whole for one in layers if one.node is node):
            nodes.append(node)
        else:
            nodes.extend(drawn(one.layer) for one in made if one.node is node)
    return replace(area, nodes=(*nodes, *area.pictures))


def drawn(layer: Layer) -> Lettering:
    """Return a node that is this one painted shape, and tells nothing more."""
    return Lettering("", "", "", "", "", 0, 0, layer.outline, layer.paint.colors[0], effects=(layer,))


def made_of(area: AreaScene, layers: list[Inked]) -> list[Inked]:
    """Return what is made of layers: what shows the ground is cut out of what lies below it."""
    if not any(_cuts(area, one) for one in layers):
        return layers
    made: list[Inked] = []
    for at, one in enumerate(layers):
        if not _cuts(area, one):
            made.append(one)
            continue
        below = [lower for lower in made if _meets(lower, one)]
        if below:
            cut = {id(lower): replace(lower, layer=_without(lower.layer, one.layer.outline)) for lower in below}
            made = [cut.get(id(lower), lower) for lower in made]
        elif not (_is_ground(area, one) and any(_meets(one, upper) for upper in layers[at + 1 :])):
            made.append(one)
    return [one for one in made if one.layer.outline]


def separated(layers: list[Inked]) -> list[Inked]:
    """Return what shows of each layer, first what lies lowest: what lies over it in another color is cut out of it.

    So plates of one color each are made, and spot colors printed. A layer that nothing lies on stays the very same.
    Raises ShapeError where one is too tangled.
    """
    shown = [
        replace(one, layer=_without(one.layer, whole_of(list(above)))) if above else one
        for one, above in with_what_lies_above(layers)
    ]
    return [one for one in shown if one.layer.outline]


def with_what_lies_above(layers: list[Inked]) -> Iterator[tuple[Inked, tuple[Inked, ...]]]:
    """Yield each layer with those that may lie on it in another color."""
    for at, one in enumerate(layers):
        over = (upper for upper in layers[at + 1 :] if upper.layer.paint != one.layer.paint)
        yield one, tuple(upper for upper in over if _are_near(one, upper))


def merged(area: AreaScene, tool: ToolOf) -> Iterator[tuple[Inked, Inked]]:
    """Yield pairs, the lower one first, that differ in color, lie on each other and are made by one tool."""
    for lower, upper in combinations(made_of(area, painted(area)), 2):
        if not (isinstance(lower.layer.paint, Paint) and isinstance(upper.layer.paint, Paint)):
            continue
        differ = distance(lower.color, upper.color) > SAME
        if differ and tool(lower.layer.paint) == tool(upper.layer.paint) and _meets(lower, upper):
            yield lower, upper


def _without(layer: Layer, outline: Outline) -> Layer:
    return replace(layer, outline=difference(layer.outline, outline))


def _cuts(area: AreaScene, one: Inked) -> bool:
    """Tell whether a layer shows the ground where it lies above others."""
    return distance(one.color, WHITE) <= WHITE_NEAR or _is_ground(area, one)


def _is_ground(area: AreaScene, one: Inked) -> bool:
    """Tell whether a layer has the color of what lies below all; a drawing's own white is its paper."""
    if not isinstance(one.node, Lettering) and one.node.paint is None and distance(one.color, WHITE) <= WHITE_NEAR:
        return True
    return area.ground is not None and distance(one.color, area.ground) <= GROUND_NEAR


def _meets(first: Inked, second: Inked) -> bool:
    if not _are_near(first, second):
        return False
    try:
        shared = shapely.intersection(polygon_of(first.layer.outline), polygon_of(second.layer.outline))
    except ShapeError:
        # What is tangled has a finding of its own.
        return False
    return bool(shared.area >= LEAST_MM2)


def _are_near(first: Inked, second: Inked) -> bool:
    """Tell whether the boxes of two layers have something in common."""
    one, two = first.layer.outline.bounds, second.layer.outline.bounds
    return one is not None and two is not None and one.meets(two)


def whole_of(layers: list[Inked]) -> Outline:
    """Return what layers cover together."""
    return union(one.layer.outline for one in layers)
