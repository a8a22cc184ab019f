"""Findings: what a method can't make, or not well, of what is in a scene."""

from collections.abc import Iterator
from typing import Protocol

from yenzo.core.documents.materials import Method
from yenzo.core.documents.values import Frozen
from yenzo.core.scene.nodes import AreaScene, Node


class Finding(Frozen):
    """Something about a placement in an area: what was measured against which limit, and in words."""

    code: str
    side: str
    area: str
    placement: str
    field: str
    message: str
    measured: float | None = None
    limit: float | None = None


def found(
    code: str,
    area: AreaScene,
    node: Node,
    message: str,
    *,
    measured: float | None = None,
    limit: float | None = None,
) -> Finding:
    """Return the finding about what lies in an area; what was measured is rounded to a thousandth."""
    return Finding(
        code=code,
        side=area.side,
        area=area.key,
        placement=node.placement,
        field=node.field,
        message=message,
        measured=None if measured is None else round(measured, 3),
        limit=limit,
    )


class Check(Protocol):
    """One check: an area of a scene and its method come in, findings go out."""

    def __call__(self, area: AreaScene, method: Method, /) -> Iterator[Finding]:
        """Yield what is the matter."""
        ...
