"""Which files materials point to, and how a change of one is taken back."""

from collections.abc import Iterator
from typing import Any

from yenzo.apps.files.interface import hashes_in, register_references
from yenzo.apps.history.interface import Keeper, keep_history
from yenzo.apps.materials.models import Material


def _read_material(subject: str) -> Any:
    kind, _, key = subject.partition("/")
    found = Material.objects.select_for_update().filter(kind=kind, key=key).first()
    return found and found.document


def _write_material(subject: str, document: Any) -> None:
    kind, _, key = subject.partition("/")
    if document is None:
        Material.objects.filter(kind=kind, key=key).delete()
    else:
        Material.objects.update_or_create(kind=kind, key=key, defaults={"document": document})


def _hashes() -> Iterator[str]:
    yield from hashes_in(Material, "document")


def register() -> None:
    """Say so."""
    register_references("materials", _hashes)
    keep_history("material", Keeper(_read_material, _write_material))
