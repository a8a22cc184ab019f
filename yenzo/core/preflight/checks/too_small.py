"""Letters lower than the decoration method can make."""

from collections.abc import Iterator

from yenzo.core.documents.materials import Method
from yenzo.core.preflight.findings import Finding
from yenzo.core.scene.nodes import AreaScene


def find_too_small(area: AreaScene, method: Method) -> Iterator[Finding]:
    """Yield a finding for each text whose letter height is below the method's least."""
    for node in area.letterings:
        if node.outline and node.letter_height_mm < method.least_letter_mm - 1e-6:
            yield Finding(
                code="too_small",
                side=area.side,
                area=area.key,
                placement=node.placement,
                field=node.field,
                message=(
                    f"“{node.text}” would get letters {node.letter_height_mm:.1f} mm high; {method.name} needs at "
                    f"least {method.least_letter_mm:g} mm. Please shorten it."
                ),
                measured=round(node.letter_height_mm, 3),
                limit=method.least_letter_mm,
            )
