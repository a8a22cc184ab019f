"""What the core may not fetch itself: the day in the workshop's own time zone, and what is left in stock."""

from django.utils import timezone

from yenzo.apps.catalogue.models import StockItem
from yenzo.core.asking.ask import Context


def context_now(*, signed_in: bool) -> Context:
    """Return the context of a request that is answered now."""
    stock = dict(StockItem.objects.values_list("sku", "pieces"))
    return Context(today=timezone.localdate(), stock=stock, signed_in=signed_in)
