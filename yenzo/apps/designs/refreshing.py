"""The preview protocol: a slip and what the browser shows come in; the parts that changed go out."""

from django.http import QueryDict

from yenzo.apps.designs.slip import Slip, SlipSide


def changed_parts(slip: Slip, form: QueryDict) -> dict[str, object]:
    """Return the sides whose digest differs (the one in view first) and the lines newly asked or no longer asked."""
    shown = set(form.get("shown", "").split())
    in_view = form.get("view", "")
    sides = [side for side in slip.sides if f"{side.key}:{side.digest}" not in shown]
    was_asked = set(form.get("asked", "").split())
    return {
        "changed_sides": sorted(sides, key=lambda side: _order(side, in_view)),
        "changed_lines": [line for line in slip.lines if line.is_asked != (line.field.key in was_asked)],
    }


def _order(side: SlipSide, in_view: str) -> bool:
    return side.key != in_view
