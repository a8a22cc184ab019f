"""What can be changed by hand: an evaluation comes in; each such thing, in words and with its controls, goes out."""

import math
from collections.abc import Iterator, Mapping
from dataclasses import dataclass, replace
from typing import Any

from django.http import QueryDict
from django.utils.translation import get_language, gettext

from yenzo.apps.slip.fingerprints import Fingerprints, fingerprints_of
from yenzo.core.asking.by_hand import aligns_of, base_typeface, free_typefaces
from yenzo.core.asking.gestures import Hands, after, dump_hands, read_gestures, read_hands
from yenzo.core.asking.kinds.own_items import own_items_of
from yenzo.core.caching import cached_on
from yenzo.core.documents.entries import Entries
from yenzo.core.documents.freedoms import Freedoms
from yenzo.core.documents.materials import Materials
from yenzo.core.documents.own_field import OwnItemsField
from yenzo.core.documents.own_items import (
    MOST_CODE_CHARACTERS,
    OwnCode,
    OwnDrawing,
    OwnItem,
    OwnItems,
    OwnPicture,
    OwnText,
    item_id,
    split_id,
)
from yenzo.core.documents.values import clean_text
from yenzo.core.evaluation import Evaluation
from yenzo.core.measure import MM_PER_INCH
from yenzo.core.scene.moved import Moved
from yenzo.core.scene.nodes import AreaScene, Lettering, Node, PlacedPicture
from yenzo.core.shapes.box import Box
from yenzo.core.translation import decimal

MOST_SENT, MOST_NAME = 200_000, 130
MOST_TEXT_CHARACTERS = 500
# What changes in the strip of something that is moved: the numbers in the boxes that are called by the first word.
NUMBERS = ("left_mm", "top_mm", "width_mm", "turn_deg", "letter_mm")


@dataclass(frozen=True)
class Pick:
    """One of several things to choose from."""

    key: str
    label: str
    is_chosen: bool
    swatch: str = ""


@dataclass(frozen=True)
class MovableItem:
    """Something on the goods that customers may change: what it is called, where it is, and what can be changed."""

    key: str
    side: str
    name: str
    said: str
    free: Freedoms
    left_mm: str
    top_mm: str
    width_mm: str
    turn_deg: str
    letter_mm: str = ""
    typefaces: tuple[Pick, ...] = ()
    colors: tuple[Pick, ...] = ()
    aligns: tuple[Pick, ...] = ()
    layouts: tuple[Pick, ...] = ()
    effects: tuple[Pick, ...] = ()
    places: tuple[Pick, ...] = ()
    least_letter_mm: str = ""
    most_letter_mm: str = ""
    stopped: tuple[str, ...] = ()
    is_changed: bool = False
    is_own: bool = False
    is_locked: bool = False


def hands_of_form(form: QueryDict) -> Hands:
    """Return what hands have changed, as a slip was sent: what the page was told, and what they did since."""
    known, since = form.get("hands", ""), form.get("gestures", "")
    if len(known) + len(since) > MOST_SENT:
        return Hands()
    hands = after(read_hands(known), read_gestures(since))
    return hands.model_copy(update={"items": {key: _as_typed(form, key, items) for key, items in hands.items.items()}})


def selected_in_form(form: QueryDict) -> str:
    """Return what is held by hand just now, by its name on the goods; empty for nothing."""
    return form.get("selected-item", "")[:MOST_NAME]


def _as_typed(form: QueryDict, field_key: str, items: OwnItems) -> OwnItems:
    """Return items with the words that stand in their boxes on the slip."""

    def typed(item: OwnItem) -> OwnItem:
        """Return an item with what is typed for it."""
        words = form.get(f"own-{item_id(field_key, item.key)}")
        if words is None or not isinstance(item, OwnText | OwnCode):
            return item
        most = MOST_CODE_CHARACTERS if isinstance(item, OwnCode) else MOST_TEXT_CHARACTERS
        return item.but(text=clean_text(words)[:most])

    return tuple(typed(item) for item in items)


def settled_hands(entries: Entries, evaluation: Evaluation) -> str:
    """Return what hands have changed as far as it could be, as the next request carries it.

    What isn't asked now keeps what was done to it.
    """
    settled = {
        node.placement: node.moved.adjustment
        for _, node in _movable(evaluation)
        if node.moved and node.moved.item is None
    }
    adjustments = {key: one for key, one in {**entries.adjustments, **settled}.items() if one}
    return dump_hands(Hands(adjustments=adjustments, items=_settled_items(entries, evaluation)))


def _settled_items(entries: Entries, evaluation: Evaluation) -> dict[str, OwnItems]:
    """Return all own items, those that show as they came to lie."""
    lies = {node.placement: node.moved.item for _, node in _movable(evaluation) if node.moved and node.moved.item}
    settled = {}
    for field, items in entries.items.items():
        asked = {item.key: item for item in own_items_of(evaluation.asked.values.get(field))}
        settled[field] = tuple(lies.get(item_id(field, item.key), asked.get(item.key, item)) for item in items)
    return {field: tuple(_without_file(item) for item in items) for field, items in settled.items()}


def _without_file(item: OwnItem) -> OwnItem:
    return item.model_copy(update={"made": None}) if isinstance(item, OwnPicture) else item


def movable_items(evaluation: Evaluation, selected: str) -> tuple[MovableItem, ...]:
    """Return all that customers may change now, in painting order; what can be chosen only of what is held."""
    return tuple(
        _selected(evaluation, area, node) if node.placement == selected else _unselected(evaluation, area, node)
        for area, node in _movable(evaluation)
    )


def list_fingerprints(items: tuple[MovableItem, ...]) -> Fingerprints:
    """Return what tells the list of what can be changed by hand apart: its order, and the words of each."""
    order = repr([(item.key, item.side) for item in items])
    return fingerprints_of("hands", order, (f"{item.name}\n{item.said}" for item in items))


def strip_fingerprints(item: MovableItem | None) -> Fingerprints:
    """Return what tells the strip of what is held apart: its controls, and the numbers in them."""
    if item is None:
        return fingerprints_of("strip", "", ())
    controls = replace(item, said="", left_mm="", top_mm="", width_mm="", turn_deg="", letter_mm="")
    return fingerprints_of("strip", repr(controls), (getattr(item, name) for name in NUMBERS))


def changed_numbers(item: MovableItem | None, seen: Mapping[str, Fingerprints]) -> list[tuple[str, str]] | None:
    """Return the boxes of the strip of what is held in which another number is seen, and what belongs in them.

    None where the whole strip looks otherwise than what is seen.
    """
    changed = strip_fingerprints(item).changed(seen)
    if changed is None:
        return None
    return [(NUMBERS[at].partition("_")[0], getattr(item, NUMBERS[at])) for at in changed]


def _movable(evaluation: Evaluation) -> Iterator[tuple[AreaScene, Node]]:
    return ((area, node) for area in evaluation.scene.areas for node in area.nodes if node.moved)


def _unselected(evaluation: Evaluation, area: AreaScene, node: Node) -> MovableItem:
    """Return what is told of something that isn't held, told once: most stays where it lies while one is moved."""
    materials = evaluation.setup.materials
    about = (get_language(), area.area, materials.methods.get(area.method))
    return cached_on(node, "told", about, lambda: _told(materials, area, node, {}))


def _selected(evaluation: Evaluation, area: AreaScene, node: Node) -> MovableItem:
    item = node.moved.item if node.moved else None
    offered = _offered_of_own(evaluation, node, item) if item else _offered(evaluation, node)
    return _told(evaluation.setup.materials, area, node, offered)


def _told(materials: Materials, area: AreaScene, node: Node, offered: dict[str, Any]) -> MovableItem:
    moved, box = node.moved, node.bounds
    assert moved is not None
    assert box is not None
    scale = math.hypot(moved.matrix.a, moved.matrix.b)
    text = node if isinstance(node, Lettering) else None
    return MovableItem(
        key=node.placement,
        side=area.side,
        name=node.name if not isinstance(node, Lettering) else " / ".join(node.lines or (node.text,)),
        said=_said(materials, area, node),
        free=moved.free,
        left_mm=_plain(box.left),
        top_mm=_plain(box.top),
        width_mm=_plain(moved.start.width * scale),
        turn_deg=_plain(moved.item.turn_deg if moved.item else moved.adjustment.turn_deg),
        letter_mm=_plain(text.letter_height_mm) if text else "",
        stopped=tuple(_stopped(area, node, moved)),
        is_changed=bool(moved.adjustment) and moved.item is None,
        is_own=moved.item is not None,
        is_locked=moved.item is not None and moved.item.locked,
        **offered,
    )


def _offered(evaluation: Evaluation, node: Node) -> dict[str, Any]:
    """Return what can be chosen for what a placement put there."""
    moved = node.moved
    assert moved is not None
    letters = moved.free.letters if isinstance(node, Lettering) else None
    return {
        "typefaces": _typefaces(evaluation, node, moved) if isinstance(node, Lettering) else (),
        "colors": _palette_picks(evaluation.setup.materials, moved.free.palette, node),
        "aligns": _aligns(evaluation, node, moved),
        "least_letter_mm": _plain(letters.least_mm) if letters else "",
        "most_letter_mm": _plain(letters.most_mm) if letters else "",
    }


def _offered_of_own(evaluation: Evaluation, node: Node, item: OwnItem) -> dict[str, Any]:
    """Return what can be chosen for an own item."""
    own = split_id(node.placement)
    field = evaluation.setup.field(own[0]) if own else None
    assert isinstance(field, OwnItemsField)
    if item.locked:
        return {}
    materials = evaluation.setup.materials
    offered: dict[str, Any] = {"places": _places(evaluation, field, item)}
    palette = None
    if isinstance(item, OwnText) and isinstance(node, Lettering) and field.texts:
        palette, letters = field.texts.palette, field.texts.letters
        offered["typefaces"] = tuple(
            Pick(key, materials.typefaces[key].name, key == node.typeface)
            for key in field.texts.typefaces
            if key in materials.typefaces
        )
        words = {
            "straight": gettext("on a straight line"),
            "wrapped": gettext("wrapped"),
            "arched": gettext("on an arch"),
            "round": gettext("all round"),
        }
        offered["layouts"] = tuple(Pick(key, words[key], key == item.layout) for key in field.texts.layouts)
        offered["effects"] = tuple(
            Pick(name, _effect_words()[name], name in item.effects) for name in field.texts.effects.names
        )
        offered["least_letter_mm"], offered["most_letter_mm"] = _plain(letters.least_mm), _plain(letters.most_mm)
        if item.layout == "wrapped":
            offered["aligns"] = tuple(
                Pick(key, words, key == item.align) for key, words in _align_words().items() if key != "justified"
            )
    elif isinstance(item, OwnDrawing) and field.drawings:
        palette = field.drawings.palette
    elif isinstance(item, OwnCode) and field.codes:
        palette = field.codes.palette
    offered["colors"] = _palette_picks(materials, palette, node)
    return offered


def _palette_picks(materials: Materials, palette_key: str | None, node: Node) -> tuple[Pick, ...]:
    palette = materials.palettes.get(palette_key or "")
    paint = None if isinstance(node, PlacedPicture) else node.paint
    return tuple(
        Pick(color.key, color.name, paint is not None and paint.name == color.name, color.screen)
        for color in (palette.colors if palette else ())
    )


def _places(evaluation: Evaluation, field: OwnItemsField, item: OwnItem) -> tuple[Pick, ...]:
    """Return the areas that an item can be put into; none where there is only one."""
    picks = []
    for placement in evaluation.setup.placements_of(field.key):
        side = evaluation.setup.side(placement.side)
        area = side.area(placement.area) if side else None
        if side and area:
            picks.append(Pick(placement.key, f"{side.name} / {area.name}", placement.key == item.place))
    return tuple(picks) if len(picks) > 1 else ()


def _said(materials: Materials, area: AreaScene, node: Node) -> str:
    """Return how large something is and where it lies, in words."""
    box, moved = node.bounds, node.moved
    assert box is not None
    assert moved is not None
    turn = moved.adjustment.turn_deg
    said = [_size_words(materials, area, node)]
    if covers(area, box):
        said.append(gettext("covers all of {area}").format(area=area.name))
    else:
        place = gettext("{left} mm from the left, {top} mm from the top of {area}")
        said.append(place.format(left=decimal(box.left, 0), top=decimal(box.top, 0), area=area.name))
    if round(turn):
        said.append(gettext("turned by {degrees}°").format(degrees=decimal(turn, 0)))
    return ", ".join(said)


def covers(area: AreaScene, box: Box) -> bool:
    """Tell whether a box leaves nothing of an area uncovered."""
    return area.trim.excess_over(box) == 0


def _size_words(materials: Materials, area: AreaScene, node: Node) -> str:
    if isinstance(node, Lettering):
        return gettext("{height} mm high").format(height=decimal(node.letter_height_mm, 0))
    width, height = (decimal(length, 0) for length in node.size_mm)
    size = gettext("{width} × {height} mm").format(width=width, height=height)
    if isinstance(node, PlacedPicture) and area.method in materials.methods:
        sharp_mm = node.width_px / materials.methods[area.method].good_dpi * MM_PER_INCH
        sharp = gettext("{dpi} dpi, sharp up to {sharp} mm wide")
        return f"{size}, {sharp.format(dpi=decimal(node.dpi, 0), sharp=decimal(sharp_mm, 0))}"
    return size


def _stopped(area: AreaScene, node: Node, moved: Moved) -> Iterator[str]:
    """Yield what kept it from going where the hand wanted it."""
    if "edge" in moved.stops:
        yield gettext("It stops at the edge of “{area}”.").format(area=area.name)
    if "size" in moved.stops and node.bounds is not None and covers(area, node.bounds):
        yield gettext("It can't be smaller here: it covers all of “{area}”.").format(area=area.name)
    elif "size" in moved.stops and not moved.free.scale:
        yield gettext("It is made smaller, so that it stays inside “{area}”.").format(area=area.name)
    elif "size" in moved.stops:
        yield gettext("It can't be larger here, there is no more room in “{area}”.").format(area=area.name)
    if "turn" in moved.stops:
        yield gettext("It can't be turned further here, there is no room in “{area}”.").format(area=area.name)


def _typefaces(evaluation: Evaluation, node: Lettering, moved: Moved) -> tuple[Pick, ...]:
    placement = evaluation.setup.placement(node.placement)
    assert placement is not None
    materials = evaluation.setup.materials
    keys = free_typefaces(materials, moved.free, base_typeface(placement, evaluation.asked.values))
    # One is no choice: a family may have one face only.
    shown = keys if len(keys) > 1 else ()
    return tuple(Pick(key, materials.typefaces[key].name, key == node.typeface) for key in shown)


def _aligns(evaluation: Evaluation, node: Node, moved: Moved) -> tuple[Pick, ...]:
    placement = evaluation.setup.placement(node.placement)
    if placement is None or not moved.free.align:
        return ()
    words = _align_words()
    now = moved.adjustment.align or getattr(placement, "align", None)
    return tuple(Pick(key, words[key], key == now) for key in aligns_of(placement))


def _align_words() -> dict[str, str]:
    return {
        "left": gettext("at the left"),
        "center": gettext("centered"),
        "right": gettext("at the right"),
        "justified": gettext("justified"),
    }


def _effect_words() -> dict[str, str]:
    return {
        "stroke": gettext("Line round the letters"),
        "shadow": gettext("Shadow"),
        "plate": gettext("Plate"),
        "fill": gettext("Second color"),
    }


def _plain(value: float) -> str:
    return f"{round(value, 1):g}"
