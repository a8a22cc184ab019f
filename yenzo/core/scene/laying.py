"""Where letters lie: a typeface, a text, its placement and its area come in, the text laid out in mm goes out."""

import math
from dataclasses import replace
from typing import assert_never

from yenzo.core.asking.ask import Asked
from yenzo.core.documents.areas import Area
from yenzo.core.documents.effects import Effects
from yenzo.core.documents.placements import (
    AnyText,
    ArcPlacement,
    BlockPlacement,
    CurvePlacement,
    EdgePlacement,
    LinePlacement,
    StackPlacement,
)
from yenzo.core.scene.largest_fit import SetAt, as_large_as_fits, overrun_of
from yenzo.core.shapes.areas import box_of_ratio, text_box
from yenzo.core.shapes.bending import TOLERANCE_MM
from yenzo.core.shapes.box import Box
from yenzo.core.shapes.edges import edge_path
from yenzo.core.shapes.paths import CurvePath
from yenzo.core.text.along import WORD_SPACE, Arc, set_along, set_on_arc, set_on_line
from yenzo.core.text.block import fit_block
from yenzo.core.text.fonts import Font
from yenzo.core.text.line import fit_line, room_taken
from yenzo.core.text.shaping import outline_of
from yenzo.core.text.styles import BlockStyle, Laid, TextStyle
from yenzo.core.text.upright import pieces_of
from yenzo.core.text.vertical import fit_stack

# What hangs below the base line, and the radius of corners that a text goes round, in letter heights.
HANGING, ROUNDED = 0.45, 1.2
# OpenType's tags of the features that sellers ask for by name.
FEATURE_TAGS = {
    "small_capitals": ("smcp",),
    "old_style_figures": ("onum",),
    "swashes": ("swsh",),
    "discretionary_ligatures": ("dlig",),
}


def style_of(placement: AnyText, asked: Asked) -> TextStyle:
    """Return how a placement has its letters set, in the language of what is asked."""
    return TextStyle(
        placement.least_mm,
        placement.most_mm,
        align=placement.align,
        vertical=getattr(placement, "vertical", "middle"),
        language=asked.language,
        spacing_em=placement.letter_spacing / 100,
        features=tuple(tag for name in placement.features for tag in FEATURE_TAGS[name]),
        in_typed_order=asked.in_typed_order,
        old_setting=asked.old_setting,
    )


def lay_text(font: Font, text: str, area: Area, placement: AnyText, style: TextStyle, tool_mm: float) -> Laid:
    """Return a text laid out in an area; `tool_mm` is how wide the tool is that follows letters of single lines."""

    def room(box: Box) -> Box:
        """Return what is left of a box for the outline, without its effects and the tool's line."""
        # Half of a tool's line lies outside the line that it follows.
        return _without_effects(box.grown(-tool_mm / 2) if font.is_single_line else box, placement.effects)

    plain = text_box(area)
    box = room(plain)
    one_line = " ".join(text.split())
    if isinstance(placement, LinePlacement) and placement.base_line is None:
        if not area.is_frame:
            ink = outline_of(font, one_line, style)[0].bounds
            taken = room_taken(font, ink, style) if ink else None
            box = room(box_of_ratio(area, taken.width / taken.height)) if taken and taken.height else box
        return fit_line(font, one_line, box, style)
    if isinstance(placement, BlockPlacement):
        return fit_block(font, text, box, _block_style(placement, style))
    if isinstance(placement, StackPlacement):
        return fit_stack(font, one_line, box, style)
    if isinstance(placement, EdgePlacement):
        return _on_edge(font, one_line, area, placement, style)
    return as_large_as_fits(_set_on(font, one_line, placement, style), style, overrun_of(area, box, plain))


def _set_on(font: Font, text: str, placement: LinePlacement | ArcPlacement | CurvePlacement, asked: TextStyle) -> SetAt:
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
            if not asked.old_setting:
                # Letters can't follow a corner.
                path = path.rounded(placement.most_mm * ROUNDED)
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
    pieces, em_mm = pieces_of(font, text, style), placement.most_mm / font.letter_height_em
    ink, half_mm = pieces.ink, pieces.widest_em * em_mm / 2
    rise_mm, hanging_mm = (-ink.top * em_mm, ink.bottom * em_mm) if ink else (0.0, 0.0)
    room_mm = max(placement.most_mm, rise_mm) if tops_out else max(placement.most_mm * HANGING, hanging_mm)
    corner_mm = placement.most_mm * ROUNDED
    # Letters are straight: in a corner their own corners stand out beyond the line that they follow.
    outer_mm = corner_mm + rise_mm if tops_out else corner_mm
    room_mm += math.hypot(outer_mm, half_mm) - outer_mm
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


def _block_style(placement: BlockPlacement, style: TextStyle) -> BlockStyle:
    least = placement.least_letter_spacing
    return BlockStyle(
        **vars(style),
        line_spacing=placement.line_spacing,
        least_line_spacing=placement.least_line_spacing,
        least_spacing_em=None if least is None else least / 100,
    )
