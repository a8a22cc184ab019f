"""Publishing: a draft that is ready becomes a revision that holds all it depends on."""

import hashlib
import json
from decimal import Decimal
from typing import Any

from django.db import transaction

from yenzo.apps.accounts.rights import SELLERS, Actor, service
from yenzo.apps.files.models import StoredFile
from yenzo.apps.files.store import StoredAssets
from yenzo.apps.history.locks import PUBLISHING, one_after_another
from yenzo.apps.products.kits import resolved_draft
from yenzo.apps.products.models import Product, Revision, RevisionFile
from yenzo.apps.products.readiness import faults_of
from yenzo.core.documents.reading import dump_document
from yenzo.core.documents.setup import Setup
from yenzo.core.documents.used import used_files, used_materials
from yenzo.core.documents.wording import used_wording
from yenzo.core.errors import DocumentError
from yenzo.core.trial import least_price


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
        faults = faults_of(setup)
        if faults:
            raise DocumentError("not_ready", product.key, " ".join(faults))
        revision = insert_revision(actor, product, setup)
        product.live = revision
        product.save(update_fields=["live"])
    return revision


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
    # A kit has no sides and no price; what can't be evaluated is refused elsewhere.
    return max(least_price(setup, StoredAssets()), Decimal(0)) if setup.fields else setup.offer.base_price


def card_of(setup: Setup) -> dict[str, Any]:
    """Return what lists say of a revision, so that they need not read all of it."""
    return {
        "names": _in_languages(setup, setup.offer.name),
        "category": setup.offer.category,
        "categories": _in_languages(setup, setup.offer.category),
        "language": setup.language,
        "kinds": sorted({field.kind for field in setup.fields}),
    }


def _in_languages(setup: Setup, words: str) -> dict[str, str]:
    """Return some words by language, as far as they are translated."""
    return {language: known[words] for language, known in setup.wording.items() if words in known}


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
