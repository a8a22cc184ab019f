"""Materials of the workshop."""

from typing import Any

from yenzo.apps.accounts.rights import SELLERS, Actor, service
from yenzo.apps.files.store import store_file
from yenzo.apps.history.services.changes import recorded
from yenzo.apps.materials.models import Material
from yenzo.core.documents.materials import Materials
from yenzo.core.text.fonts import Font


@service(*SELLERS)
def save_material(actor: Actor, kind: str, key: str, document: dict[str, Any]) -> Material:
    """Add a method, palette or typeface, or replace it; published revisions keep what they were made with."""
    Materials.model_validate({kind: {key: document}})
    with recorded(actor, "material", f"{kind}/{key}", f"{Material.Kind(kind).label} “{document['name']}”"):
        material, _ = Material.objects.update_or_create(kind=kind, key=key, defaults={"document": document})
    return material


@service(*SELLERS)
def add_font(actor: Actor, data: bytes, name: str, instance: str = "") -> str:  # noqa: ARG001
    """Keep a font file after trying it at an instance; return its SHA-256. Raises TypefaceError."""
    Font(data, name, instance)
    return store_file(data).sha256
