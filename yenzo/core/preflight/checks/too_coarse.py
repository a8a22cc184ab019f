"""Artwork whose resolution at the placed size is below what the method needs, or below what looks good."""

from collections.abc import Iterator

from yenzo.core.documents.materials import Method
from yenzo.core.preflight.findings import Finding
from yenzo.core.scene.nodes import AreaScene, PlacedPicture


def find_too_coarse(area: AreaScene, method: Method) -> Iterator[Finding]:
    """Yield a finding for each picture that is too coarse, or coarser than good."""
    for node in area.pictures:
        if node.dpi < method.least_dpi:
            message = (
                f"“{node.name}” comes out at {node.dpi:.0f} dpi at this size; {method.name} needs at least "
                f"{method.least_dpi:g} dpi. Please pick a picture with more pixels."
            )
            yield _finding("too_coarse", area, node, method.least_dpi, message)
        elif node.dpi < method.good_dpi:
            message = (
                f"“{node.name}” comes out at {node.dpi:.0f} dpi at this size and will look soft; it is sharp from "
                f"{method.good_dpi:g} dpi on."
            )
            yield _finding("coarse", area, node, method.good_dpi, message)


def _finding(code: str, area: AreaScene, node: PlacedPicture, limit: float, message: str) -> Finding:
    return Finding(
        code=code,
        side=area.side,
        area=area.key,
        placement=node.placement,
        field=node.field,
        message=message,
        measured=round(node.dpi, 1),
        limit=limit,
    )
