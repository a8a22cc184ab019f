"""Lines of orders come in, work for the core goes out. What was asked is never asked again."""

from yenzo.apps.files.store import StoredAssets
from yenzo.apps.orders.models import Line
from yenzo.apps.products.to_core import setup_of_revision
from yenzo.core.asking.ask import Asked
from yenzo.core.documents.entries import files_of
from yenzo.core.planning.work import OriginalFile, Work
from yenzo.core.spine import walk_asked


def work_of_line(line: Line, lines_in_order: int) -> Work:
    """Return a line as a piece of work, ready to be packed."""
    asked = Asked.model_validate(line.personalization.asked)
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
