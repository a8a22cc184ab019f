"""Letters lower than the decoration method can make."""

from collections.abc import Iterator

from yenzo.core.documents.materials import Method
from yenzo.core.preflight.findings import Finding, found
from yenzo.core.scene.nodes import AreaScene


def find_too_small(area: AreaScene, method: Method) -> Iterator[Finding]:
    """Yield a finding for each text whose letter height is below the method's least."""
    for node in area.letterings:
        if node.outline and node.letter_height_mm < method.least_letter_mm - 1e-6:
            height, least = node.letter_height_mm, method.least_letter_mm
            message = (
                f"“{node.text}” would get letters {height:.1f} mm high; {method.name} needs at least {least:g} mm. "
                "Please shorten it."
            )
            yield found("too_small", area, node, message, measured=height, limit=least)
