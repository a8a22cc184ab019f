"""Stock: counted by the workshop, taken by orders, given back by what is cancelled."""

from collections.abc import Mapping

from django.db import transaction
from django.utils.translation import gettext

from yenzo.apps.accounts.rights import ALL_ROLES, SELLERS, SYSTEM, Actor, service
from yenzo.apps.history.services.changes import recorded
from yenzo.apps.pages.errors import AppError
from yenzo.apps.stock.models import StockItem


class OutOfStockError(AppError):
    """There are fewer left than are wanted; the message says of what."""


@service(*SELLERS)
def count_stock(actor: Actor, counts: Mapping[str, int | None]) -> None:
    """Say how many are left by SKU; None means that it isn't counted."""
    with recorded(actor, "stock", "\n".join(sorted(counts)), "Stock counted"):
        for sku, pieces in counts.items():
            if pieces is None:
                StockItem.objects.filter(sku=sku).delete()
            else:
                StockItem.objects.update_or_create(sku=sku, defaults={"pieces": pieces})


@service(*(role for role in ALL_ROLES if role != SYSTEM))
def take_stock(actor: Actor, wanted: Mapping[str, int]) -> None:  # noqa: ARG001
    """Take what an order needs of what is counted; raises OutOfStockError, and then nothing is taken."""
    with transaction.atomic():
        for item in StockItem.objects.select_for_update().filter(sku__in=wanted).order_by("sku"):
            if item.pieces < wanted[item.sku]:
                raise OutOfStockError(
                    gettext("Of {sku} only {count} are left. Somebody may have ordered just now.").format(
                        sku=item.sku, count=item.pieces
                    )
                )
            item.pieces -= wanted[item.sku]
            item.save(update_fields=["pieces", "changed_at"])


@service(*(role for role in ALL_ROLES if role != SYSTEM))
def return_stock(actor: Actor, given_back: Mapping[str, int]) -> None:  # noqa: ARG001
    """Put back what a cancelled order had taken of what is counted."""
    with transaction.atomic():
        for item in StockItem.objects.select_for_update().filter(sku__in=given_back).order_by("sku"):
            item.pieces += given_back[item.sku]
            item.save(update_fields=["pieces", "changed_at"])
