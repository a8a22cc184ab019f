"""Strokes thinner, and gaps and counters narrower, than the decoration method can make."""

from collections.abc import Iterator

from yenzo.core.documents.materials import Method
from yenzo.core.preflight.findings import Finding, found
from yenzo.core.scene.nodes import AreaScene
from yenzo.core.translation import decimal, translate


def find_too_thin(area: AreaScene, method: Method) -> Iterator[Finding]:
    """Yield a finding for each text whose thinnest stroke or gap is below the method's least."""
    for node in area.letterings:
        thin = node.thin
        if thin is None:
            continue
        if method.least_stroke_mm is not None and thin.stroke_mm < method.least_stroke_mm:
            message = translate(
                "The thinnest stroke of “{stroke_at}” in “{text}” would be {stroke_mm} mm; "
                "{method} needs at least {least_stroke_mm} mm. Please pick a bolder typeface or "
                "larger letters.",
                stroke_at=thin.stroke_at,
                text=node.text,
                stroke_mm=decimal(thin.stroke_mm, 2),
                method=method.name,
                least_stroke_mm=decimal(method.least_stroke_mm),
            )
            limit = method.least_stroke_mm
            yield found("too_thin", area, node, message, measured=thin.stroke_mm, limit=limit)
        if method.least_gap_mm is not None and thin.gap_mm < method.least_gap_mm:
            message = translate(
                "The narrowest gap of “{gap_at}” in “{text}” would be {gap_mm} mm; {method} needs "
                "at least {least_gap_mm} mm. Please pick an opener typeface or larger letters.",
                gap_at=thin.gap_at,
                text=node.text,
                gap_mm=decimal(thin.gap_mm, 2),
                method=method.name,
                least_gap_mm=decimal(method.least_gap_mm),
            )
            yield found("too_narrow", area, node, message, measured=thin.gap_mm, limit=method.least_gap_mm)
