"""Pieces of orders come in, walked values of the core go out. What was asked is never asked again."""

from dataclasses import replace

from yenzo.apps.catalogue.files import StoredAssets
from yenzo.apps.catalogue.to_core import setup_of_revision
from yenzo.apps.orders.models import Piece
from yenzo.core.asking.ask import Asked
from yenzo.core.documents.entries import UploadedFile
from yenzo.core.planning.work import OriginalFile, Work
from yenzo.core.pricing.quote import Quote
from yenzo.core.spine import Walked, walk_asked


def walked_of_piece(piece: Piece) -> Walked:
    """Return what follows from a piece's frozen entries, with the price as it was ordered."""
    walked = walk_asked(setup_of_revision(piece.revision), Asked.model_validate(piece.asked), StoredAssets())
    return replace(walked, quote=Quote.model_validate(piece.quote))


def work_of_piece(piece: Piece, pieces_in_order: int) -> Work:
    """Return a piece as a piece of work, ready to be packed."""
    walked = walked_of_piece(piece)
    originals = tuple(
        OriginalFile(field, value.name, value.original)
        for field, value in walked.asked.values.items()
        if isinstance(value, UploadedFile)
    )
    return Work(
        order=str(piece.order.number),
        piece=piece.number,
        pieces_in_order=pieces_in_order,
        revision=piece.revision.sha256,
        walked=walked,
        assets=StoredAssets(),
        originals=originals,
    )
