"""Rows of products come in, set-ups of the core go out. Compiled revisions are kept: they never change."""

import hashlib
import json
from typing import Any

from yenzo.apps.materials.to_core import all_materials
from yenzo.apps.products.linked import with_linked
from yenzo.apps.products.models import KitMember, Product, Revision
from yenzo.core.caching import SizedCache
from yenzo.core.documents.kit_use import Override
from yenzo.core.documents.reading import read_setup, read_trusted
from yenzo.core.documents.setup import Setup
from yenzo.core.documents.wording import in_language
from yenzo.core.pricing.helper import Costs
from yenzo.core.translation import current_language

# Of the documents: what is compiled from them takes some times as much.
MOST_DOCUMENT_BYTES = 24_000_000
MOST_DRAFT_BYTES = 4_000_000


_compiled: SizedCache[Setup] = SizedCache(MOST_DOCUMENT_BYTES)
_drafts: SizedCache[Setup] = SizedCache(MOST_DRAFT_BYTES)


def setup_of_revision(revision: Revision) -> Setup:
    """Return the set-up that a revision holds, kept in the process (bounded by bytes)."""

    def make() -> tuple[Setup, int]:
        document = Revision.objects.values_list("document", flat=True).get(pk=revision.pk)
        return read_trusted(document), len(json.dumps(document))

    # The hash keeps two databases apart.
    return _compiled.get((revision.pk, revision.sha256), make)


def shop_setup(revision: Revision) -> Setup:
    """Return the set-up that a revision holds, in the words of who reads."""
    return in_language(setup_of_revision(revision), current_language())


def costs_of(product: Product) -> Costs:
    """Return what a product costs the workshop."""
    return Costs.model_validate(product.costs)


def overrides_of(member: KitMember) -> tuple[Override, ...]:
    """Return what a product has otherwise of a kit that it uses."""
    return tuple(Override.model_validate(one) for one in member.overrides)


def setup_of_draft(product: Product) -> Setup:
    """Return the draft's set-up with the workshop's materials as they are now; raises DocumentError."""
    return read_draft(product.draft)


def read_draft(draft: dict[str, Any]) -> Setup:
    """Return a draft as a set-up with the workshop's materials as they are now; raises DocumentError.

    An edit looks at the draft before and after it several times over: each state is read once, and kept for a while.
    """
    document = completed(draft)
    written = json.dumps(document, sort_keys=True, ensure_ascii=False).encode()
    return _drafts.get(hashlib.sha256(written).digest(), lambda: (read_setup(document), len(written)))


def completed(document: dict[str, Any]) -> dict[str, Any]:
    """Return a draft's document with what it lives on: the workshop's materials, and what linked extras cost now."""
    return {**with_linked(document), "materials": all_materials()}
