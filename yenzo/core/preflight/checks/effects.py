"""Lines and patterns of texts that are drawn finer than the decoration method can make."""

from collections.abc import Iterator

from yenzo.core.documents.materials import Method
from yenzo.core.preflight.findings import Finding, found
from yenzo.core.scene.inking import one_tool, tool_of
from yenzo.core.scene.nodes import AreaScene
from yenzo.core.scene.paints import Paint
from yenzo.core.translation import decimal, translate

ROUNDING_MM = 1e-6


def find_fine_effects(area: AreaScene, method: Method) -> Iterator[Finding]:
    """Yield a finding for each line round letters, and each pattern in them, below the method's least stroke or gap."""
    limits = [("too_thin", method.least_stroke_mm, 0), ("too_narrow", method.least_gap_mm, 1)]
    tool = one_tool if method.one_color else tool_of
    for node in area.letterings:
        for layer in node.effects:
            # In the letters' own color it only makes them thicker.
            is_own = isinstance(layer.paint, Paint) and tool(layer.paint) == tool(node.paint)
            if layer.detail is None or is_own:
                continue
            for code, limit, which in limits:
                drawn_mm = layer.detail[which]
                if limit is not None and drawn_mm < limit - ROUNDING_MM:
                    message = translate(
                        "What is drawn in or round the letters of “{text}” would be {drawn} mm fine; {method} needs at "
                        "least {least} mm. Please take a wider line or pattern, or none.",
                        text=node.text,
                        drawn=decimal(drawn_mm, 2),
                        method=method.name,
                        least=decimal(limit),
                    )
                    yield found(code, area, node, message, measured=drawn_mm, limit=limit)
                    break
