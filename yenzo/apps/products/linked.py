"""Extras that are products of the shop: a document comes in; the same goes out, with what each of them costs now.

A set-up stays whole by itself: price, SKU and picture are written into it, and a revision keeps them as they were.
"""

from typing import Any

from yenzo.apps.products.models import Product
from yenzo.core.documents.fields import ExtraField
from yenzo.core.documents.setup import Setup

PICTURES = ("live__document__offer__picture", "live__document__sides__0__picture")
SHOWN = ("key", "live__base_price", "live__document__offer__sku", *PICTURES)


def with_linked(document: dict[str, Any]) -> dict[str, Any]:
    """Return a document whose linked extras have price, SKU and picture of what is in the shop under their keys."""
    keys = {field["product"] for field in document.get("fields", ()) if field.get("product")}
    if not keys:
        return document
    found = {facts["key"]: facts for facts in Product.objects.live().filter(key__in=keys).values(*SHOWN)}
    fields = [_linked(field, found.get(field.get("product"))) for field in document["fields"]]
    return {**document, "fields": fields}


def as_published(own: dict[str, Any], published: dict[str, Any]) -> dict[str, Any]:
    """Return what a product had of its own with its linked extras as they were when it was published."""
    were = {field["key"]: field for field in published["fields"] if field.get("product")}
    fields = [were.get(field["key"], field) if field.get("product") else field for field in own.get("fields", ())]
    return {**own, "fields": fields}


def not_in_shop(setup: Setup) -> list[str]:
    """Return, in words, each extra whose product customers can't have."""
    linked = [field for field in setup.fields if isinstance(field, ExtraField) and field.product]
    if not linked:
        return []
    there = set(Product.objects.live().values_list("key", flat=True))
    return [
        f"“{field.label}” is a product that isn't in the shop now. Publish it, pick another one, or type in a price."
        for field in linked
        if field.product not in there
    ]


def _linked(field: dict[str, Any], facts: dict[str, Any] | None) -> dict[str, Any]:
    if facts is None:
        return field
    picture = field.get("picture") or next((facts[name] for name in PICTURES if facts[name]), None)
    sku = facts["live__document__offer__sku"] or ""
    shown = {"picture": picture} if picture else {}
    return {**field, "price": f"{facts['live__base_price']:f}", "sku": sku, **shown}
