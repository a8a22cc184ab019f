"""Artwork whose resolution at the placed size is below what the method needs, or below what looks good."""

from collections.abc import Iterator

from yenzo.core.documents.materials import Method
from yenzo.core.preflight.findings import Finding, found
from yenzo.core.scene.nodes import AreaScene


def find_too_coarse(area: AreaScene, method: Method) -> Iterator[Finding]:
    """Yield a finding for each picture that is too coarse, or coarser than good."""
    for node in area.pictures:
        if node.dpi < method.least_dpi:
            message = (
                f"“{node.name}” comes out at {node.dpi:.0f} dpi at this size; {method.name} needs at least "
                f"{method.least_dpi:g} dpi. Please pick a picture with more pixels."
            )
            yield found("too_coarse", area, node, message, measured=node.dpi, limit=method.least_dpi)
        elif node.dpi < method.good_dpi:
            message = (
                f"“{node.name}” comes out at {node.dpi:.0f} dpi at this size and will look soft; it is sharp from "
                f"{method.good_dpi:g} dpi on."
            )
            yield found("coarse", area, node, message, measured=node.dpi, limit=method.good_dpi)
