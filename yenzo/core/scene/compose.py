"""Compose: a set-up, what is asked and the typefaces come in; the scene goes out."""

from collections.abc import Iterator

from yenzo.core.asking.ask import Asked
from yenzo.core.asking.texts import MOST_IN_A_LINE
from yenzo.core.documents.entries import Adjustment, UploadedFile
from yenzo.core.documents.fields import ChoiceField, ColorField, TypefaceField
from yenzo.core.documents.materials import PaletteColor
from yenzo.core.documents.placements import ArtworkPlacement, LinePlacement
from yenzo.core.documents.setup import Area, Setup, Side
from yenzo.core.scene.nodes import AreaScene, Lettering, Node, Paint, PlacedPicture, Scene, SideScene
from yenzo.core.shapes.box import Box
from yenzo.core.shapes.matrix import Matrix
from yenzo.core.text.line import LineStyle, fit_line
from yenzo.core.text.typefaces import Typefaces

# What a text is shown in until a color is chosen; preflight keeps it from production.
UNCHOSEN = Paint("#16303a")


def compose(setup: Setup, asked: Asked, typefaces: Typefaces) -> Scene:
    """Return what lands where. Sides without a marked scale have no millimetres yet and are left out."""
    return Scene(tuple(side for side in (_side(setup, side, asked, typefaces) for side in setup.sides) if side))


def _side(setup: Setup, side: Side, asked: Asked, typefaces: Typefaces) -> SideScene | None:
    size = side.size_mm()
    if size is None:
        return None
    areas = tuple(
        AreaScene(
            side=side.key,
            key=area.key,
            name=area.name,
            x_mm=area.x_mm,
            y_mm=area.y_mm,
            width_mm=area.width_mm,
            height_mm=area.height_mm,
            bleed_mm=area.bleed_mm,
            safe_mm=area.safe_mm,
            method=area.method,
            dpi=area.dpi,
            nodes=tuple(_nodes(setup, side, area, asked, typefaces)),
        )
        for area in side.areas
    )
    picture = setup.picture_of(side, asked.variant)
    return SideScene(side.key, side.name, picture.asset, size[0], size[1], areas)


def _nodes(setup: Setup, side: Side, area: Area, asked: Asked, typefaces: Typefaces) -> Iterator[Node]:
    for placement in setup.placements:
        if (placement.side, placement.area) != (side.key, area.key) or not asked.is_filled(placement.field):
            continue
        adjustment = asked.adjustments.get(placement.key, Adjustment())
        if isinstance(placement, LinePlacement):
            node: Node | None = _lettering(setup, area, placement, asked, typefaces, adjustment)
        else:
            node = _picture(area, placement, asked, adjustment)
        if node is not None:
            yield node


def _lettering(
    setup: Setup,
    area: Area,
    placement: LinePlacement,
    asked: Asked,
    typefaces: Typefaces,
    adjustment: Adjustment,
) -> Lettering | None:
    text = _produced_text(setup, placement.field, asked)
    if len(text) > MOST_IN_A_LINE:
        # A problem with the entry says so; what isn't laid out can't be made.
        return None
    undecided = []
    typeface = _typeface(setup, placement, asked)
    if typeface is None:
        undecided.append("typeface")
        typeface = _first_typeface(setup, placement)
    font = typefaces.font(typeface or "")
    if typeface is None or font is None:
        return None
    paint = _paint(setup, placement, asked)
    if paint is None:
        undecided.append("color")
    safe = Box(0, 0, area.width_mm, area.height_mm).grown(-area.safe_mm)
    style = LineStyle(placement.least_mm, placement.most_mm, placement.align, placement.vertical)
    line = fit_line(font, text, safe, style, asked.language)
    ink = line.outline.bounds
    moved = line.outline.mapped(_moving(adjustment, ink)) if ink and adjustment != Adjustment() else line.outline
    return Lettering(
        placement=placement.key,
        field=placement.field,
        text=text,
        typeface=typeface,
        typeface_name=setup.materials.typefaces[typeface].name,
        letter_height_mm=line.letter_height_mm * adjustment.scale,
        least_mm=placement.least_mm,
        outline=moved,
        paint=paint or UNCHOSEN,
        missing=line.missing,
        undecided=tuple(undecided),
    )


def _produced_text(setup: Setup, field_key: str, asked: Asked) -> str:
    field = setup.field(field_key)
    value = asked.text(field_key)
    option = field.option(value) if isinstance(field, ChoiceField) else None
    return (option.produced or option.label) if option else value


def _typeface(setup: Setup, placement: LinePlacement, asked: Asked) -> str | None:
    key = placement.typeface.fixed or asked.text(placement.typeface.field or "")
    return key if key in setup.materials.typefaces else None


def _first_typeface(setup: Setup, placement: LinePlacement) -> str | None:
    field = setup.field(placement.typeface.field or "")
    offered = field.typefaces if isinstance(field, TypefaceField) else tuple(setup.materials.typefaces)
    return next((key for key in offered if key in setup.materials.typefaces), None)


def _paint(setup: Setup, placement: LinePlacement, asked: Asked) -> Paint | None:
    source = placement.color
    field = setup.field(source.field or "")
    if isinstance(field, ColorField):
        palette_key, color_key = field.palette, asked.text(field.key)
    else:
        palette_key, color_key = source.palette or "", source.color or ""
    palette = setup.materials.palettes.get(palette_key)
    color: PaletteColor | None = palette.color(color_key) if palette else None
    return Paint(color.screen.lower(), color.name, color.reference) if color else None


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
    moving = _moving(adjustment, Box(x - width / 2, y - height / 2, x + width / 2, y + height / 2))
    return PlacedPicture(
        placement=placement.key,
        field=placement.field,
        name=upload.name,
        asset=upload.prepared,
        width_px=upload.width_px,
        height_px=upload.height_px,
        matrix=placed.then(moving),
    )


def _moving(adjustment: Adjustment, ink: Box) -> Matrix:
    about = Matrix.about(*ink.middle, turn_deg=adjustment.turn_deg, scale=adjustment.scale)
    return about.then(Matrix.shift(*adjustment.shift_mm))
