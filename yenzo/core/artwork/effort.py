"""How much work a drawing would be, guessed before it is drawn: an SVG tree comes in; what is absurd is refused.

A guess only: the processor seconds of whoever draws it are bounded all the same.
"""

import re
from collections.abc import Iterator

from lxml import etree

from yenzo.core.artwork.identify import too_much_work
from yenzo.core.artwork.numbers import first_numbers

# Filters and masks are drawn as pixels; the longer side of the page has so many then.
PIXEL_SIDE = 2400
# What is looked at of neighbouring pixels, in all: measured, about 1.5e8 of them take a second.
MOST_STEPS = 1.2e9
MOST_REPEATS = 2e6
# Of very many parts with a filter most are small; so many are taken to be as large as the page.
MOST_LARGE = 10
BOXES = 12.0  # A blur is three boxes in two directions, and their edges.
LIGHTS, OTHERS, OCTAVE = 30.0, 4.0, 25.0
REFERENCE = re.compile(r"url\(\s*[\"']?#([^)\"']+)")


def drawn_as_pixels(root: etree._Element) -> str | None:
    """Return what of a drawing no converter keeps as outlines, a filter or a mask; None when neither is in use."""
    kinds = ("filter", "mask")
    return next((what for what in kinds if any(any(_names(node, what)) for node in root.iter(etree.Element))), None)


def refuse_effort(root: etree._Element, name: str) -> None:
    """Raise ArtworkError for filters, masks and patterns whose drawing would take very long."""
    named = {node.get("id"): node for node in root.iter(etree.Element) if node.get("id")}
    longer, area = _page(root)
    pixels = PIXEL_SIDE * PIXEL_SIDE * area / (longer * longer)
    steps: dict[str, float] = {}
    used: dict[str, int] = {}
    for node in root.iter(etree.Element):
        for target in (*_names(node, "filter"), *_names(node, "mask")):
            used[target] = used.get(target, 0) + 1
            if target not in steps and target in named:
                steps[target] = pixels * _weight(named[target], PIXEL_SIDE / longer)
    total = sum(steps.get(target, 0) * min(count, MOST_LARGE) for target, count in used.items())
    if total > MOST_STEPS:
        raise too_much_work(name)
    for node in root.iter(etree.Element):
        if _local(node) == "pattern" and _repeats(node, named, area, set()) > MOST_REPEATS:
            raise too_much_work(name)


def _page(root: etree._Element) -> tuple[float, float]:
    """Return the longer side and the area of the page in its own units."""
    box = first_numbers(root.get("viewBox", ""))
    sides = (
        box[2:4] if len(box) == 4 else [*first_numbers(root.get("width", "")), *first_numbers(root.get("height", ""))]
    )
    width, height = sides if len(sides) == 2 and min(sides) > 0 else (100.0, 100.0)
    return max(width, height), width * height


def _weight(node: etree._Element, px_per_unit: float) -> float:
    """Return how many neighbouring pixels are looked at for each pixel."""
    if _local(node) == "mask":
        return OTHERS
    return sum(_of_primitive(part, px_per_unit) for part in node.iter(etree.Element))


def _of_primitive(node: etree._Element, px_per_unit: float) -> float:
    match _local(node):
        case "feConvolveMatrix":
            sides = first_numbers(node.get("order", "3")) or [3.0]
            return sides[0] * sides[-1]
        case "feMorphology":
            radii = first_numbers(node.get("radius", "0")) or [0.0]
            return (2 * radii[0] * px_per_unit + 1) * (2 * radii[-1] * px_per_unit + 1)
        case "feTurbulence":
            return OCTAVE * max(first_numbers(node.get("numOctaves", "1")) or [1.0])
        case "feGaussianBlur" | "feDropShadow":
            return BOXES
        case "feDiffuseLighting" | "feSpecularLighting":
            return LIGHTS
        case local:
            return OTHERS if local.startswith("fe") else 0.0


def _repeats(node: etree._Element, named: dict[str, etree._Element], area: float, seen: set[etree._Element]) -> float:
    """Return how often the tile of a pattern is drawn over an area, with the patterns that its tile is filled with."""
    if node in seen:
        return 0.0
    sides = [*first_numbers(node.get("width", "")), *first_numbers(node.get("height", ""))]
    is_share = node.get("patternUnits", "objectBoundingBox") == "objectBoundingBox"
    if len(sides) != 2 or min(sides) <= 0:
        return 1.0
    tile = sides[0] * sides[1] * (area if is_share else 1.0)
    own = max(area / tile, 1.0)
    inner = [
        _repeats(named[target], named, tile, seen | {node})
        for part in node.iter(etree.Element)
        for target in (*_names(part, "fill"), *_names(part, "stroke"))
        if target in named and _local(named[target]) == "pattern"
    ]
    return own * max(1.0, sum(inner))


def _names(node: etree._Element, what: str) -> Iterator[str]:
    """Yield what a presentation attribute or a declaration of a style refers to."""
    said = [node.get(what, "")]
    for declaration in node.get("style", "").split(";"):
        name, _, value = declaration.partition(":")
        if name.strip() == what:
            said.append(value)
    for text in said:
        yield from REFERENCE.findall(text)


def _local(node: etree._Element) -> str:
    return node.tag.rsplit("}", 1)[-1] if isinstance(node.tag, str) else ""
