"""Lines of orders come in, work and other values for the core go out. What was asked is never asked again."""

from yenzo.apps.designs.to_core import asked_of
from yenzo.apps.files.store import StoredAssets
from yenzo.apps.orders.models import Line
from yenzo.apps.products.to_core import setup_of_revision
from yenzo.core.documents.entries import files_of
from yenzo.core.planning.work import OriginalFile, Work
from yenzo.core.pricing.quote import Quote
from yenzo.core.spine import walk_asked


def quote_of(line: Line) -> Quote:
    """Return the price of a line as it was ordered."""
    return Quote.model_validate(line.quote)


def taken_by(line: Line) -> dict[str, int]:
    """Return how many of what, by SKU, a line took from stock."""
    return asked_of(line.personalization).taken(setup_of_revision(line.revision))


def work_of_line(line: Line, lines_in_order: int) -> Work:
    """Return a line as a piece of work, ready to be packed."""
    asked = asked_of(line.personalization)
    originals = tuple(
        OriginalFile(field, file.name, file.original)
        for field, value in asked.values.items()
        for file in files_of(value)
    )
    return Work(
        order=str(line.order.number),
        piece=line.number,
        pieces_in_order=lines_in_order,
        revision=line.revision.sha256,
        walked=walk_asked(setup_of_revision(line.revision), asked, StoredAssets()),
        assets=StoredAssets(),
        revision_number=line.revision.number,
        originals=originals,
    )
