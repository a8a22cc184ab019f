"""Lettering: a text placement and what is asked come in; the text set where it lands goes out."""

from collections.abc import Callable
from dataclasses import replace
from typing import assert_never

from yenzo.core.asking.ask import Asked
from yenzo.core.asking.kinds import EntryContext, kind_of
from yenzo.core.asking.texts import MOST_IN_A_LINE, MOST_IN_A_PARAGRAPH
from yenzo.core.documents.areas import Area
from yenzo.core.documents.effects import ColorSource, Effects, Pattern
from yenzo.core.documents.entries import Adjustment
from yenzo.core.documents.fields import TypefaceField
from yenzo.core.documents.placements import (
    AnyText,
    ArcPlacement,
    BlockPlacement,
    CurvePlacement,
    EdgePlacement,
    LinePlacement,
    StackPlacement,
)
from yenzo.core.documents.setup import Setup
from yenzo.core.errors import ShapeError
from yenzo.core.scene.coloring import UNCHOSEN, chosen_paint
from yenzo.core.scene.effects import layers_of
from yenzo.core.scene.joined import joined_text
from yenzo.core.scene.nodes import Lettering
from yenzo.core.scene.paints import Layer, Paint
from yenzo.core.scene.room import SetAt, as_large_as_fits, room_of
from yenzo.core.shapes.areas import box_of_ratio, text_box
from yenzo.core.shapes.bending import TOLERANCE_MM
from yenzo.core.shapes.booleans import Pen, stroked
from yenzo.core.shapes.box import Box
from yenzo.core.shapes.centerlines import center_lines
from yenzo.core.shapes.edges import edge_path
from yenzo.core.shapes.matrix import Matrix
from yenzo.core.shapes.outline import Outline
from yenzo.core.shapes.paths import CurvePath
from yenzo.core.speaking import say_noop
from yenzo.core.text.along import Arc, set_along, set_on_arc, set_on_line
from yenzo.core.text.block import fit_block
from yenzo.core.text.fonts import Font
from yenzo.core.text.line import fit_line
from yenzo.core.text.shaping import outline_of
from yenzo.core.text.styles import BlockStyle, Laid, TextStyle
from yenzo.core.text.thin import ThinPlaces, thin_places
from yenzo.core.text.typefaces import Typefaces
from yenzo.core.text.vertical import fit_stack

UNKNOWN_TOOL_MM = 0.3
NO_EFFECTS, UNTOUCHED = Effects(), Adjustment()
# What hangs below the base line, and the radius of corners that a text goes round, in letter heights.
HANGING, ROUNDED = 0.45, 1.2
# What stays free between the end of a text that goes all around and its beginning, in em.
WORD_SPACE = 0.5
# Some sixty letters.
MOST_POINTS_WITH_EFFECTS = 6000
# OpenType's tags of the features that sellers ask for by name.
FEATURE_TAGS = {
    "small_capitals": ("smcp",),
    "old_style_figures": ("onum",),
    "swashes": ("swsh",),
    "discretionary_ligatures": ("dlig",),
}


def set_text(
    setup: Setup, area: Area, placement: AnyText, asked: Asked, typefaces: Typefaces, adjustment: Adjustment
) -> Lettering | None:
    """Return the text of a placement as it is set, or None when there is nothing that could be."""
    text = _text(setup, placement, asked)
    if len(text) > (MOST_IN_A_PARAGRAPH if isinstance(placement, BlockPlacement) else MOST_IN_A_LINE):
        # A problem with the entry says so; what isn't laid out can't be made.
        return None
    undecided = []
    typeface = _typeface(setup, placement, asked)
    if typeface is None:
        undecided.append(say_noop("typeface"))
        typeface = _first_typeface(setup, placement)
    font = typefaces.font(typeface or "")
    if typeface is None or font is None:
        return None
    paints = {source: chosen_paint(setup, source, asked) for source in placement.colors}
    if None in paints.values():
        undecided.append(say_noop("color"))

    def paint_of(source: ColorSource) -> Paint:
        return paints[source] or UNCHOSEN

    tool = _tool(setup, area)
    laid = _laid(font, text, area, placement, asked, tool.width)
    laid, line = _stroked(laid, tool) if font.is_single_line and laid.outline else (laid, None)
    drops_effects = _is_costly(placement.effects) and len(laid.outline.points) > MOST_POINTS_WITH_EFFECTS
    layers: tuple[Layer, ...] | None = ()
    if placement.effects != NO_EFFECTS and not drops_effects:
        layers = _layers(laid.outline, placement, paint_of, _closing_mm(setup, area))
    scaled_mm = laid.letter_height_mm * adjustment.scale
    filled = tuple(key for key in placement.fields if asked.is_filled(key))
    node = Lettering(
        placement=placement.key,
        field=filled[0],
        text=text,
        typeface=typeface,
        typeface_name=setup.materials.typefaces[typeface].name,
        letter_height_mm=laid.letter_height_mm,
        least_mm=placement.least_mm,
        outline=laid.outline,
        paint=paint_of(placement.color),
        missing=laid.missing,
        undecided=tuple(undecided),
        fields=filled,
        lines=laid.lines,
        overflow_mm=laid.overflow_mm,
        breaks_joins=laid.breaks_joins,
        is_tangled=laid.is_tangled or layers is None,
        line_near_edge=laid.line_near_edge,
        may_overlap=placement.may_overlap,
        drops_effects=drops_effects,
        effects=layers or (),
        thin=_thin_places(setup, area, placement, font, text, asked, scaled_mm),
        line=line if placement.effects == NO_EFFECTS else None,
    )
    return _adjusted(node, adjustment)


def _layers(
    outline: Outline, placement: AnyText, paint_of: Callable[[ColorSource], Paint], closing_mm: float
) -> tuple[Layer, ...] | None:
    """Return what the effects of a text make of its letters; None when these are too tangled for it."""
    try:
        return layers_of(outline, paint_of(placement.color), placement.effects, paint_of, closing_mm)
    except ShapeError:
        return None


def _stroked(laid: Laid, tool: Pen) -> tuple[Laid, Outline]:
    """Return letters of single lines as a tool makes them, with its ways."""
    line = center_lines(laid.outline)
    try:
        return replace(laid, outline=stroked(line.verbs, line.points, tool)), line
    except ShapeError:
        return replace(laid, is_tangled=True), line


def _tool(setup: Setup, area: Area) -> Pen:
    method = setup.materials.methods.get(area.method)
    return Pen(method.tool_mm if method else UNKNOWN_TOOL_MM, cap="round", join="round")


def _closing_mm(setup: Setup, area: Area) -> float:
    method = setup.materials.methods.get(area.method)
    return (method.least_gap_mm or 0.0) if method and method.closes_gaps else 0.0


def _is_costly(effects: Effects) -> bool:
    """Tell whether effects work on every edge of the letters: such a text must stay short enough to be previewed."""
    knocks_out = effects.plate is not None and effects.plate.knock_out
    return effects.stroke is not None or isinstance(effects.fill, Pattern) or knocks_out


def _thin_places(
    setup: Setup, area: Area, placement: AnyText, font: Font, text: str, asked: Asked, letter_height_mm: float
) -> ThinPlaces | None:
    method = setup.materials.methods.get(area.method)
    effects = placement.effects
    thickened = effects.stroke is not None or (effects.plate is not None and effects.plate.knock_out)
    if (
        method is None
        or thickened
        or font.is_single_line
        or (method.least_stroke_mm is None and method.least_gap_mm is None)
    ):
        return None
    return thin_places(font, text, _style(placement, asked), letter_height_mm)


def _adjusted(node: Lettering, adjustment: Adjustment) -> Lettering:
    ink = node.outline.bounds
    if ink is None or adjustment == UNTOUCHED:
        return node
    moving = adjusting(adjustment, ink)
    return replace(
        node,
        outline=node.outline.mapped(moving),
        line=node.line.mapped(moving) if node.line else None,
        effects=tuple(layer.mapped(moving) for layer in node.effects),
        letter_height_mm=node.letter_height_mm * adjustment.scale,
        overflow_mm=node.overflow_mm * adjustment.scale,
    )


def adjusting(adjustment: Adjustment, ink: Box) -> Matrix:
    """Return the map of what a customer moved by hand: about the middle of what lies there."""
    about = Matrix.about(*ink.middle, turn_deg=adjustment.turn_deg, scale=adjustment.scale)
    return about.then(Matrix.shift(*adjustment.shift_mm))


def _laid(font: Font, text: str, area: Area, placement: AnyText, asked: Asked, tool_mm: float) -> Laid:
    def room(box: Box) -> Box:
        # Half of a tool's line lies outside the line that it follows.
        return _without_effects(box.grown(-tool_mm / 2) if font.is_single_line else box, placement.effects)

    plain = text_box(area)
    box, style = room(plain), _style(placement, asked)
    one_line = " ".join(text.split())
    if isinstance(placement, LinePlacement) and placement.base_line is None:
        if not area.is_frame:
            ink = outline_of(font, one_line, style)[0].bounds
            box = room(box_of_ratio(area, ink.width / ink.height)) if ink and ink.height else box
        return fit_line(font, one_line, box, style)
    if isinstance(placement, BlockPlacement):
        return fit_block(font, text, box, _block_style(placement, style))
    if isinstance(placement, StackPlacement):
        return fit_stack(font, one_line, box, style)
    if isinstance(placement, EdgePlacement):
        return _on_edge(font, one_line, area, placement, style)
    return as_large_as_fits(_set_on(font, one_line, placement), style, room_of(area, box, plain))


def _set_on(font: Font, text: str, placement: LinePlacement | ArcPlacement | CurvePlacement) -> SetAt:
    """Return what sets a text on a base line of its own, whose length alone doesn't keep it inside its area."""
    match placement:
        case ArcPlacement():
            arc = Arc(
                placement.x_mm,
                placement.y_mm,
                placement.radius_mm,
                placement.middle_deg,
                placement.spread_deg,
                placement.stand,
            )
            return lambda style, coarse: set_on_arc(font, text, arc, style, tolerance_mm=coarse or TOLERANCE_MM)
        case CurvePlacement():
            path = CurvePath.through(list(placement.points))
            return lambda style, coarse: set_along(font, text, path, style, tolerance_mm=coarse or TOLERANCE_MM)
        case LinePlacement():
            base = placement.base_line
            assert base is not None
            start = (base.x_mm, base.y_mm)
            return lambda style, _: set_on_line(font, text, start, base.length_mm, base.angle_deg, style)
        case _:
            assert_never(placement)


def _on_edge(font: Font, text: str, area: Area, placement: EdgePlacement, style: TextStyle) -> Laid:
    tops_out = placement.tops == "out"
    # Room for the ink above the base line, or for what hangs below it, up to the safe margin: marks and round letters
    # rise above capitals.
    ink, em_mm = outline_of(font, text, style)[0].bounds, placement.most_mm / font.letter_height_em
    rise_mm, hanging_mm = (-ink.top * em_mm, ink.bottom * em_mm) if ink else (0.0, 0.0)
    room_mm = max(placement.most_mm, rise_mm) if tops_out else max(placement.most_mm * HANGING, hanging_mm)
    corner_mm = placement.most_mm * ROUNDED
    path = edge_path(area, area.safe_mm + room_mm, corner_mm, placement.middle_deg, tops_out=tops_out)
    if path is None:
        return replace(fit_line(font, text, text_box(area), style), is_tangled=True)
    return set_along(font, text, path, style, spare_em=WORD_SPACE)


def _without_effects(box: Box, effects: Effects) -> Box:
    """Return the room that is left for the letters themselves."""
    around = effects.stroke.width_mm if effects.stroke and effects.stroke.place == "outside" else 0.0
    if effects.stroke and effects.stroke.place == "centered":
        around = effects.stroke.width_mm / 2
    across, down = (effects.shadow.across_mm, effects.shadow.down_mm) if effects.shadow else (0.0, 0.0)
    plate = effects.plate.margin_mm if effects.plate else 0.0
    left, top = max(plate, around + max(-across, 0)), max(plate, around + max(-down, 0))
    right, bottom = max(plate, around + max(across, 0)), max(plate, around + max(down, 0))
    smaller = Box(box.left + left, box.top + top, box.right - right, box.bottom - bottom)
    return smaller if smaller.width > 0 and smaller.height > 0 else box


def _style(placement: AnyText, asked: Asked) -> TextStyle:
    return TextStyle(
        placement.least_mm,
        placement.most_mm,
        align=placement.align,
        vertical=getattr(placement, "vertical", "middle"),
        language=asked.language,
        spacing_em=placement.letter_spacing / 100,
        features=tuple(tag for name in placement.features for tag in FEATURE_TAGS[name]),
        in_typed_order=asked.in_typed_order,
    )


def _block_style(placement: BlockPlacement, style: TextStyle) -> BlockStyle:
    least = placement.least_letter_spacing
    return BlockStyle(
        **vars(style),
        line_spacing=placement.line_spacing,
        least_line_spacing=placement.least_line_spacing,
        least_spacing_em=None if least is None else least / 100,
    )


def _text(setup: Setup, placement: AnyText, asked: Asked) -> str:
    parts = {key: _produced_text(setup, key, asked) for key in placement.fields}
    return joined_text(placement.joined, parts) if placement.joined else parts[placement.field]


def _produced_text(setup: Setup, field_key: str, asked: Asked) -> str:
    field = setup.field(field_key)
    if field is None or not asked.is_filled(field_key):
        return ""
    context = EntryContext(setup, asked.language, asked.today)
    return str(kind_of(field).produced(field, asked.values[field_key], context))


def _typeface(setup: Setup, placement: AnyText, asked: Asked) -> str | None:
    key = placement.typeface.fixed or asked.text(placement.typeface.field or "")
    return key if key in setup.materials.typefaces else None


def _first_typeface(setup: Setup, placement: AnyText) -> str | None:
    field = setup.field(placement.typeface.field or "")
    offered = field.typefaces if isinstance(field, TypefaceField) else tuple(setup.materials.typefaces)
    return next((key for key in offered if key in setup.materials.typefaces), None)
