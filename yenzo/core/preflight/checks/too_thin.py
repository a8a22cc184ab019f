"""Strokes thinner, and gaps and counters narrower, than the decoration method can make."""

from collections.abc import Iterator

from yenzo.core.documents.materials import Method
from yenzo.core.preflight.findings import Finding, found
from yenzo.core.scene.nodes import AreaScene


def find_too_thin(area: AreaScene, method: Method) -> Iterator[Finding]:
    """Yield a finding for each text whose thinnest stroke or gap is below the method's least."""
    for node in area.letterings:
        thin = node.thin
        if thin is None:
            continue
        if method.least_stroke_mm is not None and thin.stroke_mm < method.least_stroke_mm:
            message = (
                f"The thinnest stroke of “{thin.stroke_at}” in “{node.text}” would be {thin.stroke_mm:.2f} mm; "
                f"{method.name} needs at least {method.least_stroke_mm:g} mm. Please pick a bolder typeface or larger "
                "letters."
            )
            limit = method.least_stroke_mm
            yield found("too_thin", area, node, message, measured=thin.stroke_mm, limit=limit)
        if method.least_gap_mm is not None and thin.gap_mm < method.least_gap_mm:
            message = (
                f"The narrowest gap of “{thin.gap_at}” in “{node.text}” would be {thin.gap_mm:.2f} mm; {method.name} "
                f"needs at least {method.least_gap_mm:g} mm. Please pick an opener typeface or larger letters."
            )
            yield found("too_narrow", area, node, message, measured=thin.gap_mm, limit=method.least_gap_mm)
