"""Letters lower than the decoration method can make."""

from collections.abc import Iterator

from yenzo.core.documents.materials import Method
from yenzo.core.preflight.findings import Finding, found
from yenzo.core.scene.nodes import AreaScene
from yenzo.core.translation import decimal, translate

ROUNDING_MM = 1e-6


def find_too_small(area: AreaScene, method: Method) -> Iterator[Finding]:
    """Yield a finding for each text whose letter height, or lowest letter, is below the method's least."""
    for node in area.letterings:
        if node.outline and node.letter_height_mm < method.least_letter_mm - ROUNDING_MM:
            height, least = node.letter_height_mm, method.least_letter_mm
            message = translate(
                "“{text}” would get letters {height} mm high; {method} needs at least {least} mm. Please shorten it.",
                text=node.text,
                height=decimal(height, 1),
                method=method.name,
                least=decimal(least),
            )
            yield found("too_small", area, node, message, measured=height, limit=least)
        elif node.lowest is not None and node.lowest.height_mm < method.least_of_small_mm - ROUNDING_MM:
            height, least = node.lowest.height_mm, method.least_of_small_mm
            message = translate(
                "The “{letter}” in “{text}” would be {height} mm high; {method} needs at least {least} mm. Please "
                "write capitals, or shorten it.",
                letter=node.lowest.at,
                text=node.text,
                height=decimal(height, 1),
                method=method.name,
                least=decimal(least),
            )
            yield found("too_small", area, node, message, measured=height, limit=least)
