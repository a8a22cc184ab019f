"""Pictures with see-through parts where the decoration method has none."""

from collections.abc import Iterator

from yenzo.core.documents.materials import Method
from yenzo.core.preflight.findings import Finding, found
from yenzo.core.scene.nodes import AreaScene
from yenzo.core.translation import translate


def find_see_through(area: AreaScene, method: Method) -> Iterator[Finding]:
    """Yield a finding for each picture whose see-through parts come out white."""
    if method.transparency:
        return
    for node in area.pictures:
        if node.see_through:
            message = translate(
                "“{name}” has see-through parts; {method} makes them white.", name=node.name, method=method.name
            )
            yield found("see_through", area, node, message)
