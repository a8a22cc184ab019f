"""One piece of work: what an order says of a piece, and the scene to make."""

from dataclasses import dataclass

from yenzo.core.documents.assets import Assets
from yenzo.core.evaluation import Evaluation


@dataclass(frozen=True)
class OriginalFile:
    """A customer's file as received."""

    field: str
    name: str
    sha256: str


@dataclass(frozen=True)
class Work:
    """A piece of an order, ready to be packed. `revision` is its set-up's SHA-256, the number what people call that.

    `index` tells which of its line's pieces are like this, by the first of them; of a list each row has others.
    """

    order: str
    piece: int
    pieces_in_order: int
    revision: str
    evaluation: Evaluation
    assets: Assets
    originals: tuple[OriginalFile, ...] = ()
    revision_number: int = 0
    index: int | None = None

    @property
    def number(self) -> str:
        """What stands on ticket and files: order and piece."""
        line = f"T-{self.order}-{self.piece}"
        return f"{line}.{self.index}" if self.index else line
