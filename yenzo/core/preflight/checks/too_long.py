"""Texts that are longer than their base line, and texts whose letters are torn apart."""

from collections.abc import Iterator

from yenzo.core.documents.materials import Method
from yenzo.core.preflight.findings import Finding, found
from yenzo.core.scene.nodes import AreaScene
from yenzo.core.translation import decimal, translate


def find_too_long(area: AreaScene, _method: Method) -> Iterator[Finding]:
    """Yield a finding for each text that runs beyond its base line, with how much of it is too long."""
    for node in area.letterings:
        if node.overflow_mm:
            message = translate(
                "“{text}” is {overflow_mm} mm too long for its base line on “{area}”, even with "
                "letters {letter_height_mm} mm high. Please shorten it.",
                text=node.text,
                overflow_mm=decimal(node.overflow_mm, 1),
                area=area.name,
                letter_height_mm=decimal(node.letter_height_mm, 1),
            )
            yield found("too_long", area, node, message, measured=node.overflow_mm, limit=0)
        if node.drops_effects:
            message = translate(
                "“{text}…” is too long for the stroke, pattern or plate that it would get on "
                "“{area}”. Please shorten it.",
                text=node.text[:40],
                area=area.name,
            )
            yield found("too_long_for_effects", area, node, message)
        if node.is_tangled:
            message = translate(
                "The letters of “{text}” run into each other on “{area}” and can't be made like "
                "that. Please shorten it.",
                text=node.text,
                area=area.name,
            )
            yield found("tangled", area, node, message)
        if node.breaks_joins:
            message = translate(
                "The letters of “{text}” join each other and can't stand below each other on "
                "“{area}”. Please use other letters.",
                text=node.text,
                area=area.name,
            )
            yield found("torn_letters", area, node, message)
