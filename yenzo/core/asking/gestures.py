"""Gestures: what hands have changed so far and what they did since come in; what they have changed then goes out.

A browser sends gestures in mm and degrees of the area that something lies in, never where it lies then: bounds and
geometry decide that.
"""

import json
from collections.abc import Iterable, Iterator
from contextlib import suppress
from typing import Annotated, Any, Literal

from pydantic import Field, TypeAdapter, ValidationError
from pydantic_core import to_json

from yenzo.core.documents.entries import MOST_LEVELS, UNTOUCHED, Adjustment, Align
from yenzo.core.documents.own_items import (
    MOST_NAME,
    MOST_OWN_ITEMS,
    EffectName,
    NewItem,
    OwnItem,
    OwnItems,
    OwnLayout,
    split_id,
)
from yenzo.core.documents.reading import dump_part
from yenzo.core.documents.values import Angle, Frozen, Key, Length, Offset, Sha256

MOST_GESTURES = 500
# Beyond that nothing is found again.
MOST_SHIFT_MM, LEAST_SCALE, MOST_SCALE, LEAST_SIZE_MM = 20_000.0, 0.01, 20.0, 0.5
# How far a copy lies from what it is of.
COPY_MM = 6.0


# A placement's key, or a field's and an own item's together.
ItemName = Annotated[str, Field(pattern=r"^[a-z0-9][a-z0-9_-]*$", max_length=MOST_NAME)]


class Hands(Frozen):
    """All that hands have changed, by what they changed, and what they have added, by field."""

    adjustments: dict[Key, Adjustment] = {}
    items: dict[Key, OwnItems] = {}


class Move(Frozen):
    """Something was moved, turned and sized about its middle, all at once."""

    do: Literal["move"] = "move"
    item: ItemName
    shift_mm: tuple[Offset, Offset] = (0, 0)
    turn_deg: Angle = 0
    scale: float = Field(default=1, gt=0, le=1000)


class Put(Frozen):
    """A value was typed or picked; those that are None stay as they are. The last ones are of own items only."""

    do: Literal["put"] = "put"
    item: ItemName
    turn_deg: Angle | None = None
    letter_mm: Length | None = None
    typeface: Key | None = None
    color: Key | None = None
    align: Align | None = None
    layout: OwnLayout | None = None
    width_mm: Length | None = None
    radius_mm: Length | None = None
    place: Key | None = None
    locked: bool | None = None
    effects: tuple[EffectName, ...] | None = Field(default=None, max_length=4)
    file: Sha256 | None = None


class Level(Frozen):
    """Something was put above, or below, what lies beside it."""

    do: Literal["level"] = "level"
    item: ItemName
    by: int = Field(ge=-MOST_LEVELS, le=MOST_LEVELS)


class Again(Frozen):
    """Something was put back to where it began."""

    do: Literal["again"] = "again"
    item: ItemName


class Add(Frozen):
    """An item was added, above all others; its key is given here."""

    do: Literal["add"] = "add"
    field: Key
    item: NewItem


class Copy(Frozen):
    """An own item was doubled; the second one lies a little lower."""

    do: Literal["copy"] = "copy"
    item: ItemName


class Remove(Frozen):
    """An own item was taken off."""

    do: Literal["remove"] = "remove"
    item: ItemName


class Begin(Frozen):
    """A field's items make way for others, as a seller arranged them."""

    do: Literal["begin"] = "begin"
    field: Key
    items: OwnItems = Field(max_length=MOST_OWN_ITEMS)


class Restore(Frozen):
    """All went back to how it was at some time before."""

    do: Literal["restore"] = "restore"
    hands: Hands


Gesture = Annotated[Move | Put | Level | Again | Add | Copy | Remove | Begin | Restore, Field(discriminator="do")]
_GESTURE: TypeAdapter[Gesture] = TypeAdapter(Gesture)


def read_gestures(sent: str) -> tuple[Gesture, ...]:
    """Return gestures as JSON has them, each read by itself: one that can't be done takes no other along."""
    try:
        rows = json.loads(sent or "[]")
    except (ValueError, RecursionError):
        return ()
    return tuple(_readable(rows[-MOST_GESTURES:] if isinstance(rows, list) else ()))


def _readable(rows: Iterable[object]) -> Iterator[Gesture]:
    for row in rows:
        with suppress(ValidationError):
            yield _GESTURE.validate_python(row)


def read_hands(sent: str) -> Hands:
    """Return what hands have changed, as JSON has it; nothing where it can't be read."""
    try:
        return Hands.model_validate_json(sent or "{}")
    except ValidationError:
        return Hands()


def dump_hands(hands: Hands) -> str:
    """Return what hands have changed as JSON, without what is as it began."""
    return to_json(dump_part(hands)).decode()


def after(hands: Hands, gestures: Iterable[Gesture]) -> Hands:
    """Return what hands have changed after some more gestures."""
    for gesture in gestures:
        hands = _after(hands, gesture)
    return hands


def _after(hands: Hands, gesture: Gesture) -> Hands:
    match gesture:
        case Restore():
            return gesture.hands
        case Begin():
            return hands.model_copy(update={"items": {**hands.items, gesture.field: gesture.items}})
        case Add():
            return _added(hands, gesture.field, gesture.item)
    own = split_id(gesture.item)
    if own and any(item.key == own[1] for item in hands.items.get(own[0], ())):
        return _with_items(hands, own[0], own[1], gesture)
    if isinstance(gesture, Copy | Remove):
        return hands
    before = hands.adjustments.get(gesture.item, UNTOUCHED)
    adjustments = {**hands.adjustments, gesture.item: _adjusted(before, gesture)}
    return hands.model_copy(update={"adjustments": {key: one for key, one in adjustments.items() if one}})


def _adjusted(before: Adjustment, gesture: Move | Put | Level | Again) -> Adjustment:
    match gesture:
        case Move():
            (x, y), (dx, dy) = before.shift_mm, gesture.shift_mm
            changed: dict[str, Any] = {
                "shift_mm": (_place(x + dx), _place(y + dy)),
                "turn_deg": half_turn(before.turn_deg + gesture.turn_deg),
                "scale": min(max(before.scale * gesture.scale, LEAST_SCALE), MOST_SCALE),
            }
        case Put():
            put = gesture.model_dump(include=set(Adjustment.model_fields), exclude_none=True)
            changed = {**put, **({"turn_deg": half_turn(put["turn_deg"])} if "turn_deg" in put else {})}
        case Level():
            changed = {"level": int(_within(before.level + gesture.by, MOST_LEVELS))}
        case Again():
            return UNTOUCHED
    return before.model_copy(update=changed)


def _added(hands: Hands, field: str, item: OwnItem) -> Hands:
    before = hands.items.get(field, ())
    if len(before) >= MOST_OWN_ITEMS:
        return hands
    taken = {one.key for one in before}
    key = next(f"i{number}" for number in range(1, MOST_OWN_ITEMS + 2) if f"i{number}" not in taken)
    return hands.model_copy(update={"items": {**hands.items, field: (*before, item.model_copy(update={"key": key}))}})


def _with_items(hands: Hands, field: str, key: str, gesture: Move | Put | Level | Again | Copy | Remove) -> Hands:
    """Return hands after something was done with an own item."""
    items = list(hands.items[field])
    at = next(index for index, item in enumerate(items) if item.key == key)
    item = items[at]
    match gesture:
        case Copy():
            lower = {"x_mm": _lower(item.x_mm), "y_mm": _lower(item.y_mm), "locked": False}
            return _added(hands, field, item.model_copy(update=lower))
        case Remove():
            del items[at]
        case Level():
            items.insert(min(max(at + gesture.by, 0), len(items) - 1), items.pop(at))
        case Again():
            items[at] = item.model_copy(update={"x_mm": None, "y_mm": None, "turn_deg": 0.0})
        case _:
            items[at] = _changed_item(item, gesture)
    return hands.model_copy(update={"items": {**hands.items, field: tuple(items)}})


def _lower(at_mm: float | None) -> float | None:
    return None if at_mm is None else _place(at_mm + COPY_MM)


def _changed_item(item: OwnItem, gesture: Move | Put) -> OwnItem:
    """Return an own item as it was moved or changed; one that is locked can only be unlocked."""
    if isinstance(gesture, Put):
        own = set(type(item).model_fields) - {"key", "kind", "made"}
        put = gesture.model_dump(include=own if not item.locked else {"locked"}, exclude_none=True)
        return item.model_copy(update=put)
    if item.locked:
        return item
    sizes = ("letter_mm", "width_mm", "radius_mm")
    changed: dict[str, Any] = {
        name: min(max(size * gesture.scale, LEAST_SIZE_MM), MOST_SHIFT_MM)
        for name in sizes
        if (size := getattr(item, name, None)) is not None
    }
    changed["turn_deg"] = half_turn(item.turn_deg + gesture.turn_deg)
    if item.x_mm is not None and item.y_mm is not None:
        (dx, dy) = gesture.shift_mm
        changed |= {"x_mm": _place(item.x_mm + dx), "y_mm": _place(item.y_mm + dy)}
    return item.model_copy(update=changed)


def _place(at_mm: float) -> float:
    """Return a place that hands can mean: whole micrometres, so that what comes back to where it was is there."""
    return round(_within(at_mm, MOST_SHIFT_MM), 3)


def _within(value: float, most: float) -> float:
    return min(max(value, -most), most)


def half_turn(degrees: float) -> float:
    """Return the same turn, above -180 and up to 180 degrees."""
    turned = degrees % 360
    return turned - 360 if turned > 180 else turned
