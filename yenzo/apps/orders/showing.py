"""Pieces as pages, tickets and mails show them: a piece comes in, its pictures, entries and price go out."""

from dataclasses import dataclass
from functools import cached_property

from yenzo.apps.catalogue.to_core import shop_setup
from yenzo.apps.orders.models import Piece
from yenzo.apps.orders.to_core import walked_of_piece
from yenzo.core.asking.words import SaidEntry, say_entries
from yenzo.core.documents.setup import Variant
from yenzo.core.spine import Walked


@dataclass(frozen=True)
class ShownPiece:
    """A piece of an order with all that is shown of it."""

    piece: Piece

    @cached_property
    def walked(self) -> Walked:
        """What follows from its entries."""
        return walked_of_piece(self.piece, shop_setup(self.piece.revision))

    @property
    def entries(self) -> tuple[SaidEntry, ...]:
        """Its entries in words."""
        return say_entries(self.walked.setup, self.walked.asked)

    @property
    def variant(self) -> Variant | None:
        """The variant of the goods."""
        return self.walked.setup.offer.variant(self.walked.asked.variant)
