"""Rows of materials come in, materials of the core go out."""

from typing import Any

from yenzo.apps.materials.models import Material
from yenzo.core.documents.materials import Materials


def all_materials() -> dict[str, dict[str, Any]]:
    """Return the workshop's materials as a set-up document has them."""
    found: dict[str, dict[str, Any]] = {kind: {} for kind in Material.Kind.values}
    for kind, key, document in Material.objects.values_list("kind", "key", "document"):
        found[kind][key] = document
    return found


def materials() -> Materials:
    """Return the workshop's materials as the core knows them."""
    return Materials.model_validate(all_materials())
