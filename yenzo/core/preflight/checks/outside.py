"""Ink outside its imprint area, or nearer to the edge than the safe margin."""

from collections.abc import Iterator

from yenzo.core.documents.materials import Method
from yenzo.core.preflight.findings import Finding, found
from yenzo.core.scene.nodes import AreaScene, Lettering
from yenzo.core.shapes.polygons import leaves_by
from yenzo.core.translation import decimal, translate

# Half of what geometry may differ between files; below it nobody can see or cut it.
TOLERANCE_MM = 0.01


def find_outside(area: AreaScene, _method: Method) -> Iterator[Finding]:
    """Yield a finding for each text that leaves its area or comes into the safe margin."""
    for node in area.letterings:
        ink = node.bounds
        if ink is None:
            continue
        if area.area.is_frame:
            over, near = ink.excess_over(area.trim), ink.excess_over(area.safe)
        else:
            over = max(leaves_by(layer.outline, area.trim_outline) for layer in node.layers)
            near = max(leaves_by(layer.outline, area.safe_outline) for layer in node.layers)
        if over > TOLERANCE_MM:
            yield found("outside", area, node, _outside_words(area, node, over), measured=over, limit=0)
        elif near > TOLERANCE_MM:
            message = translate(
                "“{text}” comes {near} mm into the safe margin of {safe_mm} mm on “{area}”. "
                "Shorten it or make it smaller.",
                text=node.text,
                near=decimal(near, 1),
                safe_mm=decimal(area.area.safe_mm),
                area=area.name,
            )
            yield found("near_edge", area, node, message, measured=near, limit=0)


def _outside_words(area: AreaScene, node: Lettering, over: float) -> str:
    height = decimal(node.letter_height_mm, 1).rstrip("0").rstrip(".")
    if node.line_near_edge:
        return translate(
            "“{text}” sticks out of “{area}” by {over} mm even with letters {height} mm high, though its base line is "
            "long enough. Please choose a lower typeface or other letters, or ask the workshop to move the base line.",
            text=node.text,
            area=area.name,
            over=decimal(over, 1),
            height=height,
        )
    return translate(
        "“{text}” sticks out of “{area}” by {over} mm with letters {height} mm high. "
        "Please shorten it or pick a narrower typeface.",
        text=node.text,
        area=area.name,
        over=decimal(over, 1),
        height=height,
    )
