"""What the core may not fetch itself: the day in the workshop's own time zone, and what is left in stock."""

from collections.abc import Callable, Iterable

from django.utils import timezone

from yenzo.apps.stock.models import StockItem
from yenzo.core.asking.ask import Context, stock_skus
from yenzo.core.documents.setup import Setup


def pieces_left(skus: frozenset[str]) -> dict[str, int]:
    """Return how many pieces are left of what is counted, by SKU."""
    return dict(StockItem.objects.filter(sku__in=skus).values_list("sku", "pieces")) if skus else {}


def request_context(
    setups: Iterable[Setup], *, signed_in: bool, stock: Callable[[frozenset[str]], dict[str, int]] = pieces_left
) -> Context:
    """Return the context of a request that is answered now, with the stock of all its set-ups, asked for once."""
    skus = frozenset(sku for setup in setups for sku in stock_skus(setup))
    return Context(today=timezone.localdate(), stock=stock(skus), signed_in=signed_in)
