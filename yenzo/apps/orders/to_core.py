"""Pieces of orders come in, walked values of the core go out. What was asked is never asked again."""

from dataclasses import replace

from yenzo.apps.catalogue.to_core import setup_of_revision
from yenzo.apps.files.store import StoredAssets
from yenzo.apps.orders.models import Piece
from yenzo.core.asking.ask import Asked
from yenzo.core.documents.entries import files_of
from yenzo.core.documents.setup import Setup
from yenzo.core.planning.work import OriginalFile, Work
from yenzo.core.pricing.quote import Quote
from yenzo.core.spine import Walked, walk_asked


def walked_of_piece(piece: Piece, setup: Setup) -> Walked:
    """Return what follows from a piece's frozen entries, with the amounts as they were ordered.

    The set-up is its revision's, in the words of who reads: so are the rows of the price.
    """
    walked = walk_asked(setup, Asked.model_validate(piece.asked), StoredAssets())
    return replace(walked, quote=Quote.model_validate(piece.quote).worded_as(walked.quote))


def work_of_piece(piece: Piece, pieces_in_order: int) -> Work:
    """Return a piece as a piece of work, ready to be packed."""
    walked = walked_of_piece(piece, setup_of_revision(piece.revision))
    originals = tuple(
        OriginalFile(field, file.name, file.original)
        for field, value in walked.asked.values.items()
        for file in files_of(value)
    )
    return Work(
        order=str(piece.order.number),
        piece=piece.number,
        pieces_in_order=pieces_in_order,
        revision=piece.revision.sha256,
        walked=walked,
        assets=StoredAssets(),
        revision_number=piece.revision.number,
        originals=originals,
    )
