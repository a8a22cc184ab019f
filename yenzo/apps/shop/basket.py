"""The basket: a visitor comes in; each piece with its picture, words and price goes out."""

import uuid
from dataclasses import dataclass
from decimal import Decimal

from django.conf import settings
from django.utils.translation import gettext

from yenzo.apps.designs.models import Design
from yenzo.apps.designs.said import SaidPiece, said_piece
from yenzo.apps.designs.to_core import walk_designs
from yenzo.apps.files.store import StoredAssets
from yenzo.core.documents.setup import Variant
from yenzo.core.spine import Walked, quoted_together


@dataclass(frozen=True)
class BasketLine:
    """One design in the basket. `is_current` tells whether its revision is still the live one."""

    design: Design
    walked: Walked
    said: SaidPiece
    is_current: bool

    @property
    def variant(self) -> Variant | None:
        """The variant of the goods."""
        return self.walked.setup.offer.variant(self.walked.asked.variant)

    @property
    def troubles(self) -> tuple[str, ...]:
        """What keeps this line from being ordered."""
        product = self.design.revision.product
        changed = (gettext("The workshop has changed this product since. Please look at it again."),)
        if product.is_resting:
            changed = (gettext("The workshop doesn't sell this at the moment. What you entered is kept here."),)
        return (() if self.is_current and not product.is_resting else changed) + tuple(
            item.message for item in self.walked.verdict.blocking
        )


@dataclass(frozen=True)
class Basket:
    """All that a visitor is about to order."""

    lines: tuple[BasketLine, ...]

    @property
    def total(self) -> Decimal:
        """The sum of all lines."""
        return sum((line.walked.quote.total for line in self.lines), Decimal(0))

    @property
    def currency(self) -> str:
        """The shop's currency."""
        return self.lines[0].walked.quote.currency if self.lines else settings.CURRENCY

    @property
    def is_orderable(self) -> bool:
        """Whether nothing keeps it from being ordered."""
        return bool(self.lines) and not any(line.troubles for line in self.lines)


def basket_of(visitor: uuid.UUID | None, *, signed_in: bool = False) -> Basket:
    """Return a visitor's basket."""
    designs = list(Design.objects.in_basket_of(visitor)) if visitor else []
    alone = walk_designs(designs, StoredAssets(), signed_in=signed_in)
    walked = quoted_together([(design.product_key, one) for design, one in zip(designs, alone, strict=True)])
    return Basket(tuple(_line(design, one) for design, one in zip(designs, walked, strict=True)))


def _line(design: Design, walked: Walked) -> BasketLine:
    is_current = design.revision.product.live_id == design.revision_id
    return BasketLine(design, walked, said_piece(walked), is_current)
