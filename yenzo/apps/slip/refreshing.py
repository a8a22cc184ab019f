"""The preview protocol: a slip and what the browser shows come in; the parts that changed go out."""

from collections.abc import Mapping

from django.http import QueryDict

from yenzo.apps.slip.fingerprints import Fingerprints, read_fingerprints
from yenzo.apps.slip.goods import changed_side
from yenzo.apps.slip.hands import changed_numbers
from yenzo.apps.slip.lines import SlipLine
from yenzo.apps.slip.slip import Slip, Turn


def refresh_context(slip: Slip, form: QueryDict) -> dict[str, object]:
    """Return what the answer needs: what differs on sides (the one in view first) and lines that look otherwise."""
    seen = read_fingerprints(form.get("shown", ""))
    in_view = form.get("view", "")
    changed = [changed_side(side, seen) for side in slip.sides]
    hand_list = slip.list_fingerprints.changed(seen)
    was_asked = set(form.get("asked", "").split())
    shown = set(form.get("messages-shown", "").split())
    is_another_variant = bool(slip.axes) and form.get("variant") != slip.evaluation.asked.variant
    changed_lines = [line for line in slip.lines if _has_changed(line, was_asked)]
    numbers = changed_numbers(slip.selected_item, seen)
    if numbers and (is_another_variant or changed_lines):
        # What has parts for htmx goes through it as a whole, and that fills no boxes.
        numbers = None
    return {
        "slip": slip,
        "changed_sides": sorted(filter(None, changed), key=lambda one: one.side.key != in_view),
        "said_lines": [line for line in slip.lines if line.is_asked and _has_words(line, shown)],
        "is_another_variant": is_another_variant,
        "are_hands_otherwise": hand_list is None,
        "changed_movable": [slip.movable[at] for at in hand_list or ()],
        "is_strip_otherwise": bool(slip.movable) and hand_list is not None and numbers is None,
        "changed_numbers": numbers or (),
        "is_price_otherwise": slip.price_fingerprints.changed(seen) is None,
        "is_goods_said_otherwise": slip.goods_said_fingerprints.changed(seen) is None,
        "lines_beside_otherwise": _beside_otherwise(slip, seen),
        "gestures_done": gestures_done(form),
        "changed_lines": changed_lines,
    }


def _beside_otherwise(slip: Slip, seen: Mapping[str, Fingerprints]) -> list[SlipLine]:
    """Return the lines beside whose control something else stands than is seen."""
    lines, changed = slip.lines_with_beside, slip.beside_fingerprints.changed(seen)
    return list(lines) if changed is None else [lines[at] for at in changed]


def _has_changed(line: SlipLine, was_asked: set[str]) -> bool:
    if line.is_asked:
        return line.shape not in was_asked
    return any(shape.partition(":")[0] == line.field.key for shape in was_asked)


def _has_words(line: SlipLine, shown: set[str]) -> bool:
    """Tell whether something else is said of a line than was, or nothing any more."""
    if line.messages:
        return line.message_digest not in shown
    return any(one.partition(":")[0] == line.field.key for one in shown)


def gestures_done(form: QueryDict) -> int:
    """Return the number of the last gesture that a form was sent with: the page needn't send those again."""
    sent = form.get("gestures-to", "")
    return int(sent) if sent.isascii() and sent.isdigit() and len(sent) < 10 else 0


def turn_of_form(form: QueryDict) -> Turn:
    """Return which page a slip shows, and which one its customer wants to turn to."""
    return Turn(form.get("page", ""), form.get("go"))
