"""Findings: what a method can't make, or not well, of what is in a scene."""

from collections.abc import Iterator
from typing import Protocol

from yenzo.core.documents.materials import Method
from yenzo.core.documents.values import Frozen
from yenzo.core.scene.nodes import AreaScene


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


class Check(Protocol):
    """One check: an area of a scene and its method come in, findings go out."""

    def __call__(self, area: AreaScene, method: Method, /) -> Iterator[Finding]:
        """Yield what is the matter."""
        ...
