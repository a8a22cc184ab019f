"""Lettering: a text placement and what is asked come in; the text set where it lands goes out."""

import math
from collections.abc import Callable
from dataclasses import dataclass, replace

from yenzo.core.asking.ask import Asked
from yenzo.core.asking.kinds import EntryContext, kind_of
from yenzo.core.asking.texts import MOST_IN_A_LINE, MOST_IN_A_PARAGRAPH
from yenzo.core.documents.areas import Area
from yenzo.core.documents.effects import ColorSource, Effects, Pattern
from yenzo.core.documents.entries import UNTOUCHED, Adjustment
from yenzo.core.documents.fields import TypefaceField
from yenzo.core.documents.freedoms import Freedoms, Scaling
from yenzo.core.documents.materials import Method
from yenzo.core.documents.placements import AnyText, BlockPlacement
from yenzo.core.documents.setup import Setup
from yenzo.core.errors import ShapeError
from yenzo.core.scene.by_hand import LEAST_SCALE, as_adjusted, settle, text_containment, text_points
from yenzo.core.scene.coloring import UNCHOSEN, chosen_paint
from yenzo.core.scene.effects import layers_of
from yenzo.core.scene.joined import joined_text
from yenzo.core.scene.laying import lay_text, style_of
from yenzo.core.scene.nodes import Lettering
from yenzo.core.scene.paints import Layer, Paint
from yenzo.core.shapes.booleans import Pen, stroked
from yenzo.core.shapes.centerlines import center_lines
from yenzo.core.shapes.matrix import Matrix
from yenzo.core.shapes.outline import Outline
from yenzo.core.text.fonts import Font
from yenzo.core.text.lowest import LowLetter, lowest_letter
from yenzo.core.text.styles import Laid, TextStyle
from yenzo.core.text.thin import ThinPlaces, thin_places
from yenzo.core.text.typefaces import Typefaces
from yenzo.core.translation import translate_noop

# How high the lines of letters are at least that a tool follows, whatever its own width takes.
LEAST_LINE_MM = 0.2
UNKNOWN_TOOL_MM = 0.3
NO_EFFECTS = Effects()
# No face has small letters as low as this share of its capitals.
LOWEST_SHARE = 0.3
# Some sixty letters.
MOST_POINTS_WITH_EFFECTS = 6000


@dataclass(frozen=True)
class ChosenFont:
    """The typeface that a text is set in; `is_decided` tells whether the customer has chosen it."""

    key: str
    name: str
    font: Font
    is_decided: bool


@dataclass(frozen=True)
class Made:
    """A text as it is laid out, before hands moved it; `thin_at` tells where letters of a height are thin, `lowest_at`
    which is the lowest of them.

    `around_mm` is what the line of `tool` adds to their height, whatever that is.
    """

    node: Lettering
    tool: Pen
    around_mm: float
    thin_at: Callable[[float], ThinPlaces | None]
    lowest_at: Callable[[float], LowLetter | None]

    def finished(self, node: Lettering) -> Lettering:
        """Return the text as it finally lies, with where its letters are thin and how high the lowest of them is."""
        height_mm = node.letter_height_mm
        return replace(node, thin=self.thin_at(height_mm), lowest=self.lowest_at(height_mm))


def set_text(
    setup: Setup, area: Area, placement: AnyText, asked: Asked, typefaces: Typefaces, free: Freedoms
) -> Lettering | None:
    """Return the text of a placement as it is set, or None when there is nothing that could be."""
    text = _produced(setup, placement, asked)
    adjustment = asked.adjustments.get(placement.key, UNTOUCHED)
    placement = as_adjusted(placement, adjustment)
    filled = tuple(key for key in placement.fields if asked.is_filled(key))
    made = make_lettering(setup, area, placement, Written(text, filled), asked, typefaces)
    if made is None or not free:
        return made.finished(made.node) if made else None
    least = min(made.node.least_mm / made.node.letter_height_mm, 1.0)
    bounds = Scaling(least=max(least, LEAST_SCALE), most=1)
    moved = move_lettering(made, area, adjustment, free, bounds)
    if free.letters and adjustment.letter_mm and moved.moved:
        came_to = moved.moved.adjustment.model_copy(update={"letter_mm": made.node.letter_height_mm})
        moved = replace(moved, moved=replace(moved.moved, adjustment=came_to))
    return made.finished(moved)


@dataclass(frozen=True)
class Written:
    """What is written, and the fields that it comes from, the first of them first."""

    text: str
    fields: tuple[str, ...]


def make_lettering(
    setup: Setup, area: Area, placement: AnyText, written: Written, asked: Asked, typefaces: Typefaces
) -> Made | None:
    """Return a text laid out as its placement says, or None when it can't be."""
    text = written.text
    chosen = _chosen_font(setup, placement, asked, typefaces)
    # Of a text that is too long a problem with the entry tells; what isn't laid out can't be made.
    if chosen is None or len(text) > (MOST_IN_A_PARAGRAPH if isinstance(placement, BlockPlacement) else MOST_IN_A_LINE):
        return None
    method = setup.materials.methods.get(area.method)
    style = style_of(placement, asked)
    laid, line = _laid_for_tool(chosen.font, text, area, placement, style, _tool(method))
    paints = {source: chosen_paint(setup, source, asked) for source in placement.colors}
    undecided = [] if chosen.is_decided else [translate_noop("typeface")]
    undecided += [translate_noop("color")] if None in paints.values() else []
    drops_effects = _is_costly(placement.effects) and len(laid.outline.points) > MOST_POINTS_WITH_EFFECTS
    layers: tuple[Layer, ...] | None = ()
    if placement.effects != NO_EFFECTS and not drops_effects:
        layers = _layers(laid.outline, placement, lambda source: paints[source] or UNCHOSEN, _closing_mm(method))
    node = Lettering(
        placement=placement.key,
        field=written.fields[0],
        text=text,
        typeface=chosen.key,
        typeface_name=chosen.name,
        letter_height_mm=laid.letter_height_mm,
        least_mm=placement.least_mm,
        outline=laid.outline,
        paint=paints[placement.color] or UNCHOSEN,
        missing=laid.missing,
        undecided=tuple(undecided),
        fields=written.fields,
        lines=laid.lines,
        overflow_mm=laid.overflow_mm,
        breaks_joins=laid.breaks_joins,
        is_tangled=laid.is_tangled or layers is None,
        line_near_edge=laid.line_near_edge,
        is_bent=laid.is_bent,
        has_bent_letters=laid.has_bent_letters,
        may_overlap=placement.may_overlap,
        drops_effects=drops_effects,
        effects=layers or (),
        line=line if placement.effects == NO_EFFECTS else None,
    )
    return Made(
        node,
        _tool(method),
        _around_mm(chosen.font, style, _tool(method)),
        lambda height_mm: _thin_places(
            method, placement.effects, chosen.font, text, style, height_mm, is_straight=not laid.is_bent
        ),
        lambda height_mm: _lowest(method, chosen.font, text, style, height_mm),
    )


def _chosen_font(setup: Setup, placement: AnyText, asked: Asked, typefaces: Typefaces) -> ChosenFont | None:
    """Return the typeface that is chosen, or the first that could be; None where there is none."""
    have = setup.materials.typefaces
    wanted = placement.typeface.fixed or asked.text(placement.typeface.field or "")
    key = wanted if wanted in have else _first_typeface(setup, placement)
    font = typefaces.font(key or "")
    return ChosenFont(key, have[key].name, font, key == wanted) if key and font else None


def _first_typeface(setup: Setup, placement: AnyText) -> str | None:
    field = setup.field(placement.typeface.field or "")
    offered = field.typefaces if isinstance(field, TypefaceField) else tuple(setup.materials.typefaces)
    return next((key for key in offered if key in setup.materials.typefaces), None)


def _laid_for_tool(
    font: Font, text: str, area: Area, placement: AnyText, style: TextStyle, tool: Pen
) -> tuple[Laid, Outline | None]:
    """Return a text laid out; letters of single lines as a tool makes them, with the lines that it follows."""
    around = _around_mm(font, style, tool)
    heights = {name: max(getattr(style, name) - around, LEAST_LINE_MM) for name in ("least_mm", "most_mm")}
    laid = lay_text(font, text, area, placement, replace(style, **heights) if around else style, tool.width)
    if not font.is_single_line or not laid.outline:
        return laid, None
    laid = replace(laid, letter_height_mm=laid.letter_height_mm + around)
    line = center_lines(laid.outline)
    try:
        return replace(laid, outline=stroked(line.verbs, line.points, tool)), line
    except ShapeError:
        return replace(laid, is_tangled=True), line


def _around_mm(font: Font, style: TextStyle, tool: Pen) -> float:
    """Return what a tool's line adds to letters of single lines: half of it lies above these, half below."""
    return tool.width if font.is_single_line and not style.old_setting else 0.0


def _layers(
    outline: Outline, placement: AnyText, paint_of: Callable[[ColorSource], Paint], closing_mm: float
) -> tuple[Layer, ...] | None:
    """Return what the effects of a text make of its letters; None when these are too tangled for it."""
    try:
        return layers_of(outline, paint_of(placement.color), placement.effects, paint_of, closing_mm)
    except ShapeError:
        return None


def _tool(method: Method | None) -> Pen:
    return Pen(method.tool_mm if method else UNKNOWN_TOOL_MM, cap="round", join="round")


def _closing_mm(method: Method | None) -> float:
    return (method.least_gap_mm or 0.0) if method and method.closes_gaps else 0.0


def _is_costly(effects: Effects) -> bool:
    """Tell whether effects work on every edge of the letters: such a text must stay short enough to be previewed."""
    knocks_out = effects.plate is not None and effects.plate.knock_out
    return effects.stroke is not None or isinstance(effects.fill, Pattern) or knocks_out


def _thin_places(
    method: Method | None,
    effects: Effects,
    font: Font,
    text: str,
    style: TextStyle,
    letter_height_mm: float,
    *,
    is_straight: bool,
) -> ThinPlaces | None:
    """Return where letters are thin, where the method has limits for that and no effect makes them thicker."""
    has_limits = method is not None and (method.least_stroke_mm is not None or method.least_gap_mm is not None)
    thickened = effects.stroke is not None or (effects.plate is not None and effects.plate.knock_out)
    if not has_limits or thickened or font.is_single_line:
        return None
    return thin_places(font, text, style, letter_height_mm, is_straight=is_straight)


def _lowest(
    method: Method | None, font: Font, text: str, style: TextStyle, letter_height_mm: float
) -> LowLetter | None:
    """Return the lowest letter, where any that there is may be lower than the method can make it."""
    if method is None or letter_height_mm * LOWEST_SHARE >= method.least_of_small_mm:
        return None
    # What a tool's line adds to the height, it adds to all letters.
    around = _around_mm(font, style, _tool(method))
    lowest = lowest_letter(font, text, style, letter_height_mm - around)
    return replace(lowest, height_mm=lowest.height_mm + around) if lowest else None


def move_lettering(
    made: Made, area: Area, adjustment: Adjustment, free: Freedoms, bounds: Scaling, *, is_own: bool = False
) -> Lettering:
    """Return a text where hands put it, as far as it finds room there; an item of their own has no place before."""
    node, ink = made.node, made.node.bounds
    if ink is None:
        return node
    containment = text_containment(area)
    points = text_points([layer.outline for layer in node.layers], containment, adjustment.scale)
    moved = settle(ink, points, containment, adjustment, free, bounds=bounds, is_own=is_own)
    if moved.matrix == Matrix():
        return replace(node, moved=moved)
    scale = math.hypot(moved.matrix.a, moved.matrix.b)
    line = node.line.mapped(moved.matrix) if node.line else None
    # A tool's line is as wide at any size.
    is_lines = line is not None and scale != 1
    around_mm = made.around_mm if is_lines else 0.0
    outline = stroked(line.verbs, line.points, made.tool) if line and is_lines else node.outline.mapped(moved.matrix)
    return replace(
        node,
        outline=outline,
        line=line,
        effects=tuple(layer.mapped(moved.matrix) for layer in node.effects),
        letter_height_mm=(node.letter_height_mm - around_mm) * scale + around_mm,
        overflow_mm=node.overflow_mm * scale,
        moved=moved,
    )


def _produced(setup: Setup, placement: AnyText, asked: Asked) -> str:
    parts = {key: _produced_text(setup, key, asked) for key in placement.fields}
    return joined_text(placement.joined, parts) if placement.joined else parts[placement.field]


def _produced_text(setup: Setup, field_key: str, asked: Asked) -> str:
    field = setup.field(field_key)
    if field is None or not asked.is_filled(field_key):
        return ""
    context = EntryContext(setup, asked.language, asked.today)
    return str(kind_of(field).produced(field, asked.values[field_key], context))
