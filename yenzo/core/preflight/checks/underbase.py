"""White under colors that can't be taken in: strokes that are finer than what is taken in of it."""

from collections.abc import Iterator

from yenzo.core.documents.materials import Method
from yenzo.core.errors import ShapeError
from yenzo.core.preflight.findings import Finding, found
from yenzo.core.scene.nodes import AreaScene
from yenzo.core.shapes.booleans import union
from yenzo.core.shapes.necks import bears_choking
from yenzo.core.translation import decimal, translate


def find_white_edges(area: AreaScene, method: Method) -> Iterator[Finding]:
    """Yield a finding for each text with parts too fine for a choked underbase: it stays as wide as the color there."""
    choke_mm = -(method.underbase_mm or 0.0)
    if choke_mm <= 0:
        return
    for node in area.letterings:
        try:
            bears = bears_choking(union(layer.outline for layer in node.layers), choke_mm)
        except ShapeError:
            # What is tangled has a finding of its own.
            continue
        if not bears:
            message = translate(
                "Parts of “{text}” on “{area}” are so fine that the white under them can't be {choke_mm} mm narrower; "
                "it may show at their edges. Please look at it, or pick a bolder typeface or larger letters.",
                text=node.text,
                area=area.name,
                choke_mm=decimal(choke_mm),
            )
            yield found("white_edge", area, node, message, limit=choke_mm)
