"""The basket: a visitor comes in; each piece with its picture, words and price goes out."""

import uuid
from collections.abc import Iterator, Sequence
from dataclasses import dataclass
from decimal import Decimal
from functools import cached_property
from itertools import islice

from django.conf import settings

from yenzo.apps.designs.answers import Asking, still_asked
from yenzo.apps.designs.differing import what_differs
from yenzo.apps.designs.in_words import PieceInWords, told_apart
from yenzo.apps.designs.models import Design, NameList
from yenzo.apps.designs.personalized import Personalized, quoted_together, read_designs, read_rows
from yenzo.apps.designs.to_core import entries_of, evaluate_entries
from yenzo.apps.orders.orderable import obstacles
from yenzo.apps.orders.services.orders import IntakeLine
from yenzo.core.asking.second_look.look import second_look
from yenzo.core.asking.words import EntryInWords
from yenzo.core.documents.setup import Setup
from yenzo.core.pricing.order import quote_of_list
from yenzo.core.pricing.quote import Quote
from yenzo.core.record import Recorded, record_of


@dataclass(frozen=True)
class Newer:
    """What a piece would be as its product is sold by now: its price alone, before and now, and what must be mended.

    `is_kept` tells that the customer wants the piece as it was; `differs` says in words what is otherwise now.
    """

    revision: int
    before: Quote
    quote: Quote
    troubles: tuple[str, ...]
    is_kept: bool
    differs: tuple[str, ...] = ()


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
class BasketList:
    """A list of names in the basket, its rows as they are asked now."""

    names: NameList
    pieces: tuple[Personalized, ...]

    @property
    def setup(self) -> Setup:
        """The set-up of its goods."""
        return self.pieces[0].setup

    @cached_property
    def _told_apart(self) -> tuple[tuple[EntryInWords, ...], tuple[PieceInWords, ...]]:
        return told_apart([piece.in_words for piece in self.pieces])

    @property
    def shared(self) -> tuple[EntryInWords, ...]:
        """The entries that all its rows share."""
        return self._told_apart[0]

    @property
    def rows(self) -> tuple[tuple[Personalized, PieceInWords], ...]:
        """Its rows, each with what it has of its own in words."""
        return tuple(zip(self.pieces, self._told_apart[1], strict=True))

    @property
    def quote(self) -> Quote:
        """What all its rows cost."""
        return quote_of_list([piece.quote for piece in self.pieces])

    @property
    def troubles(self) -> tuple[str, ...]:
        """What keeps it from being ordered, each once."""
        return tuple(dict.fromkeys(trouble for piece in self.pieces for trouble in obstacles(piece)))


@dataclass(frozen=True)
class Basket:
    """All that a visitor is about to order."""

    lines: tuple[BasketLine, ...]
    lists: tuple[BasketList, ...] = ()

    @property
    def quotes(self) -> tuple[Quote, ...]:
        """The price of each line and list."""
        return (*(line.piece.quote for line in self.lines), *(one.quote for one in self.lists))

    @property
    def setups(self) -> list[Setup]:
        """The set-ups of all goods in it."""
        return [*(line.piece.setup for line in self.lines), *(one.setup for one in self.lists)]

    @property
    def total(self) -> Decimal:
        """The sum of all lines."""
        return sum((quote.total for quote in self.quotes), Decimal(0))

    @property
    def currency(self) -> str:
        """The shop's currency."""
        return next((quote.currency for quote in self.quotes), settings.CURRENCY)

    @property
    def is_empty(self) -> bool:
        """Whether nothing lies in it."""
        return not self.lines and not self.lists

    @property
    def _troubles(self) -> Iterator[tuple[str, ...]]:
        yield from (line.troubles for line in self.lines)
        yield from (one.troubles for one in self.lists)

    @property
    def is_orderable(self) -> bool:
        """Whether nothing keeps it from being ordered."""
        return not self.is_empty and not any(self._troubles)


def basket_of(visitor: uuid.UUID | None, *, signed_in: bool = False) -> Basket:
    """Return a visitor's basket."""
    designs = list(Design.objects.in_basket_of(visitor)) if visitor else []
    lists = list(NameList.objects.in_basket_of(visitor)) if visitor else []
    alone = read_designs(designs, signed_in=signed_in)
    newer = [_newer(piece, signed_in=signed_in) for piece in alone]
    lines = intake_lines(alone, lists, signed_in=signed_in)
    single, listed = lines[: len(designs)], lines[len(designs) :]
    return Basket(
        tuple(
            BasketLine(design, line.pieces[0], new) for design, line, new in zip(designs, single, newer, strict=True)
        ),
        tuple(BasketList(names, line.pieces) for names, line in zip(lists, listed, strict=True)),
    )


def intake_lines(alone: Sequence[Personalized], lists: Sequence[NameList], *, signed_in: bool) -> list[IntakeLine]:
    """Return what is ordered together: pieces that lie there by themselves, then lists, all with their prices."""
    rows = [read_rows(names, signed_in=signed_in) for names in lists]
    together = [(piece, "") for piece in alone]
    together += [(piece, str(names.pk)) for names, pieces in zip(lists, rows, strict=True) for piece in pieces]
    quoted = iter(quoted_together(together))
    lines = [IntakeLine((next(quoted),)) for _ in alone]
    lines += [IntakeLine(tuple(islice(quoted, len(own))), names) for names, own in zip(lists, rows, strict=True)]
    return lines


def _newer(piece: Personalized, *, signed_in: bool) -> Newer | None:
    """Return what a piece would be of the revision that is live by now; None where there is nothing to decide."""
    live = piece.revision.product.live
    if live is None or live.pk == piece.revision.pk or piece.revision.product.is_resting:
        return None
    evaluation = evaluate_entries(live, entries_of(piece.personalization), signed_in=signed_in)
    troubles = tuple(item.message for item in evaluation.verdict.blocking)
    now = Recorded(evaluation.setup, evaluation.asked, record_of(evaluation))
    differs = what_differs(piece.recorded, piece.quote, now, evaluation.quote)
    return Newer(live.pk, piece.quote, evaluation.quote, troubles, is_kept=piece.is_of_today, differs=differs)
