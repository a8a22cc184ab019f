"""Kits: made, attached to products, and published with every product that uses them."""

from collections.abc import Sequence
from dataclasses import dataclass
from decimal import Decimal
from typing import Any

from django.db import transaction

from yenzo.apps.accounts.rights import SELLERS, Actor, service
from yenzo.apps.files.store import StoredAssets
from yenzo.apps.history.locks import PUBLISHING, one_after_another
from yenzo.apps.history.services.changes import recorded
from yenzo.apps.products.kits import Kits, own_setup
from yenzo.apps.products.models import KitMember, KitScope, Product, Revision
from yenzo.apps.products.readiness import unready
from yenzo.apps.products.services.products import insert_product
from yenzo.apps.products.services.publishing import insert_revision
from yenzo.apps.products.to_core import setup_of_draft, setup_of_revision
from yenzo.core.documents.kit_use import Override
from yenzo.core.documents.kits import lands_nowhere
from yenzo.core.documents.setup import Setup
from yenzo.core.errors import DocumentError, YenzoError
from yenzo.core.evaluation import evaluate, sample_entries


@dataclass(frozen=True)
class KitEffect:
    """What publishing a kit changes in a product: the price of its sample before and after, and what comes up."""

    product: Product
    price_before: Decimal
    price_after: Decimal
    troubles: tuple[str, ...] = ()
    advice: tuple[str, ...] = ()


@service(*SELLERS)
def create_kit(actor: Actor, *, name: str, currency: str) -> Product:  # noqa: ARG001
    """Make a kit without lines, which no product uses yet."""
    document = {"schema": "yenzo-setup/1", "offer": {"name": name, "base_price": "0", "currency": currency}}
    with transaction.atomic():
        kit = insert_product(document, is_kit=True)
        KitScope.objects.create(kit=kit, position=KitScope.objects.count())
    return kit


@service(*SELLERS)
def set_kit_scope(
    actor: Actor,
    kit_id: int,
    *,
    reach: str,
    category: str,
    picked: Sequence[int],
    excluded: Sequence[int],
    only_signed_in: bool = False,
) -> None:
    """Say which products use a kit. It shows in drafts at once, in the shop when kit or product is published."""
    if reach == KitScope.Reach.CATEGORY and not category:
        raise DocumentError("no_category", str(kit_id), "Say which category uses the kit.")
    with recorded(actor, "kit", str(kit_id), "Who uses the kit"):
        KitScope.objects.select_for_update().filter(kit_id=kit_id).update(
            reach=reach, category=category, only_signed_in=only_signed_in
        )
        named = {*picked, *excluded}
        KitMember.objects.filter(kit_id=kit_id).exclude(product_id__in=named).update(is_picked=False, is_excluded=False)
        for pk in named:
            _set_member(kit_id, pk, is_picked=pk in picked, is_excluded=pk in excluded)


@service(*SELLERS)
def attach_kit(actor: Actor, kit_id: int, product_ids: Sequence[int]) -> int:
    """Make products use a kit, whatever its reach; return how many that are."""
    products = Product.objects.products().filter(pk__in=product_ids)
    with recorded(actor, "kit", str(kit_id), "Kit given to products"):
        for product in products:
            _set_member(kit_id, product.pk, is_picked=True, is_excluded=False)
    return len(products)


@service(*SELLERS)
def override_kit(
    actor: Actor,
    kit_id: int,
    product_id: int,
    *,
    variants: Sequence[str],
    overrides: Sequence[dict[str, Any]],
) -> None:
    """Say what one product has otherwise than its kit; raises DocumentError when that doesn't go together."""
    checked = [Override.model_validate(one).model_dump(mode="json", exclude_defaults=True) for one in overrides]
    with recorded(actor, "kit", str(kit_id), "What is otherwise in a product"):
        values = {"variants": list(variants), "overrides": checked}
        KitMember.objects.update_or_create(kit_id=kit_id, product_id=product_id, defaults=values)
        product = Product.objects.get(pk=product_id)
        Kits().resolved(product, setup_of_draft(product))


@service(*SELLERS)
def move_kit_up(actor: Actor, kit_id: int) -> None:  # noqa: ARG001
    """Put a kit before the one above it: its lines come first in every product that uses both."""
    with transaction.atomic():
        scopes = list(KitScope.objects.select_for_update())
        at = next(at for at, scope in enumerate(scopes) if scope.kit_id == kit_id)
        scopes.insert(max(at - 1, 0), scopes.pop(at))
        for position, scope in enumerate(scopes):
            scope.position = position
            scope.save(update_fields=["position"])


@service(*SELLERS)
def publish_kit(actor: Actor, kit_id: int, *, seen_version: int) -> tuple[Revision, int]:
    """Publish a kit and, with it, the last published set-up of every product that uses it; raises DocumentError.

    Return the kit's revision and how many products got a new one.
    """
    with transaction.atomic():
        # A product that is just being published is either seen here, or sees this kit.
        one_after_another(PUBLISHING)
        kit = Product.objects.select_for_update().get(pk=kit_id)
        if kit.draft_version != seen_version:
            raise DocumentError("stale", kit.key, "The kit has changed since you opened this page. Look at it again.")
        setup = setup_of_draft(kit)
        faults = unready(setup, is_priced=False)
        if faults:
            raise DocumentError("not_ready", kit.key, " ".join(faults))
        revision = insert_revision(actor, kit, setup)
        kit.live = revision
        kit.save(update_fields=["live"])
        users = _users(kit)
        for product in users:
            _republish(actor, product)
    return revision, len(users)


def kit_effects(kit: Product) -> list[KitEffect]:
    """Return what publishing a kit's draft would change, for every product that is live and uses it."""
    kits = Kits(instead={kit.pk: setup_of_draft(kit)})
    return [_effect(product, kits) for product in _users(kit, lock=False)]


def _effect(product: Product, kits: Kits) -> KitEffect:
    assert product.live is not None
    before, _ = _tried(setup_of_revision(product.live))
    try:
        setup = kits.resolved(product, own_setup(product.live))
        after, problems = _tried(setup)
        nowhere = [words for used in kits.used_by(product) for words in lands_nowhere(used.use, setup)]
        return KitEffect(product, before, after, tuple(unready(setup)), (*problems, *nowhere))
    except YenzoError as error:
        return KitEffect(product, before, before, (error.message,))


def _tried(setup: Setup) -> tuple[Decimal, tuple[str, ...]]:
    """Return the price of a sample of the goods, and what is the matter with it."""
    evaluation = evaluate(setup, sample_entries(setup), StoredAssets())
    problems = dict.fromkeys(f"With its sample: {item.message}" for item in evaluation.verdict.blocking)
    return evaluation.quote.total, tuple(problems)


def _users(kit: Product, *, lock: bool = True) -> list[Product]:
    products = Product.objects.products().filter(live__isnull=False).select_related("live").order_by("name")
    return Kits().users(kit, products.select_for_update(of=("self",)) if lock else products)


def _republish(actor: Actor, product: Product) -> None:
    """Publish what a product had published last with its kits as they are now; its draft is left alone."""
    assert product.live is not None
    setup = Kits().resolved(product, own_setup(product.live))
    faults = unready(setup)
    if faults:
        raise DocumentError("not_ready", product.key, f"“{product.name}” can't have the kit: {' '.join(faults)}")
    product.live = insert_revision(actor, product, setup, again=product.live)
    product.save(update_fields=["live"])


def _set_member(kit_id: int, product_id: int, *, is_picked: bool, is_excluded: bool) -> None:
    values = {"is_picked": is_picked, "is_excluded": is_excluded}
    KitMember.objects.update_or_create(kit_id=kit_id, product_id=product_id, defaults=values)
