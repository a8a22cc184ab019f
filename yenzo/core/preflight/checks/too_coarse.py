"""Artwork whose resolution at the placed size is below what the method needs, or below what looks good."""

from collections.abc import Iterator

from yenzo.core.documents.materials import Method
from yenzo.core.preflight.findings import Finding, found
from yenzo.core.scene.nodes import AreaScene
from yenzo.core.translation import decimal, translate


def find_too_coarse(area: AreaScene, method: Method) -> Iterator[Finding]:
    """Yield a finding for each picture that is too coarse, or coarser than good."""
    for node in area.pictures:
        if node.dpi < method.least_dpi:
            message = translate(
                "“{name}” comes out at {dpi} dpi at this size; {method} needs at least "
                "{least_dpi} dpi. Please pick a picture with more pixels.",
                name=node.name,
                dpi=decimal(node.dpi, 0),
                method=method.name,
                least_dpi=decimal(method.least_dpi),
            )
            yield found("too_coarse", area, node, message, measured=node.dpi, limit=method.least_dpi)
        elif node.dpi < method.good_dpi:
            message = translate(
                "“{name}” comes out at {dpi} dpi at this size and will look soft; it is sharp from {good_dpi} dpi on.",
                name=node.name,
                dpi=decimal(node.dpi, 0),
                good_dpi=decimal(method.good_dpi),
            )
            yield found("coarse", area, node, message, measured=node.dpi, limit=method.good_dpi)
