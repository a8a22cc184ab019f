"""Own items on the goods: an item comes in; the very nodes that placements make, where it lies, go out."""

import math
from collections.abc import Hashable, Iterable, Iterator
from dataclasses import dataclass, replace
from functools import cached_property
from typing import Any, assert_never

from cachetools.keys import hashkey

from yenzo.core.artwork.codes import least_module_mm, make_code
from yenzo.core.artwork.drawing import load_drawing
from yenzo.core.asking.ask import Asked
from yenzo.core.asking.kinds.own_items import item_words
from yenzo.core.caching import SizedCache
from yenzo.core.documents.areas import Area, Flat, Rectangle
from yenzo.core.documents.artwork import UploadedFile
from yenzo.core.documents.assets import Assets
from yenzo.core.documents.effects import ColorSource, Effects
from yenzo.core.documents.entries import Adjustment
from yenzo.core.documents.freedoms import HELD_FAST, Freedoms, Scaling
from yenzo.core.documents.own_field import OwnItemsField
from yenzo.core.documents.own_items import (
    OwnCode,
    OwnDrawing,
    OwnItem,
    OwnPicture,
    OwnText,
    item_id,
)
from yenzo.core.documents.placements import (
    AnyText,
    ArcPlacement,
    BlockPlacement,
    LinePlacement,
    OwnItemsPlacement,
    TypefaceSource,
)
from yenzo.core.documents.setup import Setup
from yenzo.core.scene.by_hand import LEAST_SCALE, settle_artwork
from yenzo.core.scene.coloring import UNCHOSEN, chosen_paint
from yenzo.core.scene.contrast import contrast_of
from yenzo.core.scene.lettering import Made, Written, make_lettering, move_lettering
from yenzo.core.scene.moved import Moved
from yenzo.core.scene.nodes import CodeFacts, Node, PlacedDrawing, PlacedPicture
from yenzo.core.scene.paints import Paint
from yenzo.core.shapes.box import Box
from yenzo.core.shapes.matrix import Matrix
from yenzo.core.text.typefaces import Typefaces

# An area without end, about whose middle a text is laid out before it is put where it lies.
ENDLESS_MM = 10_000.0
# What an item begins with, as a share of its area.
FIRST_SHARE, FIRST_CODE_SHARE = 0.5, 0.25
ROUNDED_UP = 1.05
# A tenth of a micrometre: finer than anything is made, and the same whenever it is asked again.
PLACES = 4
# Where an item is put that nobody has placed yet, as shares of its area: the first that is free.
FIRST_PLACES = ((0.5, 0.5), (0.5, 0.78), (0.5, 0.22), (0.5, 0.93), (0.5, 0.07), (0.25, 0.5), (0.75, 0.5), (0.25, 0.25))
WHOLE_CIRCLE_DEG, HALF_CIRCLE_DEG = 360.0, 180.0


MOST_KEPT_BYTES, MOST_TEXT_BYTES, LEAST_BYTES, BYTES_A_POINT = 64_000_000, 32_000_000, 2000, 120
# A text as it is laid out, and which of its sizes is how large then.
LaidText = tuple[Made, dict[str, float]]
_kept: SizedCache[Node | None] = SizedCache(MOST_KEPT_BYTES)
_texts: SizedCache[LaidText | None] = SizedCache(MOST_TEXT_BYTES)


def bytes_of(node: Node) -> int:
    """Return about how many bytes something takes that lies on the goods."""
    points = 0 if isinstance(node, PlacedPicture) else sum(len(layer.outline.points) for layer in node.layers)
    return points * BYTES_A_POINT


@dataclass(frozen=True)
class ItemMaker:
    """Makes the items of one placement."""

    setup: Setup
    asked: Asked
    typefaces: Typefaces
    assets: Assets
    area: Area
    placement: OwnItemsPlacement
    free: Freedoms
    ground: str | None

    def nodes(self, items: Iterable[OwnItem]) -> Iterator[Node]:
        """Yield items as they lie on the goods, first what lies lowest.

        Those that nobody has placed yet come to lie where there is room.
        """
        taken: list[Box] = []
        for item in items:
            node = self._kept_node(item)
            if node is not None and item.x_mm is None:
                node = self._kept_node(self._beside(item, node, taken)) or node
            if node is not None:
                taken.append(node.bounds or Box(0, 0, 0, 0))
                yield node

    def _beside(self, item: OwnItem, node: Node, taken: list[Box]) -> OwnItem:
        """Return an item at the first of some places where it lies over others least."""
        box = node.bounds or Box(0, 0, 0, 0)
        x, y = box.middle

        def covered(place: tuple[float, float]) -> float:
            """Return how much of others an item would cover."""
            dx, dy = place[0] * self.area.width_mm - x, place[1] * self.area.height_mm - y
            there = Box(box.left + dx, box.top + dy, box.right + dx, box.bottom + dy)
            common = (there.within(one) for one in taken)
            return sum(one.width * one.height for one in common)

        across, down = min(FIRST_PLACES, key=covered)
        return item.model_copy(update={"x_mm": across * self.area.width_mm, "y_mm": down * self.area.height_mm})

    def _kept_node(self, item: OwnItem) -> Node | None:
        """Return an item as it lies, made once for all that it depends on: while one is moved, others stay."""

        def make() -> tuple[Node | None, int]:
            """Make the node; it costs what its points do."""
            node = self._as_settled(item, self._node(item))
            return node, LEAST_BYTES + (0 if node is None else bytes_of(node))

        return _kept.get(hashkey(self._all_depend_on, self._depends_on(item), item), make)

    def _as_settled(self, item: OwnItem, node: Node | None) -> Node | None:
        """Return an item as it lies when it is told where it came to lie: so it stays the same when that is kept."""
        settled = node.moved.item if node is not None and node.moved is not None else None
        if node is None or settled is None:
            return node
        if isinstance(settled, OwnPicture) and isinstance(item, OwnPicture):
            settled = settled.model_copy(update={"made": item.made})
        if settled == item:
            return node
        again = self._node(settled)
        if again is None or again.moved is None or node.moved is None:
            return node
        # What stopped it on its way there is told with the first.
        return replace(again, moved=replace(again.moved, stops=node.moved.stops))

    @cached_property
    def _all_depend_on(self) -> Hashable:
        """All that the looks of any item here depend on; its hash is worked out once."""
        method = self.setup.materials.methods.get(self.area.method)
        spoken = (self.asked.language, self.asked.in_typed_order, self.asked.old_setting)
        return hashkey(self.area, self.placement, self.free, self.ground, method, self.placement.field, *spoken)

    @cached_property
    def _effects(self) -> tuple[Effects, tuple[Paint | None, ...]]:
        """Effects that texts can have, and their paints."""
        effects = self._field.texts.effects if self._field.texts else Effects()
        return effects, tuple(chosen_paint(self.setup, source, self.asked) for source in effects.colors)

    def _depends_on(self, item: OwnItem) -> tuple[Hashable, ...]:
        """Return what an item's looks depend on beside that and itself: what it is made from."""
        field, materials = self._field, self.setup.materials
        offered = {"text": field.texts, "drawing": field.drawings, "code": field.codes, "picture": None}[item.kind]
        palette = materials.palettes.get(offered.palette or "") if offered else None
        made: Hashable = None
        if isinstance(item, OwnText):
            made = (materials.typefaces.get(item.typeface or ""), *self._effects)
        elif isinstance(item, OwnDrawing):
            collection = materials.collections.get(item.collection)
            made = collection.drawing(item.drawing) if collection else None
        return palette, made

    def _node(self, item: OwnItem) -> Node | None:
        """Return an item as it lies on the goods, or None when there is nothing to see of it."""
        match item:
            case OwnText():
                return self._text(item)
            case OwnPicture():
                return self._picture(item)
            case OwnDrawing():
                return self._drawing(item)
            case OwnCode():
                return self._code(item)
            case _:
                assert_never(item)

    @property
    def _field(self) -> OwnItemsField:
        field = self.setup.field(self.placement.field)
        assert isinstance(field, OwnItemsField)
        return field

    def _id(self, item: OwnItem) -> str:
        return item_id(self.placement.field, item.key)

    def _wanted(self, item: OwnItem) -> Adjustment:
        """Return where an item is wanted, as what hands did with one that begins in the middle of its area."""
        x, y = self.area.width_mm / 2, self.area.height_mm / 2
        shift = (0.0 if item.x_mm is None else item.x_mm - x, 0.0 if item.y_mm is None else item.y_mm - y)
        return Adjustment(shift_mm=shift, turn_deg=item.turn_deg)

    def _came_to(self, item: OwnItem, moved: Moved, **sizes: float) -> Moved:
        """Return how an item lies, with itself as it came to lie: the next gesture goes on from there."""
        x, y = moved.matrix.apply(*moved.start.middle)
        scale = math.hypot(moved.matrix.a, moved.matrix.b)
        settled: dict[str, Any] = {name: value * scale for name, value in sizes.items()}
        settled |= {"x_mm": x, "y_mm": y, "turn_deg": moved.adjustment.turn_deg}
        settled = {name: round(value, PLACES) for name, value in settled.items()}
        if isinstance(item, OwnPicture):
            settled["made"] = None
        free = HELD_FAST if item.locked else self.free
        return replace(moved, item=item.model_copy(update=settled), free=free)

    def _color(self, palette: str | None, color: str | None) -> str:
        """Return the color that is picked, or the one of its palette that shows best on the goods; empty for none."""
        found = self.setup.materials.palettes.get(palette or "")
        if found is None:
            return ""
        if color and found.color(color):
            return color
        ground = self.ground or "#ffffff"
        return max(found.colors, key=lambda one: contrast_of(one.screen, ground)).key

    def _paint(self, palette: str | None, color: str | None) -> Paint | None:
        key = self._color(palette, color)
        return chosen_paint(self.setup, ColorSource(palette=palette, color=key), self.asked) if key else None

    def _text(self, item: OwnText) -> Node | None:
        laid = self._kept_text(item)
        if laid is None:
            return None
        made, sizes = laid
        bounds = Scaling(least=LEAST_SCALE, most=1)
        node = move_lettering(made, self.area, self._wanted(item), self.free, bounds, is_own=True)
        assert node.moved is not None
        return replace(made.finished(node), moved=self._came_to(item, node.moved, **sizes))

    def _kept_text(self, item: OwnText) -> LaidText | None:
        """Return a text as it is laid out, once wherever it is moved to."""

        def lay() -> tuple[LaidText | None, int]:
            """Lay it out; it costs what its points do."""
            laid = self._laid(item)
            return laid, LEAST_BYTES + (bytes_of(laid[0].node) if laid else 0)

        anywhere = item.model_copy(update={"x_mm": None, "y_mm": None, "turn_deg": 0.0, "locked": False})
        return _texts.get(hashkey(self._all_depend_on, self._depends_on(item), anywhere), lay)

    def _laid(self, item: OwnText) -> LaidText | None:
        """Return a text about the middle of its area, before hands put it anywhere, with the sizes that it has."""
        texts = self._field.texts
        if texts is None or not item.text or item.letter_mm is None:
            return None
        color = self._color(texts.palette, item.color)
        endless = self.area.model_copy(
            update={
                "width_mm": item.width_mm or self.area.width_mm * FIRST_SHARE
                if item.layout == "wrapped"
                else ENDLESS_MM,
                "height_mm": ENDLESS_MM,
                "safe_mm": 0.0,
                "shape": Rectangle(),
                "surface": Flat(),
            }
        )
        placement = self._placement(item, ColorSource(palette=texts.palette, color=color or "none"))
        written = Written(item.text, (self.placement.field,))
        made = make_lettering(self.setup, endless, placement, written, self.asked, self.typefaces)
        if made and made.node.overflow_mm and isinstance(placement, ArcPlacement):
            # A circle is as large as its text needs.
            longer = made.node.overflow_mm * ROUNDED_UP / math.radians(placement.spread_deg)
            placement = placement.model_copy(update={"radius_mm": placement.radius_mm + longer})
            made = make_lettering(self.setup, endless, placement, written, self.asked, self.typefaces)
        ink = made.node.bounds if made else None
        if made is None or ink is None:
            return None
        x, y = ink.middle
        to_middle = Matrix.shift(self.area.width_mm / 2 - x, self.area.height_mm / 2 - y)
        node = replace(
            made.node,
            placement=self._id(item),
            outline=made.node.outline.mapped(to_middle),
            effects=tuple(layer.mapped(to_middle) for layer in made.node.effects),
            line=made.node.line.mapped(to_middle) if made.node.line else None,
        )
        made = replace(made, node=node)
        sizes = {"letter_mm": made.node.letter_height_mm}
        if item.layout == "wrapped":
            sizes["width_mm"] = endless.width_mm
        elif item.layout in {"arched", "round"}:
            assert isinstance(placement, ArcPlacement)
            sizes["radius_mm"] = placement.radius_mm
        return made, sizes

    def _radius(self, item: OwnText) -> float:
        return item.radius_mm or min(self.area.width_mm, self.area.height_mm) * FIRST_SHARE

    def _placement(self, item: OwnText, color: ColorSource) -> AnyText:
        assert item.letter_mm is not None
        common: dict[str, Any] = {
            "key": self.placement.key,
            "field": self.placement.field,
            "side": self.placement.side,
            "area": self.placement.area,
            "least_mm": item.letter_mm,
            "most_mm": item.letter_mm,
            "typeface": TypefaceSource(fixed=item.typeface),
            "color": color,
            "align": item.align,
            "effects": self._field.texts.effects.only(item.effects) if self._field.texts else Effects(),
            "may_overlap": True,
        }
        if item.layout == "wrapped":
            return BlockPlacement(**common)
        if item.layout == "straight":
            return LinePlacement(**common)
        middle = ENDLESS_MM / 2
        spread = WHOLE_CIRCLE_DEG if item.layout == "round" else HALF_CIRCLE_DEG
        return ArcPlacement(
            **{**common, "align": "center"}, x_mm=middle, y_mm=middle, radius_mm=self._radius(item), spread_deg=spread
        )

    def _box(self, width: float, height: float, width_mm: float | None, share: float = FIRST_SHARE) -> Box:
        """Return the box that an item of a ratio begins in: about the middle of its area, as wide as told."""
        room = Box(0, 0, self.area.width_mm, self.area.height_mm).grown(-self.area.safe_mm)
        wide = width_mm or min(room.width, room.height * width / height) * share
        x, y = room.middle
        high = wide * height / width
        return Box(x - wide / 2, y - high / 2, x + wide / 2, y + high / 2)

    def _settled(self, item: OwnItem, box: Box) -> Moved:
        moved = settle_artwork(self.area, box, self._wanted(item), self.free, covers=False, is_own=True)
        return self._came_to(item, moved, width_mm=box.width)

    def _artwork(self, item: OwnItem, file: UploadedFile, width_mm: float | None, paint: Paint | None) -> Node:
        drawing = load_drawing(self.assets, file.prepared) if file.form == "drawing" else None
        width, height = (drawing.width, drawing.height) if drawing else (file.width_px, file.height_px)
        box = self._box(width, height, width_mm)
        moved = self._settled(item, box)
        name = file.name if isinstance(item, OwnPicture) else item_words(item, self.setup)
        if drawing is not None:
            scale = box.width / width
            matrix = Matrix(scale, 0, 0, scale, box.left, box.top).then(moved.matrix)
            return PlacedDrawing(
                self._id(item), self.placement.field, name, file.prepared, drawing, matrix, paint, moved=moved
            )
        matrix = Matrix(box.width, 0, 0, box.height, box.left, box.top).then(moved.matrix)
        return PlacedPicture(
            self._id(item), self.placement.field, name, file.prepared, width, height, matrix, file.see_through, moved
        )

    def _picture(self, item: OwnPicture) -> Node | None:
        return self._artwork(item, item.made, item.width_mm, None) if item.made else None

    def _drawing(self, item: OwnDrawing) -> Node | None:
        collection = self.setup.materials.collections.get(item.collection)
        drawing = collection.drawing(item.drawing) if collection else None
        offer = self._field.drawings
        if drawing is None or offer is None:
            return None
        return self._artwork(item, drawing.artwork, item.width_mm, self._paint(offer.palette, item.color))

    def _code(self, item: OwnCode) -> Node | None:
        offer, method = self._field.codes, self.setup.materials.methods.get(self.area.method)
        if offer is None or not item.text:
            return None
        box = self._box(1, 1, item.width_mm, FIRST_CODE_SHARE)
        moved = self._settled(item, box)
        assert moved.item is not None
        wide = box.width * math.hypot(moved.matrix.a, moved.matrix.b)
        limits = (method.least_stroke_mm, method.least_gap_mm) if method else ()
        code = make_code(item.text, round(wide, 3), least_module_mm(*limits))
        scale = box.width / code.modules
        return PlacedDrawing(
            placement=self._id(item),
            field=self.placement.field,
            name=item.text,
            asset=f"code-{code.level}-{item.text}",
            drawing=code.drawing,
            matrix=Matrix(scale, 0, 0, scale, box.left, box.top).then(moved.matrix),
            paint=self._paint(offer.palette, item.color) or UNCHOSEN,
            moved=moved,
            code=CodeFacts(item.text, code.modules, code.level),
        )
