"""Compose: a set-up, what is asked and the typefaces come in; the scene goes out."""

from collections.abc import Iterator

from yenzo.core.asking.ask import Asked
from yenzo.core.asking.rules import holds
from yenzo.core.documents.areas import Area
from yenzo.core.documents.entries import Adjustment, UploadedFile
from yenzo.core.documents.placements import AnyPlacement, ArtworkPlacement
from yenzo.core.documents.setup import Setup, Side
from yenzo.core.scene.lettering import adjusting, set_text
from yenzo.core.scene.nodes import AreaScene, Node, PlacedPicture, Scene, SideScene
from yenzo.core.shapes.box import Box
from yenzo.core.shapes.matrix import Matrix
from yenzo.core.text.typefaces import Typefaces


def compose(setup: Setup, asked: Asked, typefaces: Typefaces) -> Scene:
    """Return what lands where. Sides without a marked scale have no millimetres yet and are left out."""
    return Scene(tuple(side for side in (_side(setup, side, asked, typefaces) for side in setup.sides) if side))


def _side(setup: Setup, side: Side, asked: Asked, typefaces: Typefaces) -> SideScene | None:
    size = side.size_mm()
    if size is None:
        return None
    areas = tuple(AreaScene(side.key, area, tuple(_nodes(setup, side, area, asked, typefaces))) for area in side.areas)
    picture = setup.picture_of(side, asked.variant)
    return SideScene(side.key, side.name, picture.asset, size[0], size[1], areas)


def _nodes(setup: Setup, side: Side, area: Area, asked: Asked, typefaces: Typefaces) -> Iterator[Node]:
    for placement in setup.placements:
        if (placement.side, placement.area) != (side.key, area.key) or not _lands(placement, asked):
            continue
        adjustment = asked.adjustments.get(placement.key, Adjustment())
        if isinstance(placement, ArtworkPlacement):
            node: Node | None = _picture(area, placement, asked, adjustment)
        else:
            node = set_text(setup, area, placement, asked, typefaces, adjustment)
        if node is not None:
            yield node


def _lands(placement: AnyPlacement, asked: Asked) -> bool:
    if not any(asked.is_filled(key) for key in placement.fields):
        return False
    return placement.when is None or holds(placement.when, lambda key: asked.values.get(key, ""))


def _picture(area: Area, placement: ArtworkPlacement, asked: Asked, adjustment: Adjustment) -> PlacedPicture | None:
    upload = asked.values[placement.field]
    if not isinstance(upload, UploadedFile):
        return None
    trim = Box(0, 0, area.width_mm, area.height_mm)
    box = trim.grown(area.bleed_mm) if placement.fit == "cover" else trim.grown(-area.safe_mm)
    across, down = box.width / upload.width_px, box.height / upload.height_px
    scale = max(across, down) if placement.fit == "cover" else min(across, down)
    width, height = upload.width_px * scale, upload.height_px * scale
    x, y = box.middle
    placed = Matrix(width, 0, 0, height, x - width / 2, y - height / 2)
    moving = adjusting(adjustment, Box(x - width / 2, y - height / 2, x + width / 2, y + height / 2))
    return PlacedPicture(
        placement=placement.key,
        field=placement.field,
        name=upload.name,
        asset=upload.prepared,
        width_px=upload.width_px,
        height_px=upload.height_px,
        matrix=placed.then(moving),
    )
