"""What a drawing of contours or plates of one color can't hold, on areas whose method wants those."""

from collections.abc import Iterator

from yenzo.core.documents.materials import Method
from yenzo.core.preflight.findings import Finding, found
from yenzo.core.scene.nodes import AreaScene
from yenzo.core.scene.paints import GradientPaint
from yenzo.core.translation import translate


def find_without_contours(area: AreaScene, method: Method) -> Iterator[Finding]:
    """Yield a finding for each picture and each gradient when a DXF file or plates are wanted."""
    if "dxf" not in method.files and not method.is_plates:
        return
    for picture in area.pictures:
        message = translate(
            "“{name}” is a picture; {method} follows outlines and can't make it. Please send "
            "a drawing (SVG or PDF) of one, or leave it out.",
            name=picture.name,
            method=method.name,
        )
        yield found("no_contours", area, picture, message)
    for node in area.painted:
        if any(isinstance(layer.paint, GradientPaint) for layer in node.layers):
            message = translate(
                "“{text}” goes over from one color into another; {method} follows outlines only.",
                text=node.text,
                method=method.name,
            )
            yield found("no_contours", area, node, message)
