"""A side of a scene in words, for whoever doesn't see it: what stands where, and how large."""

from yenzo.core.caching import cached_on
from yenzo.core.scene.nodes import AreaScene, Lettering, Node, SideScene
from yenzo.core.translation import current_language, decimal, translate, translate_noop

# By thirds of the area: from the top down, from the left to the right.
PLACES = (
    (translate_noop("top left"), translate_noop("top"), translate_noop("top right")),
    (translate_noop("left"), translate_noop("middle"), translate_noop("right")),
    (translate_noop("bottom left"), translate_noop("bottom"), translate_noop("bottom right")),
)


def describe_side(side: SideScene) -> str:
    """Return what stands on a side, how large and where: "Front: “WIND & WHEY”, 76 mm high, middle"."""
    parts = [part for area in side.areas for part in _parts(area)]
    if not parts:
        return translate("{side}: nothing stands on it yet", side=side.name)
    return translate("{side}: {parts}", side=side.name, parts="; ".join(parts))


def _parts(area: AreaScene) -> list[str]:
    """Return what stands in an area, told once."""
    nodes = (node for node in area.nodes if node.bounds is not None)
    return cached_on(area, "described", current_language(), lambda: [_said(area, node) for node in nodes])


def _said(area: AreaScene, node: Node) -> str:
    place = translate(_place(area, node))
    if isinstance(node, Lettering):
        text = " / ".join(node.lines or (node.text,))
        height = decimal(node.letter_height_mm, 0)
        return translate("“{text}”, {height} mm high, {place}", text=text, height=height, place=place)
    width, height = (decimal(length, 0) for length in node.size_mm)
    return translate("{name}, {width} × {height} mm, {place}", name=node.name, width=width, height=height, place=place)


def _place(area: AreaScene, node: Node) -> str:
    ink, trim = node.bounds, area.trim
    assert ink is not None
    x, y = ink.middle
    column, row = (min(max(int(3 * at / whole), 0), 2) for at, whole in ((x, trim.width), (y, trim.height)))
    return PLACES[row][column]
