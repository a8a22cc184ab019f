"""Products: made, copied, taken out of the shop, put in categories."""

from collections.abc import Sequence
from decimal import Decimal
from typing import Any

from django.db import transaction

from yenzo.apps.accounts.rights import SELLERS, Actor, service
from yenzo.apps.products.examples import begin_from
from yenzo.apps.products.models import Product
from yenzo.apps.products.models.products import MOST_IN_A_CATEGORY
from yenzo.apps.products.services.drafts import edit_draft
from yenzo.apps.products.to_core import read_draft
from yenzo.core.documents.edits import free_key
from yenzo.core.documents.reading import read_setup
from yenzo.core.pricing.helper import Costs

MOST_IN_A_NAME = 200


@service(*SELLERS)
def create_product(
    actor: Actor,  # noqa: ARG001
    *,
    name: str,
    base_price: Decimal,
    currency: str,
    picture: dict[str, Any] | None,
    example: str = "",
) -> Product:
    """Make a product: with one side out of a picture that `add_goods_picture` has taken, perhaps from an example."""
    document: dict[str, Any] = {
        "schema": "yenzo-setup/1",
        "offer": {"name": name, "base_price": str(base_price), "currency": currency},
        "sides": [{"key": "front", "name": "Front", "picture": picture}] if picture else [],
    }
    setup = read_draft(document)
    return insert_product({**document, **begin_from(setup, example)})


@service(*SELLERS)
def import_product(actor: Actor, document: dict[str, Any], *, key: str) -> Product:  # noqa: ARG001
    """Make a product out of a whole set-up document; its pictures must be stored already."""
    draft = {name: value for name, value in document.items() if name != "materials"}
    read_setup(draft)
    return insert_product(draft, key)


@service(*SELLERS)
def duplicate_product(actor: Actor, product_id: int) -> Product:  # noqa: ARG001
    """Make a product with the same draft under another name; it isn't live."""
    original = Product.objects.get(pk=product_id)
    offer = {**original.draft["offer"], "name": f"{original.name} (copy)"[:MOST_IN_A_NAME], "sku": ""}
    return insert_product({**original.draft, "offer": offer})


@service(*SELLERS)
def delete_drafts(actor: Actor, product_ids: Sequence[int]) -> int:  # noqa: ARG001
    """Delete products that were never published, for good; return how many. What was ever published stays."""
    with transaction.atomic():
        ticked = Product.objects.select_for_update(of=("self",)).filter(pk__in=product_ids, live__isnull=True)
        drafts = [draft for draft in ticked if not draft.revisions.exists()]
        for draft in drafts:
            draft.delete()
    return len(drafts)


@service(*SELLERS)
def save_costs(actor: Actor, product_id: int, costs: Costs) -> None:  # noqa: ARG001
    """Keep what a product costs the workshop; no draft or revision has it."""
    document = costs.model_dump(mode="json", exclude_defaults=True)
    Product.objects.filter(pk=product_id).update(costs=document)


@service(*SELLERS)
def rest_products(actor: Actor, product_ids: Sequence[int], *, resting: bool) -> int:  # noqa: ARG001
    """Take products out of the shop for now, or put them back; return how many that changed."""
    products = Product.objects.filter(pk__in=product_ids, live__isnull=False, is_resting=not resting)
    return products.update(is_resting=resting)


@service(*SELLERS)
def set_category(actor: Actor, product_ids: Sequence[int], category: str) -> int:
    """Put products in a category, each as a step of its draft that can be undone; return how many that changed."""
    operation = {"do": "set", "path": ["offer", "category"], "value": category or None}
    with transaction.atomic():
        others = Product.objects.select_for_update().filter(pk__in=product_ids).exclude(category=category)
        for product in others:
            edit_draft(actor, product.pk, [operation], seen_version=product.draft_version, label="Category")
    return len(others)


def insert_product(draft: dict[str, Any], wanted_key: str | None = None, *, is_kit: bool = False) -> Product:
    """Insert a product, or a kit, with a key of its own."""
    name = draft["offer"]["name"]
    with transaction.atomic():
        taken = {"products": [{"key": key} for key in Product.objects.values_list("key", flat=True)]}
        key = free_key(taken, ("products",), wanted_key or name)
        category = draft["offer"].get("category", "")[:MOST_IN_A_CATEGORY]
        return Product.objects.create(key=key, name=name, category=category, draft=draft, is_kit=is_kit)
