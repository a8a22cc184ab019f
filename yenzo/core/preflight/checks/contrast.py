"""Texts whose color hardly differs from that of the goods under them."""

from collections.abc import Iterator

from yenzo.core.documents.materials import Method
from yenzo.core.preflight.findings import Finding, found
from yenzo.core.scene.nodes import AreaScene
from yenzo.core.scene.paints import Paint
from yenzo.core.speaking import say

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
            message = say(
                "“{text}” in {color} will hardly show on “{area}”. A color that differs more "
                "from the goods reads better.",
                text=node.text,
                color=node.paint.name or say("this color"),
                area=area.name,
            )
            yield found("hardly_seen", area, node, message, measured=contrast, limit=LEAST_CONTRAST)


def contrast_of(first: str, second: str) -> float:
    """Return the contrast of two colors written #rrggbb (WCAG 2.2, contrast ratio)."""
    light, dark = sorted((_luminance(first), _luminance(second)), reverse=True)
    return (light + 0.05) / (dark + 0.05)


def _luminance(color: str) -> float:
    shares = [int(color[at : at + 2], 16) / 255 for at in (1, 3, 5)]
    red, green, blue = (share / 12.92 if share <= 0.04045 else ((share + 0.055) / 1.055) ** 2.4 for share in shares)
    return 0.2126 * red + 0.7152 * green + 0.0722 * blue
