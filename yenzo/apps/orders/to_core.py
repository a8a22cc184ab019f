"""Lines of orders come in, work and other values for the core go out. What was asked is never asked again."""

from collections import Counter

from yenzo.apps.designs.models import Personalization
from yenzo.apps.designs.to_core import asked_of
from yenzo.apps.files.store import StoredAssets
from yenzo.apps.orders.models import Line, Order
from yenzo.apps.products.to_core import setup_of_revision
from yenzo.core.documents.entries import Address, files_of
from yenzo.core.evaluation import evaluate_asked
from yenzo.core.planning.work import OriginalFile, Work
from yenzo.core.pricing.delivery import DeliveryWay
from yenzo.core.pricing.quote import Quote


def quote_of(line: Line) -> Quote:
    """Return the price of a line as it was ordered."""
    return Quote.model_validate(line.quote)


def invoice_address_of(order: Order) -> Address | None:
    """Return where the invoice goes, if that is elsewhere."""
    return None if order.invoice_address is None else Address.model_validate(order.invoice_address)


def way_of(order: Order) -> DeliveryWay | None:
    """Return how an order is delivered, as that was when it was ordered; None of orders of before that was asked."""
    return None if order.delivery is None else DeliveryWay.model_validate(order.delivery)


def taken_by(line: Line) -> Counter[str]:
    """Return how many of what, by SKU, a line took from stock."""
    setup, taken = setup_of_revision(line.revision), Counter[str]()
    for personalization in different_pieces(line).values():
        taken.update(asked_of(personalization).taken(setup))
    return taken


def different_pieces(line: Line) -> dict[int, Personalization]:
    """Return the personalizations of a line, each by the first of its pieces: one, or of a list one a row."""
    if not line.is_list:
        return {1: line.personalization}
    pieces = line.pieces.select_related("personalization__revision__product").order_by("-index")
    first = {piece.personalization_id: piece for piece in pieces}
    return {piece.index: piece.personalization for piece in reversed(first.values())}


def work_of(line: Line, index: int, lines_in_order: int, personalization: Personalization) -> Work:
    """Return the pieces of a line that are like its piece of this index as a piece of work, ready to be packed."""
    asked = asked_of(personalization)
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
        evaluation=evaluate_asked(setup_of_revision(line.revision), asked, StoredAssets()),
        assets=StoredAssets(),
        revision_number=line.revision.number,
        index=index if line.is_list else None,
        originals=originals,
    )
