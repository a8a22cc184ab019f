"""The basket: a visitor comes in; each piece with its picture, words and price goes out."""

import uuid
from dataclasses import dataclass
from decimal import Decimal

from django.conf import settings

from yenzo.apps.designs.answers import Asking, still_asked
from yenzo.apps.designs.models import Design
from yenzo.apps.designs.personalized import Personalized, quoted_together, read_designs
from yenzo.apps.designs.to_core import entries_of, walk_entries
from yenzo.apps.orders.orderable import obstacles
from yenzo.core.asking.second_look.look import second_look
from yenzo.core.pricing.quote import Quote


@dataclass(frozen=True)
class Newer:
    """What a piece would be as its product is sold by now: its price alone, before and now, and what must be mended.

    `is_kept` tells that the customer wants the piece as it was.
    """

    revision: int
    before: Quote
    quote: Quote
    troubles: tuple[str, ...]
    is_kept: bool


@dataclass(frozen=True)
class BasketLine:
    """One design in the basket, as it is asked now; `newer` if its product is sold otherwise by now."""

    design: Design
    piece: Personalized
    newer: Newer | None = None

    @property
    def questions(self) -> tuple[Asking, ...]:
        """What is asked once more before it is ordered; nothing that was answered."""
        typed = entries_of(self.design.personalization).values
        return still_asked(second_look(self.piece.setup, self.piece.asked, typed))

    @property
    def troubles(self) -> tuple[str, ...]:
        """What keeps this line from being ordered."""
        return tuple(obstacles(self.piece))


@dataclass(frozen=True)
class Basket:
    """All that a visitor is about to order."""

    lines: tuple[BasketLine, ...]

    @property
    def total(self) -> Decimal:
        """The sum of all lines."""
        return sum((line.piece.quote.total for line in self.lines), Decimal(0))

    @property
    def currency(self) -> str:
        """The shop's currency."""
        return self.lines[0].piece.quote.currency if self.lines else settings.CURRENCY

    @property
    def is_orderable(self) -> bool:
        """Whether nothing keeps it from being ordered."""
        return bool(self.lines) and not any(line.troubles for line in self.lines)


def basket_of(visitor: uuid.UUID | None, *, signed_in: bool = False) -> Basket:
    """Return a visitor's basket."""
    designs = list(Design.objects.in_basket_of(visitor)) if visitor else []
    alone = read_designs(designs, signed_in=signed_in)
    newer = [_newer(piece, signed_in=signed_in) for piece in alone]
    return Basket(tuple(map(BasketLine, designs, quoted_together(alone), newer)))


def _newer(piece: Personalized, *, signed_in: bool) -> Newer | None:
    """Return what a piece would be of the revision that is live by now; None where there is nothing to decide."""
    live = piece.revision.product.live
    if live is None or live.pk == piece.revision.pk or piece.revision.product.is_resting:
        return None
    walked = walk_entries(live, entries_of(piece.personalization), signed_in=signed_in)
    troubles = tuple(item.message for item in walked.verdict.blocking)
    return Newer(live.pk, piece.quote, walked.quote, troubles, is_kept=piece.is_of_today)
