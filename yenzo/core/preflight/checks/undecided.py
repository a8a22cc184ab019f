"""Texts whose typeface or color nobody has chosen, and texts with characters that aren't drawn."""

from collections.abc import Iterator

from yenzo.core.documents.materials import Method
from yenzo.core.preflight.findings import Finding, found
from yenzo.core.scene.nodes import AreaScene, Lettering
from yenzo.core.translation import translate


def find_undecided(area: AreaScene, _method: Method) -> Iterator[Finding]:
    """Yield a finding for what lacks a decision, and for each text that lacks letters."""
    for node in area.painted:
        for what in node.undecided:
            message = translate(
                "No {what} is chosen for “{text}” on “{area}”. Please choose one.",
                what=translate(what),
                text=node.text,
                area=area.name,
            )
            yield found("undecided", area, node, message)
        if isinstance(node, Lettering) and node.missing:
            chars = ", ".join(f"“{char}”" for char in node.missing)
            message = translate(
                "{chars} of “{text}” can't be drawn: not in the typeface {typeface_name}.",
                chars=chars,
                text=node.text,
                typeface_name=node.typeface_name,
            )
            yield found("missing_letter", area, node, message)
