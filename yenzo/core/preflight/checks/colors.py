"""More colors than the decoration method has, or a color that goes over into another where it can't."""

from collections.abc import Iterator

from yenzo.core.documents.materials import Method
from yenzo.core.preflight.findings import Finding, found
from yenzo.core.scene.nodes import AreaScene
from yenzo.core.scene.paints import GradientPaint
from yenzo.core.translation import translate


def find_without_process(area: AreaScene, method: Method) -> Iterator[Finding]:
    """Yield a finding for each thing in a color of which nobody has said how it is printed in process colors."""
    if not method.cmyk:
        return
    for node in area.painted:
        lacking = [
            paint
            for layer in node.layers
            for paint in layer.paint.colors
            if paint.cmyk is None and not (method.spot_colors and paint.name)
        ]
        if lacking:
            message = translate(
                "“{text}” is in {color}, of which it isn't said how {method} prints it in process colors. "
                "Please choose another color.",
                text=node.text,
                color=lacking[0].name or lacking[0].screen,
                method=method.name,
            )
            yield found("no_process", area, node, message)


def find_colors(area: AreaScene, method: Method) -> Iterator[Finding]:
    """Yield a finding for what brings one color too many, and for each gradient that the method can't make."""
    seen: dict[str, None] = {}
    for node in area.painted:
        for layer in node.layers:
            seen |= dict.fromkeys(paint.screen for paint in layer.paint.colors)
            if isinstance(layer.paint, GradientPaint) and not method.gradients:
                message = translate(
                    "“{text}” goes over from one color into another, which {method} can't make. "
                    "Please choose one color.",
                    text=node.text,
                    method=method.name,
                )
                yield found("gradient", area, node, message)
        if method.most_colors is not None and len(seen) > method.most_colors:
            message = translate(
                "With “{text}” there are {count} colors on “{area}”; {method} makes "
                "{most_colors} at most. Please use fewer.",
                text=node.text,
                count=len(seen),
                area=area.name,
                method=method.name,
                most_colors=method.most_colors,
            )
            yield found("too_many_colors", area, node, message, measured=len(seen), limit=method.most_colors)
            return
