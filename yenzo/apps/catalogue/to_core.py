"""Rows of the catalogue come in, set-ups of the core go out. Compiled revisions are kept: they never change."""

from functools import lru_cache
from typing import Any

from yenzo.apps.catalogue.models import Material, Product, Revision
from yenzo.core.documents.materials import Materials
from yenzo.core.documents.reading import read_setup
from yenzo.core.documents.setup import Setup
from yenzo.core.documents.wording import in_language
from yenzo.core.speaking import reader

REVISIONS_KEPT = 200


def setup_of_revision(revision: Revision) -> Setup:
    """Return the set-up that a revision holds."""
    return _compiled(revision.pk, revision.sha256)


def shop_setup(revision: Revision) -> Setup:
    """Return the set-up that a revision holds, in the words of who reads."""
    return in_language(setup_of_revision(revision), reader())


@lru_cache(maxsize=REVISIONS_KEPT)
def _compiled(revision_id: int, sha256: str) -> Setup:  # noqa: ARG001 - the hash keeps two databases apart
    return read_setup(Revision.objects.values_list("document", flat=True).get(pk=revision_id))


def setup_of_draft(product: Product) -> Setup:
    """Return the draft's set-up with the workshop's materials as they are now; raises DocumentError."""
    return read_setup(with_materials(product.draft))


def with_materials(document: dict[str, Any]) -> dict[str, Any]:
    """Return a draft's document with all materials of the workshop in it."""
    return {**document, "materials": all_materials()}


def all_materials() -> dict[str, dict[str, Any]]:
    """Return the workshop's materials as a set-up document has them."""
    found: dict[str, dict[str, Any]] = {kind: {} for kind in Material.Kind.values}
    for kind, key, document in Material.objects.values_list("kind", "key", "document"):
        found[kind][key] = document
    return found


def materials() -> Materials:
    """Return the workshop's materials as the core knows them."""
    return Materials.model_validate(all_materials())
