"""Texts whose color hardly differs from that of the goods under them."""

from collections.abc import Iterator

from yenzo.core.documents.materials import Method
from yenzo.core.preflight.findings import Finding, found
from yenzo.core.scene.contrast import contrast_of
from yenzo.core.scene.nodes import AreaScene
from yenzo.core.scene.paints import Paint
from yenzo.core.translation import translate

# Contrast as WCAG 2.2 defines it: 1 for the same luminance, 21 for black on white. Words for reading need 4.5;
# below this one even large letters are lost.
LEAST_CONTRAST = 1.4


def find_hardly_seen(area: AreaScene, method: Method) -> Iterator[Finding]:
    """Yield a finding for each plain text in a color too near to the goods', unless its depth shows it."""
    if area.ground is None or method.relief:
        return
    for node in area.letterings:
        if node.effects or node.undecided or not isinstance(node.paint, Paint) or not node.outline:
            continue
        contrast = contrast_of(node.paint.screen, area.ground)
        if contrast < LEAST_CONTRAST:
            message = translate(
                "“{text}” in {color} will hardly show on “{area}”. A color that differs more "
                "from the goods reads better.",
                text=node.text,
                color=node.paint.name or translate("this color"),
                area=area.name,
            )
            yield found("hardly_seen", area, node, message, measured=contrast, limit=LEAST_CONTRAST)


def find_on_own_plate(area: AreaScene, _method: Method) -> Iterator[Finding]:
    """Yield a finding for each text in a color too near to that of the plate behind it."""
    for node in area.letterings:
        plates = [layer.paint for layer in node.effects if layer.role == "plate"]
        if node.undecided or not plates or any(layer.role == "stroke" for layer in node.effects):
            continue
        contrast = contrast_of(node.paint.screen, plates[0].colors[0].screen)
        if contrast < LEAST_CONTRAST:
            message = translate(
                "“{text}” in {color} will hardly show on its plate. Please choose another color for one of them.",
                text=node.text,
                color=node.paint.name or translate("this color"),
            )
            yield found("hardly_seen", area, node, message, measured=contrast, limit=LEAST_CONTRAST)
