"""Gestures: what hands have changed so far and what they did since come in; what they have changed then goes out.

A browser sends gestures in mm and degrees of the area that something lies in, never where it lies then: bounds and
geometry decide that.
"""

from collections.abc import Iterable
from typing import Annotated, Any, Literal

from pydantic import Field, TypeAdapter, ValidationError

from yenzo.core.documents.entries import MOST_LEVELS, UNTOUCHED, Adjustment, Align
from yenzo.core.documents.values import Angle, Frozen, Key, Length, Offset

MOST_GESTURES = 500
# Beyond that nothing is found again.
MOST_SHIFT_MM, LEAST_SCALE, MOST_SCALE = 20_000.0, 0.01, 20.0


class Hands(Frozen):
    """All that hands have changed, by what they changed."""

    adjustments: dict[Key, Adjustment] = {}


class Move(Frozen):
    """Something was moved, turned and sized about its middle, all at once."""

    do: Literal["move"] = "move"
    item: Key
    shift_mm: tuple[Offset, Offset] = (0, 0)
    turn_deg: Angle = 0
    scale: float = Field(default=1, gt=0, le=1000)


class Put(Frozen):
    """A value was typed or picked; those that are None stay as they are."""

    do: Literal["put"] = "put"
    item: Key
    turn_deg: Angle | None = None
    letter_mm: Length | None = None
    typeface: Key | None = None
    color: Key | None = None
    align: Align | None = None


class Level(Frozen):
    """Something was put above, or below, what lies beside it."""

    do: Literal["level"] = "level"
    item: Key
    by: int = Field(ge=-MOST_LEVELS, le=MOST_LEVELS)


class Again(Frozen):
    """Something was put back to where it began."""

    do: Literal["again"] = "again"
    item: Key


class Restore(Frozen):
    """All went back to how it was at some time before."""

    do: Literal["restore"] = "restore"
    hands: Hands


Gesture = Annotated[Move | Put | Level | Again | Restore, Field(discriminator="do")]
_GESTURES: TypeAdapter[tuple[Gesture, ...]] = TypeAdapter(tuple[Gesture, ...])


def read_gestures(sent: str) -> tuple[Gesture, ...]:
    """Return gestures as JSON has them; none where it can't be read, as it is only hands that are lost."""
    try:
        return _GESTURES.validate_json(sent or "[]")[-MOST_GESTURES:]
    except ValidationError:
        return ()


def read_hands(sent: str) -> Hands:
    """Return what hands have changed, as JSON has it; nothing where it can't be read."""
    try:
        return Hands.model_validate_json(sent or "{}")
    except ValidationError:
        return Hands()


def dump_hands(hands: Hands) -> str:
    """Return what hands have changed as JSON, without what is as it began."""
    return hands.model_dump_json(exclude_defaults=True)


def after(hands: Hands, gestures: Iterable[Gesture]) -> Hands:
    """Return what hands have changed after some more gestures."""
    for gesture in gestures:
        hands = _after(hands, gesture)
    return hands


def _after(hands: Hands, gesture: Gesture) -> Hands:
    if isinstance(gesture, Restore):
        return gesture.hands
    before = hands.adjustments.get(gesture.item, UNTOUCHED)
    adjustments = {**hands.adjustments, gesture.item: _adjusted(before, gesture)}
    return hands.model_copy(update={"adjustments": {key: one for key, one in adjustments.items() if one}})


def _adjusted(before: Adjustment, gesture: Move | Put | Level | Again) -> Adjustment:
    match gesture:
        case Move():
            (x, y), (dx, dy) = before.shift_mm, gesture.shift_mm
            changed: dict[str, Any] = {
                "shift_mm": (_within(x + dx, MOST_SHIFT_MM), _within(y + dy, MOST_SHIFT_MM)),
                "turn_deg": half_turn(before.turn_deg + gesture.turn_deg),
                "scale": min(max(before.scale * gesture.scale, LEAST_SCALE), MOST_SCALE),
            }
        case Put():
            put = gesture.model_dump(exclude={"do", "item"}, exclude_none=True)
            changed = {**put, **({"turn_deg": half_turn(put["turn_deg"])} if "turn_deg" in put else {})}
        case Level():
            changed = {"level": int(_within(before.level + gesture.by, MOST_LEVELS))}
        case Again():
            return UNTOUCHED
    return before.model_copy(update=changed)


def _within(value: float, most: float) -> float:
    return min(max(value, -most), most)


def half_turn(degrees: float) -> float:
    """Return the same turn, above -180 and up to 180 degrees."""
    turned = degrees % 360
    return turned - 360 if turned > 180 else turned
