"""Texts that are longer than their base line, and texts whose letters are torn apart."""

from collections.abc import Iterator

from yenzo.core.documents.materials import Method
from yenzo.core.preflight.findings import Finding, found
from yenzo.core.scene.nodes import AreaScene


def find_too_long(area: AreaScene, _method: Method) -> Iterator[Finding]:
    """Yield a finding for each text that runs beyond its base line, with how much of it is too long."""
    for node in area.letterings:
        if node.overflow_mm:
            message = (
                f"“{node.text}” is {node.overflow_mm:.1f} mm too long for its base line on “{area.name}”, even with "
                f"letters {node.letter_height_mm:.1f} mm high. Please shorten it."
            )
            yield found("too_long", area, node, message, measured=node.overflow_mm, limit=0)
        if node.drops_effects:
            message = (
                f"“{node.text[:40]}…” is too long for the stroke, pattern or plate that it would get on “{area.name}”. "
                "Please shorten it."
            )
            yield found("too_long_for_effects", area, node, message)
        if node.is_tangled:
            message = (
                f"The letters of “{node.text}” run into each other on “{area.name}” and can't be made like that. "
                "Please shorten it."
            )
            yield found("tangled", area, node, message)
        if node.breaks_joins:
            message = (
                f"The letters of “{node.text}” join each other and can't stand below each other on “{area.name}”. "
                "Please use other letters."
            )
            yield found("torn_letters", area, node, message)
