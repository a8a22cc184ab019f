"""What every key asks of the database: which revision is live, what is left. Read a few times a second at most.

Customers who type at the same time share what was read. It is for previews only, which are older than that by the time
that they are seen; whatever is kept, ordered or paid reads anew.
"""

from threading import Lock

from cachetools import TTLCache, cached

from yenzo.apps.designs.request_context import pieces_left
from yenzo.apps.products.models import Product

SECONDS = 0.25
MOST_KEPT = 2000


@cached(TTLCache[str, tuple[int, str] | None](MOST_KEPT, SECONDS), lock=Lock())
def live_revision(key: str) -> tuple[int, str] | None:
    """Return what a product's live revision is called by, and its hash; None where customers see none."""
    return Product.objects.live_revision(key)


@cached(TTLCache[frozenset[str], dict[str, int]](MOST_KEPT, SECONDS), lock=Lock())
def stock(skus: frozenset[str]) -> dict[str, int]:
    """Return how many pieces are left of what is counted, by SKU."""
    return pieces_left(skus)
