"""Compose: a set-up, what is asked, typefaces and assets come in; the scene goes out."""

from collections.abc import Iterator
from dataclasses import dataclass
from functools import cached_property

from yenzo.core.artwork.drawing import load_drawing
from yenzo.core.artwork.goods import goods_color
from yenzo.core.asking.ask import Asked
from yenzo.core.asking.by_hand import freedoms_of
from yenzo.core.asking.kinds.own_items import own_items_of
from yenzo.core.caching import SizedCache
from yenzo.core.documents.areas import Area
from yenzo.core.documents.artwork import UploadedFile
from yenzo.core.documents.assets import Assets
from yenzo.core.documents.entries import UNTOUCHED, files_of
from yenzo.core.documents.fields import ReadyMadeField
from yenzo.core.documents.freedoms import Freedoms
from yenzo.core.documents.own_items import OwnItem
from yenzo.core.documents.placements import AnyPlacement, ArtworkPlacement, OwnItemsPlacement
from yenzo.core.documents.rules import holds
from yenzo.core.documents.setup import Setup, Side
from yenzo.core.scene.by_hand import adjusted_color, settle_artwork, stacked
from yenzo.core.scene.coloring import UNCHOSEN, chosen_paint
from yenzo.core.scene.lettering import set_text
from yenzo.core.scene.nodes import AreaScene, Node, PlacedDrawing, PlacedPicture, Scene, SideScene
from yenzo.core.scene.own_items import ItemMaker, bytes_of
from yenzo.core.scene.sizing import sized_side
from yenzo.core.shapes.box import Box
from yenzo.core.shapes.matrix import Matrix
from yenzo.core.text.typefaces import Typefaces

MOST_AREA_BYTES, LEAST_AREA_BYTES = 32_000_000, 2000
_areas: SizedCache[AreaScene] = SizedCache(MOST_AREA_BYTES)


def compose(setup: Setup, asked: Asked, typefaces: Typefaces, assets: Assets) -> Scene:
    """Return what lands where. Sides without a marked scale have no millimetres yet and are left out."""
    composer = _Composer(setup, asked, typefaces, assets)
    return Scene(tuple(scene for side in setup.sides if (scene := composer.side(side))))


@dataclass(frozen=True)
class _Composer:
    setup: Setup
    asked: Asked
    typefaces: Typefaces
    assets: Assets

    def side(self, side: Side) -> SideScene | None:
        """Return the scene of a side, None while no scale is marked."""
        sized = sized_side(self.setup, side, self.asked)
        if sized is None:
            return None
        side, size = sized
        picture = self.setup.picture_of(side, self.asked.variant, self.asked.values).asset
        overlays = tuple(one.asset for one in self.setup.overlays_of(side, self.asked.values))
        areas = tuple(
            self._area(side, area, self._ground((picture, *overlays), area, size))
            for area in map(self._by_method, side.areas)
        )
        return SideScene(side.key, side.name, picture, size[0], size[1], areas, overlays)

    def _by_method(self, area: Area) -> Area:
        """Return the area with the method that the customer chose, where the seller leaves that open."""
        chosen = self.asked.text(area.method_field) if area.method_field else ""
        return area.model_copy(update={"method": chosen}) if chosen in self.setup.materials.methods else area

    def _area(self, side: Side, area: Area, ground: str | None) -> AreaScene:
        return _kept_area(AreaScene(side.key, area, stacked(self._nodes(side, area, ground)), ground))

    def _nodes(self, side: Side, area: Area, ground: str | None) -> Iterator[Node]:
        for placement in self.setup.placements:
            if (placement.side, placement.area) != (side.key, area.key) or not self._lands(placement):
                continue
            free = freedoms_of(self.setup, placement)
            if isinstance(placement, OwnItemsPlacement):
                yield from self._own_items(area, placement, free, ground)
                continue
            if isinstance(placement, ArtworkPlacement):
                node: Node | None = self._artwork(area, placement, free)
            else:
                node = set_text(self.setup, area, placement, self.asked, self.typefaces, free)
            if node is not None:
                yield node

    def _own_items(
        self, area: Area, placement: OwnItemsPlacement, free: Freedoms, ground: str | None
    ) -> Iterator[Node]:
        """Yield what customers put into an area themselves, first what lies lowest."""
        maker = ItemMaker(self.setup, self.asked, self.typefaces, self.assets, area, placement, free, ground)
        yield from maker.nodes(self._items_at.get(placement.key, ()))

    @cached_property
    def _items_at(self) -> dict[str | None, list[OwnItem]]:
        """All own items by the placement that they are put by."""
        items_at: dict[str | None, list[OwnItem]] = {}
        for value in self.asked.values.values():
            for item in own_items_of(value):
                items_at.setdefault(item.place, []).append(item)
        return items_at

    def _ground(self, pictures: tuple[str, ...], area: Area, size: tuple[float, float]) -> str | None:
        """Return the goods' color in an area, of the topmost picture that has one; none where it lies behind them."""
        if area.under:
            return None
        x, y, (wide, high) = area.x_mm, area.y_mm, size
        shares = Box(x / wide, y / high, (x + area.width_mm) / wide, (y + area.height_mm) / high)
        colors = (goods_color(self.assets, asset, shares) for asset in reversed(pictures))
        return next((color for color in colors if color), None)

    def _lands(self, placement: AnyPlacement) -> bool:
        if not self.asked.lands(placement):
            return False
        return placement.when is None or holds(placement.when, lambda key: self.asked.subject(self.setup, key))

    def _made_of(self, placement: ArtworkPlacement) -> UploadedFile | None:
        """Return the file that lands: one of the uploads, or of the workshop's own."""
        value, field = self.asked.values[placement.field], self.setup.field(placement.field)
        if isinstance(field, ReadyMadeField):
            option = field.option(value)
            return option.artwork if option else None
        return next(iter(files_of(value)[placement.nth - 1 :]), None)

    def _artwork(self, area: Area, placement: ArtworkPlacement, free: Freedoms) -> PlacedPicture | PlacedDrawing | None:
        upload = self._made_of(placement)
        if upload is None:
            return None
        drawing = load_drawing(self.assets, upload.prepared) if upload.form == "drawing" else None
        width, height = (drawing.width, drawing.height) if drawing else (upload.width_px, upload.height_px)
        placed = _box(area, placement, width, height)
        adjustment = self.asked.adjustments.get(placement.key, UNTOUCHED)
        moved = settle_artwork(area, placed, adjustment, free, covers=placement.fit == "cover") if free else None
        moving = moved.matrix if moved else Matrix()
        if drawing is not None:
            scale = placed.width / width
            color = adjusted_color(placement, adjustment)
            paint = chosen_paint(self.setup, color, self.asked) if color else None
            is_undecided = color is not None and paint is None
            return PlacedDrawing(
                placement=placement.key,
                field=placement.field,
                name=upload.name,
                asset=upload.prepared,
                drawing=drawing,
                matrix=Matrix(scale, 0, 0, scale, placed.left, placed.top).then(moving),
                paint=UNCHOSEN if is_undecided else paint,
                undecided=("color",) if is_undecided else (),
                moved=moved,
            )
        return PlacedPicture(
            placement=placement.key,
            field=placement.field,
            name=upload.name,
            asset=upload.prepared,
            width_px=width,
            height_px=height,
            see_through=upload.see_through,
            matrix=Matrix(placed.width, 0, 0, placed.height, placed.left, placed.top).then(moving),
            moved=moved,
        )


def _kept_area(made: AreaScene) -> AreaScene:
    """Return an area; where all that lies in it is kept, the very one that was there before, if one was.

    While something is moved elsewhere, what was worked out of it then stands.
    """
    if not all(node.moved and node.moved.item for node in made.nodes):
        return made
    # An entry holds what it is called by: nothing else can have come to have that name while it is there.
    key = (made.side, made.ground, id(made.area), *map(id, made.nodes))
    return _areas.get(key, lambda: (made, LEAST_AREA_BYTES + sum(map(bytes_of, made.nodes))))


def _box(area: Area, placement: ArtworkPlacement, width: float, height: float) -> Box:
    """Return where artwork of a ratio lands: about the middle of its area."""
    trim = Box(0, 0, area.width_mm, area.height_mm)
    room = trim.grown(area.bleed_mm) if placement.fit == "cover" else trim.grown(-area.safe_mm)
    across, down = room.width / width, room.height / height
    scale = max(across, down) if placement.fit == "cover" else min(across, down)
    half_width, half_height = width * scale / 2, height * scale / 2
    x, y = room.middle
    return Box(x - half_width, y - half_height, x + half_width, y + half_height)
