"""What a node says of the hand: what may be done with it, what was done, and what came of that."""

from dataclasses import dataclass
from typing import Literal

from yenzo.core.documents.entries import Adjustment
from yenzo.core.documents.freedoms import Freedoms
from yenzo.core.documents.own_items import OwnItem
from yenzo.core.shapes.box import Box
from yenzo.core.shapes.matrix import Matrix

# What kept something from going where the hand wanted it: its area's edge, its size, or how far it may be turned.
Stop = Literal["edge", "size", "turn"]
Polygon = tuple[tuple[float, float], ...]


@dataclass(frozen=True)
class Moved:
    """Where something lies that customers may change.

    `start` is the box of where its placement puts it, in mm of its area, and `matrix` the map from there to where it
    lies; `adjustment` is what was done by hand, as far as it could be. `shifts` is the polygon of all shifts that it
    could have, turned and sized as it is; none is known of areas that aren't convex. An own item stands there as it
    came to lie.
    """

    free: Freedoms
    adjustment: Adjustment
    start: Box
    matrix: Matrix
    shifts: Polygon = ()
    stops: tuple[Stop, ...] = ()
    item: OwnItem | None = None
