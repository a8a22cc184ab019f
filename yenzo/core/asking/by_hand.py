"""What hands may change: adjustments as they were sent come in; of each, what is free now and asked now goes out."""

from collections.abc import Mapping

from yenzo.core.asking.gestures import half_turn
from yenzo.core.asking.kinds import Value
from yenzo.core.documents.entries import UNTOUCHED, Adjustment
from yenzo.core.documents.freedoms import HELD_FAST, Freedoms
from yenzo.core.documents.materials import Materials
from yenzo.core.documents.placements import AnyPlacement, BlockPlacement, TextPlacement
from yenzo.core.documents.setup import Setup


def allowed_adjustments(
    setup: Setup, sent: Mapping[str, Adjustment], values: Mapping[str, Value]
) -> dict[str, Adjustment]:
    """Return what counts of adjustments, by placement; `values` are the entries that are asked now."""
    allowed = {}
    for placement in setup.placements if sent else ():
        if placement.key in sent and placement.field in values:
            free, typeface = freedoms_of(setup, placement), base_typeface(placement, values)
            allowed[placement.key] = _allowed(setup.materials, placement, free, typeface, sent[placement.key])
    return {key: adjustment for key, adjustment in allowed.items() if adjustment}


def freedoms_of(setup: Setup, placement: AnyPlacement) -> Freedoms:
    """Return what is free of a placement: nothing in an area that is locked."""
    if not placement.free:
        return HELD_FAST
    side = setup.side(placement.side)
    area = side.area(placement.area) if side else None
    return HELD_FAST if area is None or area.locked else placement.free


def base_typeface(placement: AnyPlacement, values: Mapping[str, Value]) -> str:
    """Return the key of the typeface that a text has while nobody changed it by hand; empty where none is chosen."""
    if not isinstance(placement, TextPlacement):
        return ""
    asked = values.get(placement.typeface.field or "")
    return placement.typeface.fixed or (asked if isinstance(asked, str) else "")


def free_typefaces(materials: Materials, free: Freedoms, base: str) -> tuple[str, ...]:
    """Return the typefaces that a text can be changed to, its own first; none where that isn't free."""
    if not free.has_typefaces:
        return ()
    offered = (base, *free.typefaces, *(materials.kin_of(base) if free.styles else ()))
    return tuple(dict.fromkeys(key for key in offered if key in materials.typefaces))


def aligns_of(placement: AnyPlacement) -> tuple[str, ...]:
    """Return how a text of this layout can be aligned; none for artwork."""
    if not isinstance(placement, TextPlacement):
        return ()
    return ("left", "center", "right", "justified") if isinstance(placement, BlockPlacement) else _AT_ONE_END


_AT_ONE_END = ("left", "center", "right")


def _allowed(
    materials: Materials, placement: AnyPlacement, free: Freedoms, typeface: str, sent: Adjustment
) -> Adjustment:
    scale, letters = free.scale, free.letters
    palette = materials.palettes.get(free.palette or "")
    is_text = isinstance(placement, TextPlacement)
    return Adjustment(
        shift_mm=sent.shift_mm if free.move else UNTOUCHED.shift_mm,
        turn_deg=min(max(half_turn(sent.turn_deg), -free.turn_deg), free.turn_deg),
        scale=min(max(sent.scale, scale.least), scale.most) if scale else UNTOUCHED.scale,
        letter_mm=min(max(sent.letter_mm, letters.least_mm), letters.most_mm) if letters and sent.letter_mm else None,
        typeface=sent.typeface if is_text and sent.typeface in free_typefaces(materials, free, typeface) else None,
        color=sent.color if palette and sent.color and palette.color(sent.color) else None,
        align=sent.align if free.align and sent.align in aligns_of(placement) else None,
        level=sent.level if free.order else UNTOUCHED.level,
    )
