"""New products, their pictures, and publishing."""

import hashlib
import io
import json
from collections.abc import Sequence
from decimal import Decimal
from functools import lru_cache
from pathlib import Path
from typing import Any

from django.db import transaction
from PIL import Image

from yenzo.apps.accounts.rights import SELLERS, Actor, service
from yenzo.apps.files.models import StoredFile
from yenzo.apps.files.store import StoredAssets, store_file
from yenzo.apps.history.locks import PUBLISHING, one_after_another
from yenzo.apps.products.examples import begin_from
from yenzo.apps.products.kits import resolved_draft
from yenzo.apps.products.linked import not_in_shop
from yenzo.apps.products.models import Product, Revision, RevisionFile
from yenzo.apps.products.models.products import MOST_IN_A_CATEGORY
from yenzo.apps.products.services.drafts import edit_draft
from yenzo.apps.products.to_core import read_draft
from yenzo.core.artwork.facts import ArtworkLimits, Preparation
from yenzo.core.artwork.inspect import inspect_artwork
from yenzo.core.artwork.tinting import Tints, tinted_part
from yenzo.core.documents.artwork import OneColor
from yenzo.core.documents.edits import free_key
from yenzo.core.documents.entries import UploadedFile
from yenzo.core.documents.faults import find_nonsense, missing_materials
from yenzo.core.documents.reading import dump_document, dump_part, read_setup
from yenzo.core.documents.setup import Setup
from yenzo.core.documents.used import used_files, used_materials
from yenzo.core.documents.wording import used_wording
from yenzo.core.errors import DocumentError
from yenzo.core.pricing.helper import Costs
from yenzo.core.shapes.areas import box_on_side
from yenzo.core.shapes.box import Box
from yenzo.core.trial import Trouble, find_troubles, least_price

MOST_IN_A_NAME = 200
TRIES_KEPT = 50
# An area drawn up to the edge may lie a rounding beyond it.
TOUCHING_MM = 0.05


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


@service(*SELLERS)
def add_made_artwork(
    actor: Actor,  # noqa: ARG001
    path: Path,
    name: str,
    *,
    kinds: tuple[str, ...] = (),
    one_color: OneColor | None = None,
) -> dict[str, Any]:
    """Keep artwork of the workshop's own, made with customers' pieces or standing in; return it as documents have it.

    Return {"artwork": the file, "picture": how screens show it}. Raises ArtworkError.
    """
    made = inspect_artwork(path, name, ArtworkLimits(kinds=kinds), Preparation(one_color=one_color))
    facts, shown = made.facts, store_file(made.shown, is_public=True)
    artwork = UploadedFile(
        name=name,
        original=store_file(path.read_bytes()).sha256,
        prepared=store_file(made.prepared, is_public=True).sha256,
        kind=facts.kind,
        form=facts.form,
        see_through=facts.see_through,
        one_color=one_color is not None,
        width_px=facts.width_px,
        height_px=facts.height_px,
        size_bytes=facts.size_bytes,
    )
    picture = {"asset": shown.sha256, "width_px": facts.width_px, "height_px": facts.height_px}
    return {"artwork": dump_part(artwork), "picture": picture}


@service(*SELLERS)
def add_goods_picture(actor: Actor, path: Path, name: str) -> dict[str, Any]:  # noqa: ARG001
    """Keep a picture of goods; return it as a set-up document names it. Raises ArtworkError."""
    made = inspect_artwork(path, name, wanted=Preparation(as_picture=True))
    stored = store_file(made.prepared, is_public=True)
    return {"asset": stored.sha256, "width_px": made.facts.width_px, "height_px": made.facts.height_px}


@service(*SELLERS)
def add_tints(actor: Actor, path: Path, name: str, tints: Tints) -> dict[str, dict[str, Any]]:  # noqa: ARG001
    """Make pictures of a part of goods in colors, from a mask; return them by the colors' keys. Raises ArtworkError."""
    mask = inspect_artwork(path, name, wanted=Preparation(as_picture=True)).prepared
    picture = StoredAssets().read(tints.goods)
    found = {}
    for key, color in tints.colors.items():
        made = tinted_part(picture, mask, color)
        with Image.open(io.BytesIO(made)) as tinted:
            width, height = tinted.size
        stored = store_file(made, is_public=True)
        found[key] = {"asset": stored.sha256, "width_px": width, "height_px": height}
    return found


@service(*SELLERS)
def publish_setup(actor: Actor, product_id: int, *, seen_version: int) -> Revision:
    """Publish the draft as a new revision that holds all it depends on; raises DocumentError when it isn't ready."""
    with transaction.atomic():
        one_after_another(PUBLISHING)
        product = Product.objects.select_for_update().get(pk=product_id)
        if product.draft_version != seen_version:
            message = "The draft has changed since you opened it. Look at it again before publishing."
            raise DocumentError("stale", product.key, message)
        if product.is_kit:
            raise DocumentError(
                "kit", product.key, "A kit is published with the products that use it, on its own page."
            )
        setup = resolved_draft(product)
        faults = unready(setup) or [trouble.message for trouble in tried(setup) if trouble.blocks]
        if faults:
            raise DocumentError("not_ready", product.key, " ".join(faults))
        revision = insert_revision(actor, product, setup)
        product.live = revision
        product.save(update_fields=["live"])
    return revision


def tried(setup: Setup) -> tuple[Trouble, ...]:
    """Return what comes of a set-up when somebody orders by it as customers would; nothing it needs may be missing."""
    return _tried(setup.model_dump_json(by_alias=True))


@lru_cache(maxsize=TRIES_KEPT)
def _tried(document: str) -> tuple[Trouble, ...]:
    # The page of a set-up asks after each change, and again when it is published.
    return find_troubles(Setup.model_validate_json(document), StoredAssets())


def unready(setup: Setup, *, is_priced: bool = True) -> list[str]:
    """Return what keeps a draft from being published, each as a sentence."""
    faults = [*missing_materials(setup), *find_nonsense(setup, is_priced=is_priced), *not_in_shop(setup)]
    for side in setup.sides:
        if side.scale is None:
            faults.append(f"Mark the scale of “{side.name}” first: nothing on it has a size yet.")
            continue
        width, height = side.size_mm() or (0, 0)
        faults += [
            f"“{area.name}” reaches beyond the picture of “{side.name}”."
            for area in side.areas
            if box_on_side(area).excess_over(Box(0, 0, width, height)) > TOUCHING_MM
        ]
    if not setup.fields:
        faults.append("Nothing is asked yet: add a line to the order slip.")
    return faults


def insert_product(draft: dict[str, Any], wanted_key: str | None = None, *, is_kit: bool = False) -> Product:
    """Insert a product, or a kit, with a key of its own."""
    name = draft["offer"]["name"]
    with transaction.atomic():
        taken = {"products": [{"key": key} for key in Product.objects.values_list("key", flat=True)]}
        key = free_key(taken, ("products",), wanted_key or name)
        category = draft["offer"].get("category", "")[:MOST_IN_A_CATEGORY]
        return Product.objects.create(key=key, name=name, category=category, draft=draft, is_kit=is_kit)


def insert_revision(actor: Actor, product: Product, setup: Setup, *, again: Revision | None = None) -> Revision:
    """Insert the next revision of a product: of its draft, or of what an earlier one had of its own."""
    published = _as_published(setup)
    document = dump_document(published)
    latest = product.revisions.first()
    revision = Revision.objects.create(
        product=product,
        number=latest.number + 1 if latest else 1,
        document=document,
        sha256=_digest(document),
        own=again.own if again else product.draft,
        from_version=again.from_version if again else product.draft_version,
        name=setup.offer.name,
        base_price=setup.offer.base_price,
        currency=setup.offer.currency,
        least_price=_least_price(setup),
        card=card_of(setup),
        published_by=actor.member,
    )
    files = StoredFile.objects.filter(sha256__in=used_files(published))
    RevisionFile.objects.bulk_create(RevisionFile(revision=revision, file=file) for file in files)
    return revision


def _least_price(setup: Setup) -> Decimal:
    # A kit has no sides and no price; what can't be walked is refused elsewhere.
    return max(least_price(setup, StoredAssets()), Decimal(0)) if setup.fields else setup.offer.base_price


def card_of(setup: Setup) -> dict[str, Any]:
    """Return what lists say of a revision, so that they need not read all of it."""
    name = setup.offer.name
    names = {language: known[name] for language, known in setup.wording.items() if name in known}
    return {"names": names, "language": setup.language, "kinds": sorted({field.kind for field in setup.fields})}


def differs_from_live(product: Product, resolved: Setup) -> bool:
    """Tell whether publishing would change anything: the draft, its kits or the materials it uses."""
    return product.live is None or product.live.sha256 != _digest(dump_document(_as_published(resolved)))


def _digest(document: dict[str, Any]) -> str:
    canonical = json.dumps(document, sort_keys=True, ensure_ascii=False, separators=(",", ":"))
    return hashlib.sha256(canonical.encode()).hexdigest()


def _as_published(setup: Setup) -> Setup:
    fields = tuple(field.model_copy(update={"kept": {}}) for field in setup.fields)
    return setup.model_copy(
        update={"materials": used_materials(setup), "fields": fields, "wording": used_wording(setup)}
    )
