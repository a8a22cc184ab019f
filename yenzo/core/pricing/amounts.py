"""Amounts: a scene comes in; how much of what each field's entry puts on the goods goes out."""

from collections.abc import Iterator
from dataclasses import dataclass, field
from decimal import Decimal

from yenzo.core.scene.nodes import AreaScene, Lettering, Node, PlacedPicture, Scene
from yenzo.core.shapes.polygons import polygon_of

MM2_PER_CM2 = 100
# Amounts are charged by: finer than anybody measures, and the same on every machine.
STEP_CM2 = Decimal("0.01")


@dataclass(frozen=True)
class Amount:
    """What lands on the goods: cm2 of the boxes round the ink and of whole areas, colors, sides, texts and artwork."""

    ink_cm2: Decimal = Decimal(0)
    area_cm2: Decimal = Decimal(0)
    colors: int = 0
    sides: int = 0
    placed: int = 0


@dataclass(frozen=True)
class Amounts:
    """The amounts of each field, and of the whole piece."""

    whole: Amount = Amount()
    fields: dict[str, Amount] = field(default_factory=dict)

    def of(self, field_key: str | None) -> Amount:
        """Return the amounts of a field, or of the whole piece for none."""
        return self.whole if field_key is None else self.fields.get(field_key, Amount())


def measure_amounts(scene: Scene) -> Amounts:
    """Return how much each field, and all together, puts on the goods."""
    placed = [(area, node) for area in scene.areas for node in area.nodes]
    keys = dict.fromkeys(key for _, node in placed for key in node.fields)
    by_field = {key: _amount([(area, node) for area, node in placed if key in node.fields]) for key in keys}
    return Amounts(_amount(placed), by_field)


def _amount(placed: list[tuple[AreaScene, Node]]) -> Amount:
    areas = {(area.side, area.area.key): area for area, _ in placed}
    sizes = [_size_of(node) for _, node in placed]
    paints = {color for _, node in placed for color in _colors(node)}
    return Amount(
        ink_cm2=_cm2(sum(width * height for width, height in sizes)),
        area_cm2=_cm2(sum(_size_mm2(area) for area in areas.values())),
        colors=len(paints),
        sides=len({area.side for area, _ in placed}),
        placed=len(placed),
    )


def _size_of(node: Node) -> tuple[float, float]:
    if not isinstance(node, Lettering):
        return node.size_mm
    box = node.bounds
    return (box.width, box.height) if box else (0, 0)


def _size_mm2(area: AreaScene) -> float:
    if area.area.shape.kind == "rectangle" and not area.area.shape.corner_mm:
        return area.area.width_mm * area.area.height_mm
    return float(polygon_of(area.trim_outline).area)


def _colors(node: Node) -> Iterator[str]:
    if isinstance(node, PlacedPicture):
        return
    for layer in node.layers:
        for paint in layer.paint.colors:
            yield paint.name or paint.screen


def _cm2(mm2: float) -> Decimal:
    return Decimal(mm2 / MM2_PER_CM2).quantize(STEP_CM2)
