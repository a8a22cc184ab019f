"""How a count of stock is taken back."""

from typing import Any

from yenzo.apps.history.interface import Keeper, keep_history
from yenzo.apps.stock.models import StockItem


def _read_stock(subject: str) -> Any:
    skus = subject.split("\n")
    # In the order in which orders take them, so that neither waits for the other.
    items = StockItem.objects.select_for_update().filter(sku__in=skus).order_by("sku")
    counted = {item.sku: item.pieces for item in items}
    return {sku: counted.get(sku) for sku in skus}


def _write_stock(_subject: str, counts: Any) -> None:
    StockItem.objects.filter(sku__in=[sku for sku, pieces in counts.items() if pieces is None]).delete()
    for sku, pieces in counts.items():
        if pieces is not None:
            StockItem.objects.update_or_create(sku=sku, defaults={"pieces": pieces})


def register() -> None:
    """Say so."""
    keep_history("stock", Keeper(_read_stock, _write_stock))
