"""Colors that one tool, or a plate of one color, can't tell apart."""

from collections.abc import Iterator

from yenzo.core.documents.materials import Method
from yenzo.core.preflight.findings import Finding, found
from yenzo.core.scene.inking import Inked, merged, one_tool, tool_of
from yenzo.core.scene.nodes import AreaScene
from yenzo.core.translation import translate


def find_merging(area: AreaScene, method: Method) -> Iterator[Finding]:
    """Yield a finding for each thing that lies in another color on what the same tool makes."""
    if not method.one_color and "dxf" not in method.files:
        return
    told: set[str] = set()
    for lower, upper in merged(area, one_tool if method.one_color else tool_of):
        if upper.node.placement not in told:
            told.add(upper.node.placement)
            yield found("merges", area, upper.node, _words(area, method, lower, upper))


def _words(area: AreaScene, method: Method, lower: Inked, upper: Inked) -> str:
    return translate(
        "“{text}” lies on “{area}” in {color} on {other}; {method} makes both alike, so that nobody could tell them "
        "apart. Please choose the color of the goods for one, or take one away.",
        text=upper.node.text,
        area=area.name,
        color=_name(upper),
        other=_name(lower),
        method=method.name,
    )


def _name(one: Inked) -> str:
    return one.layer.paint.colors[0].name or one.color
