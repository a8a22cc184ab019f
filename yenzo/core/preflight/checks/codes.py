"""Codes that no telephone could read: too fine for the method, too pale, or light on dark."""

from collections.abc import Iterator

from yenzo.core.artwork.codes import least_module_mm
from yenzo.core.documents.materials import Method
from yenzo.core.preflight.findings import Finding, found
from yenzo.core.scene.contrast import luminance
from yenzo.core.scene.nodes import AreaScene
from yenzo.core.translation import decimal, translate

# Of ground to ink: half of it is lost on a crumpled bag in the shade.
LEAST_CONTRAST = 3.0


def find_unreadable_codes(area: AreaScene, method: Method) -> Iterator[Finding]:
    """Yield a finding for each code whose modules are too small, or whose color is too near to the ground's."""
    least = least_module_mm(method.least_stroke_mm, method.least_gap_mm)
    for node in area.drawings:
        if node.code is None:
            continue
        module_mm = node.size_mm[0] / node.code.modules
        if module_mm < least - 1e-6:
            message = translate(
                "The code “{text}” could not be read at this size: its squares are {module} mm, and {least} mm are "
                "needed. Make it {wide} mm wide, or give it less to say.",
                text=node.code.text,
                module=decimal(module_mm, 2),
                least=decimal(least, 2),
                wide=decimal(least * node.code.modules + 0.5, 0),
            )
            yield found("unreadable_code", area, node, message, measured=module_mm, limit=least)
        contrast = _contrast(area.ground, node.paint.screen if node.paint else "#000000")
        if not method.relief and area.ground is not None and contrast < LEAST_CONTRAST:
            message = translate(
                "The code “{text}” could not be read: its color is too near to that of the goods, or lighter. Please "
                "choose a darker one.",
                text=node.code.text,
            )
            yield found("pale_code", area, node, message, measured=contrast, limit=LEAST_CONTRAST)


def _contrast(ground: str | None, ink: str) -> float:
    """Return how much lighter the ground is than the ink (WCAG's contrast ratio; below 1 where it is darker)."""
    return (luminance(ground or "#ffffff") + 0.05) / (luminance(ink) + 0.05)
